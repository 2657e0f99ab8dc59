import type { AllSettings } from '../kit/settings';

/** What each choice is called: where two logbooks differ in it, and where it is undone. */
export const SETTING_NAMES: Readonly<Record<keyof AllSettings, string>> = {
  theme: 'theme',
  singleKeys: 'single keys',
  loudness: 'sound',
  notify: 'notices',
  vibrate: 'vibration',
  speak: 'names spoken',
  awake: 'screen kept on',
  quietFrom: 'quiet hours',
  quietTo: 'quiet hours',
  projectTo: 'the level that energy samples are carried on to',
  projectFrom: 'the level that setups are compared from by energy samples',
  zeroesCounter: 'whether the Wh counter is set to zero',
  levels: 'levels asked for',
  marks: 'times asked for',
  watts: 'a power asked for',
  countFrom: 'what times count from',
  isCharging: 'whether only time with power counts',
  scale: 'temperatures',
  decimal: 'decimals',
  dates: 'dates',
  hours: 'clock',
  currency: 'currency',
  spread: 'spread between repeats',
  realUse: 'share of real use',
};
