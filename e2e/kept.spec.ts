import { expect, test, type Page } from '@playwright/test';
import { browse, newProfile } from './browse';
import { FOLDER } from '../app/ledger/copied';
import { bringShelf, entry, log, loseDatabases, loseSecondCopy, said, secondCopy, startRun, stopRun, storedOf } from './person';

/** What is called stored is kept, twice; each of these was once lost, doubled or half done. */

const lanes = (page: Page) => page.getByRole('article');
const ink = (page: Page) => page.getByRole('region', { name: 'Ink' });

async function twoLanes(page: Page): Promise<void> {
  await bringShelf(page, ['Sedge 5', 'Bittern Slate'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await startRun(page, 'Bittern Slate', 'Cobble 20', '9');
}
/** Opens the sheet that asks what happened, to note it on all lanes. */
async function happened(page: Page): Promise<void> {
  await page.keyboard.press('Escape');
  await page.keyboard.press('v');
  await page.getByLabel('on all lanes at once').check();
}

test('@kept an entry stands in the second copy when it is called logged: a browser killed twice in quick succession loses none', async () => {
  const profile = newProfile();
  const first = await browse(profile);
  await bringShelf(first.page, ['Sedge 5'], ['Cobble 20']);
  await startRun(first.page, 'Sedge 5', 'Cobble 20', '2');
  await log(first.page, '3 17.31w');
  expect(await secondCopy(first.page)).toContain('"watts":17.31');
  await first.kill();

  const second = await browse(profile);
  await second.page.goto('/');
  await log(second.page, '4 17.42w');
  await second.kill();

  // And then the databases go, as they do when a browser finds them broken.
  const third = await browse(profile);
  await third.page.goto('/inkpath');
  await loseDatabases(third.page);
  await third.page.goto('/');
  await expect(third.page.getByText('It was brought back from its second copy')).toBeVisible();
  await expect(lanes(third.page)).toContainText('4%');
  await lanes(third.page).getByRole('link', { name: 'Sedge 5' }).click();
  await expect(ink(third.page)).toContainText('17.31');
  await expect(ink(third.page)).toContainText('17.42');
  await log(third.page, '5');
  await third.kill();
});

test('@kept a second copy that was lost, or lies in many files, is written anew, and holds everything again', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await log(page, '3 17.31w');
  await page.goto('/inkpath');
  await loseSecondCopy(page);
  const files = () =>
    page.evaluate(async (name) => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle(name, { create: true });
      const names: string[] = [];
      for await (const each of folder.keys()) names.push(each);
      return names.length;
    }, FOLDER);
  await page.evaluate(async (name) => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle(name, { create: true });
    for (let left = 40; left > 0; left -= 1) await folder.getFileHandle(`past${left}.ndjson`, { create: true });
  }, FOLDER);
  expect(await files()).toBe(40);
  await page.goto('/');
  await expect.poll(files).toBeLessThan(5);
  expect(await secondCopy(page)).toContain('"watts":17.31');
  await log(page, '4 17.42w');
  await page.goto('/inkpath');
  await loseDatabases(page);
  await page.goto('/');
  await expect(page.getByText('It was brought back from its second copy')).toBeVisible();
  await lanes(page).getByRole('link', { name: 'Sedge 5' }).click();
  for (const watts of ['17.31', '17.42']) await expect(ink(page)).toContainText(watts);
});

test('@kept two tabs write at once, each on its own lane, and both are brought back', async ({ page, context }) => {
  await twoLanes(page);
  const other = await context.newPage();
  await other.goto('/');
  await expect(lanes(other)).toHaveCount(2);
  await other.keyboard.press('b');
  await other.getByRole('button', { name: 'Take over from the other tab' }).click();
  await expect(entry(other)).toBeEnabled();
  // The line goes on to the lane that is due first: each picks its own again.
  const logOn = async (tab: Page, lane: string, levels: readonly number[]) => {
    for (const level of levels) {
      await tab.keyboard.press('Escape');
      await tab.keyboard.press(lane);
      await log(tab, String(level));
    }
  };
  await Promise.all([logOn(page, 'a', [3, 4, 5, 6]), logOn(other, 'b', [10, 11, 12, 13])]);
  await other.close();
  await page.goto('/inkpath');
  await loseDatabases(page);
  await page.goto('/');
  await expect(lanes(page).first()).toContainText('6%');
  await expect(lanes(page).nth(1)).toContainText('13%');
  expect(await storedOf(page, 'ink/')).toBe(10);
});

test('@kept an event of all lanes that is written while one is stopped is on both, or on none', async ({ page }) => {
  await twoLanes(page);
  await happened(page);
  // The stop is asked for before the event is answered.
  await page.getByRole('button', { name: /screen woken/ }).click({ noWaitAfter: true });
  const stop = page.getByRole('button', { name: 'Stop the run' });
  await expect(async () => {
    await page.keyboard.press('s');
    await expect(stop).toBeVisible({ timeout: 200 });
  }).toPass();
  await stop.click();
  await expect(lanes(page)).toHaveCount(1);
  await lanes(page).getByRole('link').first().click();
  await expect(ink(page)).toContainText('screen woken');
  await page.getByRole('link', { name: 'Runs' }).click();
  await page.getByRole('table').getByRole('link').first().click();
  await expect(ink(page)).toContainText('screen woken');
});

test('@kept the clock is answered once, on the lanes that are left, when one is stopped while the question is open', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await twoLanes(page);
  await page.clock.runFor(60_000);
  // Half an hour goes by that no clock but the one on the wall has counted.
  await page.clock.setSystemTime(new Date('2026-10-05T12:31:00Z'));
  await page.clock.runFor(5000);
  await expect(page.getByText(/Not watched for/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('a');
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(lanes(page)).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');
  await expect(page.getByText(/count on as if it had not been/)).toBeVisible();
  await expect(page.getByText(/Not watched for/)).toHaveCount(0);
  await expect(lanes(page)).toContainText(/\b1:\d\d/);
  await page.reload();
  await expect(lanes(page)).toContainText(/\b1:\d\d/);
});

test('@kept a run that is resumed while a note is added to it has both, or says that the note is not in it and keeps it', async ({
  page,
  context,
}) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.keyboard.press('Escape');
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('heading', { name: 'When it reached' })).toBeVisible();
  await other.getByLabel('Write a reading into this run').fill('@0:00 # beside the oven');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await Promise.all([
    other.getByLabel('Write a reading into this run').press('Enter', { noWaitAfter: true }),
    page.getByRole('button', { name: 'Resume run' }).click({ noWaitAfter: true }),
  ]);
  await expect(lanes(page)).toHaveCount(1);
  await expect.poll(() => storedOf(page, 'live/')).toBe(1);
  await expect.poll(() => storedOf(page, 'run/')).toBe(0);
  const refused = ink(other).getByText('Another tab has Sedge 5');
  const written = ink(other).getByRole('row').filter({ hasText: 'beside the oven' });
  await expect(refused.or(written)).toBeVisible();
  if (await refused.isVisible()) {
    // The run came first: the note stands where it was typed, to be written where the run is now.
    await expect(other.getByLabel('Write a reading into this run')).toHaveValue('@0:00 # beside the oven');
    await log(page, '@0:00 # beside the oven');
  }
  await page.reload();
  await lanes(page).getByRole('link', { name: 'Sedge 5' }).click();
  await expect(ink(page)).toContainText('beside the oven');
  await expect(ink(page)).toContainText('stopped too soon');
});

test('@kept what is being typed into a run stays there when another tab resumes it', async ({ page, context }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await stopRun(page, 'Window over');
  const other = await context.newPage();
  await other.goto(page.url());
  const typed = other.getByLabel('Write a reading into this run');
  await typed.fill('@0:00 # beside the oven');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Resume run' }).click();
  await expect(other.getByText(/ · live/)).toBeVisible();
  await typed.press('Enter');
  await expect(ink(other)).toContainText('Another tab has Sedge 5');
  await expect(typed).toHaveValue('@0:00 # beside the oven');
});

test('@kept a browser without private files logs all the same, and says once that there is no second copy', async ({ page }) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(StorageManager.prototype, 'getDirectory');
  });
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await log(page, '3');
  await expect(page.getByText('there is no second copy of this logbook')).toBeVisible();
  await page.getByRole('button', { name: 'All right' }).click();
  await expect.poll(() => storedOf(page, 'setting/without copy')).toBe(1);
  await page.goto('/help');
  await expect(page.getByText('there is no second copy just now')).toBeVisible();
  await expect(page.getByText('there is no second copy of this logbook')).toHaveCount(0);
  await log(page, '4');
  await expect(said(page)).toContainText('Logged at');
});
