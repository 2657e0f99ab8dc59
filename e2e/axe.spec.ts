import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { choose, chooseAll, DEMO, isReady, SCREENS } from './person';

/** Many pages in one test: this is only when to give up. */
const GIVE_UP = 480_000;
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
const SHEETS: [path: string, button: string][] = [
  ['/bench', 'Add a device'],
  ['/bench?shelf=charger', 'Quern 65 adapter'],
  ['/bench?shelf=cable', 'Add a cable'],
  ['/bench?shelf=meter', 'Tidepole'],
  ['/bench', 'Import gear'],
  ['/plan/saltmarsh-chargers', 'Save as a method of my own'],
  ['/runs', 'Import a file'],
  ['/live', 'stop'],
  ['/live', 'Shortcuts'],
  ['/runs/saltmarsh-2', 'Strike the reading at 5 min'],
];

for (const theme of ['light', 'dark'] as const) {
  /** The page is the same in both themes but for its colours, so in the dark only these are looked at again. */
  const look = async (page: Page, name: string, part = 'html') => {
    // Only what is wrong is gathered: writing down all that is right takes most of the time.
    // There are no frames within frames, so the second page that the default opens for each look is not needed.
    const axe = new AxeBuilder({ page })
      .include(part)
      .options({ resultTypes: ['violations'] })
      .setLegacyMode();
    const { violations } = await (theme === 'light' ? axe.withTags(TAGS) : axe.withRules(['color-contrast'])).analyze();
    expect(violations.map(({ id, nodes }) => `${name}: ${id} at ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`)).toEqual([]);
  };

  test.describe(`@slice @bench axe finds nothing, ${theme}`, () => {
    test.setTimeout(GIVE_UP);
    test.beforeEach(async ({ page }) => {
      await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    });

    test('on any screen', async ({ page }) => {
      for (const [name, path] of Object.entries(SCREENS)) {
        await page.goto(DEMO + path);
        await isReady(page);
        await look(page, name);
        await page.setViewportSize({ width: 390, height: 844 });
        await look(page, `${name} on a phone`);
        await page.setViewportSize({ width: 1280, height: 800 });
      }
    });

    test('on a lane alone, in a spot check and in a rehearsal', async ({ page }) => {
      await page.goto(`${DEMO}/live`);
      await isReady(page);
      await page.getByRole('button', { name: 'Fill the board with lane A' }).click();
      await expect(page.getByRole('combobox', { name: 'Overlay an earlier run' })).toBeVisible();
      await look(page, 'lane');
      await page.goto(`${DEMO}/live/spot`);
      await choose(page, 'Device', 'Sedge 5');
      await chooseAll(page, 'Chargers');
      await page.getByRole('button', { name: /^Try/ }).click();
      await page.getByLabel(/^Volts, amps or watts/).fill('5w 47');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('region', { name: 'Compatibility' })).toBeVisible();
      await look(page, 'spot check');
      await page.goto(`${DEMO}/live/rehearse`);
      await page.getByRole('button', { name: 'Plug in' }).click();
      await expect(page.getByRole('article')).toHaveCount(1);
      await look(page, 'rehearsal');
    });

    test('on any empty screen', async ({ page }) => {
      for (const path of [
        '/plan',
        '/plan/new',
        '/plan/new/calendar',
        '/live',
        '/live/new',
        '/live/footage',
        '/live/spot',
        '/bench',
        '/bench/expect',
        '/runs',
        '/compare',
        '/nowhere',
        '/runs/nothing',
      ]) {
        await page.goto(path);
        await isReady(page);
        await look(page, `empty ${path}`);
      }
    });

    test('in any sheet', async ({ page }) => {
      for (const [path, button] of SHEETS) {
        await page.goto(DEMO + path);
        await isReady(page);
        await page.getByRole('button', { name: button }).first().click();
        await expect(page.getByRole('dialog')).toBeVisible();
        await look(page, button, '[role=dialog]');
      }
    });
  });
}
