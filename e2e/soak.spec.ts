import { expect, test, type Page } from '@playwright/test';
import { seeded } from '../core';
import { browse, newProfile } from './browse';
import { bringShelf, entry, log, said, startRun } from './person';

/** A dozen rounds with every test run; `npm run soak` has two hundred and more. The seed repeats a run that went wrong. */
const ROUNDS = Number(process.env.SOAK ?? 12);
const SEED = Number(process.env.SEED ?? 20_261_125);

/** What the screen shows of the ink: by the number in its note, how it was struck, if it was. */
async function inkOf(page: Page): Promise<[number: number, struck: string][]> {
  await page.getByRole('article').getByRole('link', { name: 'Sedge 5' }).click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
  const remarks = await page.locator('.ink tbody tr .remark').allTextContents();
  return remarks.flatMap((remark) => {
    const number = /\bn(\d+)\b/.exec(remark)?.[1];
    return number === undefined ? [] : [[Number(number), /struck: s(\d+)/.exec(remark)?.[1] ?? ''] as [number, string]];
  });
}

test(`@run whatever is logged, struck, reloaded and killed, the ink is what was acknowledged (${ROUNDS} rounds, seed ${SEED})`, async () => {
  test.setTimeout(120_000 + ROUNDS * 30_000);
  const noise = seeded(SEED);
  const profile = newProfile();
  let browser = await browse(profile);
  await bringShelf(browser.page, ['Sedge 5'], ['Cobble 20']);
  await startRun(browser.page, 'Sedge 5', 'Cobble 20', '5');

  const logged: number[] = [];
  const tried = new Set<number>();
  const struck = new Map<number, string>();
  let next = 0;
  const line = () => {
    next += 1;
    return `${(10 + (next % 80) / 10).toFixed(1)}w # n${next}`;
  };
  for (let round = 0; round < ROUNDS; round += 1) {
    const { page } = browser;
    // Every kind comes up in the first rounds; after them, chance decides.
    const turn = round < 4 ? [0, 0.6, 0.75, 0.9][round] : noise();
    if (turn === undefined || turn < 0.55) {
      for (let count = 1 + Math.floor(noise() * 3); count > 0; count -= 1) {
        await log(page, line());
        logged.push(next);
      }
    } else if (turn < 0.7) {
      await page.keyboard.press('Escape');
      await page.keyboard.press('x');
      await page.getByLabel(/Why strike/).fill(`s${round}`);
      await page.keyboard.press('Enter');
      await expect(said(page)).toContainText('Struck');
      // It comes back to be written again: that says which it was, be it one that was stored without being acknowledged.
      const again = /n(\d+)/.exec(await entry(page).inputValue())?.[1];
      if (again !== undefined) struck.set(Number(again), String(round));
      await page.keyboard.press('Escape');
    } else if (turn < 0.85) {
      await page.reload();
      await expect(entry(page)).toBeEnabled();
    } else {
      tried.add(next + 1);
      await entry(page).fill(line());
      await entry(page).press('Enter', { noWaitAfter: true });
      await new Promise((resolve) => setTimeout(resolve, noise() * 40));
      await browser.kill();
      browser = await browse(profile);
      await browser.page.goto('/');
      await expect(entry(browser.page)).toBeEnabled();
    }
  }

  const ink = await inkOf(browser.page);
  const numbers = ink.map(([number]) => number);
  expect(numbers).toEqual([...new Set(numbers)].sort((one, other) => one - other));
  expect(numbers.filter((number) => !tried.has(number))).toEqual(logged);
  expect(ink.filter(([, reason]) => reason)).toEqual([...struck].sort(([one], [other]) => one - other));
  await browser.kill();
});
