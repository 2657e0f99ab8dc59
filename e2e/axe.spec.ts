import { expect, test } from '@playwright/test';
import { look } from './look';
import { choose, chooseAll, DEMO, isReady, log } from './person';

/** Many pages in one test: this is only when to give up. */
const GIVE_UP = 480_000;
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
  // In the dark only colours are looked at, and nearly all of these are on the screens of screens.spec.ts too.
  const long = theme === 'dark' ? '@long ' : '';
  test.describe(`@slice @bench axe finds nothing, ${theme}`, () => {
    test.setTimeout(GIVE_UP);
    test.beforeEach(async ({ page }) => {
      await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    });

    test('on a lane alone, in a spot check and in a rehearsal', async ({ page }) => {
      await page.goto(`${DEMO}/live`);
      await isReady(page);
      await page.getByRole('button', { name: 'Fill the board with lane A' }).click();
      await expect(page.getByRole('combobox', { name: 'Overlay an earlier run' })).toBeVisible();
      await log(page, '47c');
      await expect(page.getByRole('article')).toContainText('stop if it swells');
      await look(page, theme, 'lane that runs hot');
      await page.goto(`${DEMO}/live/spot`);
      await choose(page, 'Device', 'Sedge 5');
      await chooseAll(page, 'Chargers');
      await page.getByRole('button', { name: /^Try/ }).click();
      await page.getByLabel(/^Volts, amps or watts/).fill('5w 47');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('region', { name: 'Compatibility' })).toBeVisible();
      await look(page, theme, 'spot check');
      await page.goto(`${DEMO}/live/rehearse`);
      await page.getByRole('button', { name: 'Plug in' }).click();
      await expect(page.getByRole('article')).toHaveCount(1);
      await look(page, theme, 'rehearsal');
    });

    test(`${long}on any empty screen`, async ({ page }) => {
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
        await look(page, theme, `empty ${path}`);
      }
    });

    test(`${long}in any sheet`, async ({ page }) => {
      for (const [path, button] of SHEETS) {
        await page.goto(DEMO + path);
        await isReady(page);
        await page.getByRole('button', { name: button }).first().click();
        await expect(page.getByRole('dialog')).toBeVisible();
        await look(page, theme, button, '[role=dialog]');
      }
    });
  });
}
