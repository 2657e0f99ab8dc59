import { driver } from 'driver.js';
import 'driver.js/dist/driver.css';
import './tour.css';
import type { ThemeName } from '../kit/theme';

/** The five stops of the tour, each by where it stands on the comparison that the demo opens on. */
const STOPS = [
  {
    at: '[aria-label="In short"]',
    title: 'The answer, and how sure it is',
    says: 'Setups that these readings cannot tell apart are named together.',
  },
  {
    at: '.spread .picture',
    title: 'Every charge over the others',
    says: 'Hover or tap to read values. By level, as bars or as a matrix: the rows above choose.',
  },
  {
    at: '[aria-label="Figures side by side"]',
    title: 'Figures with their margins',
    says: 'Each says how far off it can be; tied setups share the better rank. Press a figure to see its working.',
  },
  {
    at: 'aside[aria-label="Verdict"]',
    title: 'The whole verdict',
    says: 'By what a reader needs: speed, price, nights, the bag. What differed between the runs stands here too.',
  },
  {
    at: '[aria-label="Due line"]',
    title: 'A run is live',
    says: 'It calls when a reading is due. Type what the display shows, as 54 28.7w, and press Enter.',
  },
] as const;

/** Leads past what the program does. @param end when it is over, or was left */
export function takeTour(theme: ThemeName, end: () => void): void {
  const steps = STOPS.flatMap(({ at, title, says }) => {
    const element = document.querySelector(at);
    return element ? [{ element, popover: { title, description: says } }] : [];
  });
  driver({
    steps,
    animate: !matchMedia('(prefers-reduced-motion: reduce)').matches,
    showProgress: true,
    progressText: '{{current}} of {{total}}',
    nextBtnText: 'Next',
    prevBtnText: 'Back',
    doneBtnText: 'Done',
    popoverClass: `tour v-theme--${theme}`,
    stagePadding: 4,
    onDestroyed: end,
  }).drive();
}
