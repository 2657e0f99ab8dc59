import { expect, test, type Page } from '@playwright/test';
import { seeded } from '../core/simulate';
import { browse, newProfile } from './browse';
import { bookOf, bringShelf, choose, entry, finished, log, said, startRun, stopRun } from './person';

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

/** How often each of the four is tried: a kill at the start of a set, at a stop, at a strike, at an import. */
const KILLS = Math.max(1, Math.round(ROUNDS / 12));
const BROUGHT = 20;

test(`@run a browser killed at a start, a stop, a strike or an import leaves each whole or not begun (${KILLS} of each, seed ${SEED})`, async () => {
  test.setTimeout(120_000 + KILLS * 180_000);
  const noise = seeded(SEED + 1);
  const profile = newProfile();
  let browser = await browse(profile);
  const articles = () => browser.page.getByRole('article');
  /** What stands is whole, so that a page that is ready tells it. */
  const ready = async () => {
    await browser.page.goto('/');
    await expect(browser.page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(browser.page.getByRole('link', { name: 'Runs' })).toBeVisible();
    await expect(browser.page.getByRole('alert', { name: 'Runs set aside' })).toHaveCount(0);
  };
  const killSoon = async (most: number) => {
    await new Promise((resolve) => setTimeout(resolve, noise() * most));
    await browser.kill();
    browser = await browse(profile);
    await ready();
  };
  /** How many runs are listed, once what a crash left has been ended. */
  const listed = async () => {
    await browser.page.waitForTimeout(3000);
    await browser.page.goto('/curve');
    await expect(browser.page.getByRole('heading', { level: 1 })).toBeVisible();
    const table = browser.page.getByRole('table');
    await expect(browser.page.getByText('No finished runs yet').or(table).first()).toBeVisible();
    // The heading is a row too.
    return (await table.count()) === 0 ? 0 : Number(await table.getAttribute('aria-rowcount')) - 1;
  };
  await bringShelf(browser.page, ['Sedge 5', 'Bittern Slate'], ['Cobble 20', 'Quern 65']);

  let live = 0;
  let filed = 0;
  for (let round = 0; round < KILLS; round += 1) {
    // A device charges on one lane at a time: what is live is stopped in peace.
    let { page } = browser;
    for (; live > 0; live -= 1, filed += 1) {
      await ready();
      await stopRun(page, 'Window over');
    }

    // A set of two.
    await page.goto('/run/new');
    for (const [index, [device, charger]] of [['Sedge 5', 'Cobble 20'] as const, ['Bittern Slate', 'Quern 65'] as const].entries()) {
      await choose(page, 'Device', device);
      await choose(page, 'Charger', charger);
      await page.getByLabel('Level at plug-in').fill(String(40 + index));
      if (index === 0) await page.getByRole('button', { name: 'Start another with it' }).click();
    }
    await page.getByRole('button', { name: 'Ready' }).click();
    await expect(page.getByRole('button', { name: 'Switch the strip on now' })).toBeFocused();
    await page.keyboard.press('Space');
    await killSoon(60);
    const now = await articles().count();
    expect([live, live + 2]).toContain(now);
    live = now;
    for (const each of await articles().all()) await expect(each).toContainText(/4[01]%/);
    if (live === 0) {
      await startRun(browser.page, 'Sedge 5', 'Cobble 20', '40');
      live = 1;
    }

    // A strike of what was just noted.
    ({ page } = browser);
    await log(page, `# s${round}`);
    await page.keyboard.press('Escape');
    await page.keyboard.press('x');
    await page.getByLabel(/Why strike/).fill('killed');
    await page.keyboard.press('Enter', { delay: 0 });
    await killSoon(40);
    await browser.page.getByRole('article').first().getByRole('link').first().click();
    await expect(browser.page.getByRole('region', { name: 'Ink' }).getByRole('cell', { name: new RegExp(`s${round}\\b`) })).toHaveCount(1);

    // A stop, and the filing that follows it.
    ({ page } = browser);
    await ready();
    await page.keyboard.press('Escape');
    await page.keyboard.press('s');
    await page.getByRole('button', { name: 'Stop the run' }).click({ noWaitAfter: true });
    await killSoon(120);
    const left = await articles().count();
    expect([live, live - 1]).toContain(left);
    filed += live - left;
    live = left;
    expect(await listed()).toBe(filed);

    // An import.
    ({ page } = browser);
    const runs = Array.from({ length: BROUGHT }, (_, index) => finished(`k${round}-${index}`, [2, 30, 60]));
    await page.getByRole('button', { name: 'Import a file' }).click();
    await page
      .getByLabel('File', { exact: true })
      .setInputFiles({ name: 'runs.json', mimeType: 'application/json', buffer: Buffer.from(bookOf(runs)) });
    await page.getByRole('button', { name: 'Import it' }).click({ noWaitAfter: true });
    await killSoon(900);
    const found = await listed();
    expect([filed, filed + BROUGHT]).toContain(found);
    filed = found;
  }
  await browser.kill();
});
