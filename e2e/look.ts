import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What the themes are called in the app. */
const THEMES = { light: 'paper', dark: 'darkRoom' } as const;

/**
 * axe finds nothing on a page, or in a part of it. A page is the same in both themes but for its colours: in the dark these alone are looked at again.
 *
 * @param theme that the page is in: a theme is chosen as the app begins, or by its key, and not by what the browser prefers since
 */
export async function look(page: Page, theme: keyof typeof THEMES, name: string, part = 'html'): Promise<void> {
  await expect(page.locator('.v-application')).toHaveClass(new RegExp(`v-theme--${THEMES[theme]}`));
  // Only what is wrong is gathered: writing down all that is right takes most of the time.
  // There are no frames within frames, so the second page that the default opens for each look is not needed.
  const axe = new AxeBuilder({ page })
    .include(part)
    .options({ resultTypes: ['violations'] })
    .setLegacyMode();
  const { violations } = await (theme === 'light' ? axe.withTags(TAGS) : axe.withRules(['color-contrast'])).analyze();
  expect(violations.map(({ id, nodes }) => `${name}: ${id} at ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`)).toEqual([]);
}
