import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { logbookOf, writeLogbook } from '../core/exchange';
import { SCHEMA } from '../core/ink';
import { seeded } from '../core/simulate';
import { browse, newProfile } from './browse';
import { bringShelf, choose, entry, finished, log, plantIn, said, startRun, storedOf } from './person';

/** A dozen rounds with every test run; `npm run soak` has two hundred and more. The seed repeats a run that went wrong. */
const ROUNDS = Number(process.env.SOAK ?? (process.env.THOROUGH ? 8 : 3));
const SEED = Number(process.env.SEED ?? 20_261_125);

/** What the screen shows of the ink of a run: by the number in its note, how it was struck, if it was. */
async function inkOf(page: Page, device: string): Promise<[number: number, struck: string][]> {
  await page.getByRole('article').getByRole('link', { name: device }).click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
  const remarks = await page.locator('.ink tbody tr .remark').allTextContents();
  return remarks.flatMap((remark) => {
    const number = /\bn(\d+)\b/.exec(remark)?.[1];
    return number === undefined ? [] : [[Number(number), /struck: s(\d+)/.exec(remark)?.[1] ?? ''] as [number, string]];
  });
}

/** What is known of one tab's lane: it alone writes to it. */
class Lane {
  readonly logged: number[] = [];
  /** Not answered: the browser was killed. */
  readonly tried = new Set<number>();
  readonly struck = new Map<number, string>();
  next = 0;
  constructor(
    readonly key: string,
    readonly device: string,
  ) {}

  line(): string {
    this.next += 1;
    return `${(10 + (this.next % 80) / 10).toFixed(1)}w # n${this.next}`;
  }
  /** Where its readings are typed: the due line goes on to the lane that is due first, so each has a field of its own. */
  field = (page: Page) => page.getByLabel(`What lane ${this.key} shows`);

  async log(page: Page): Promise<void> {
    const line = this.line();
    await this.field(page).fill(line);
    await this.field(page).press('Enter');
    await expect(this.field(page)).toHaveValue('');
    await expect(said(page)).toContainText(`on ${this.device}`);
    this.logged.push(this.next);
  }
  /** Enters a line and does not wait for the answer. */
  async try(page: Page): Promise<void> {
    const line = this.line();
    this.tried.add(this.next);
    await this.field(page).fill(line);
    await this.field(page).press('Enter', { noWaitAfter: true });
  }
  async strike(page: Page, reason: string): Promise<void> {
    await page.bringToFront();
    await entry(page).press('Escape');
    await entry(page).press('x');
    await page.getByLabel(/Why strike/).fill(`s${reason}`);
    await page.keyboard.press('Enter');
    await expect(said(page)).toContainText('Struck');
    // It comes back to be written again: that says which it was, be it one that was stored without being acknowledged.
    const again = /n(\d+)/.exec(await entry(page).inputValue())?.[1];
    if (again !== undefined) this.struck.set(Number(again), reason);
    await page.keyboard.press('Escape');
  }
  async expectWhole(page: Page): Promise<void> {
    await page.goto('/');
    const ink = await inkOf(page, this.device);
    const numbers = ink.map(([number]) => number);
    expect(numbers).toEqual([...new Set(numbers)].sort((one, other) => one - other));
    expect(numbers.filter((number) => !this.tried.has(number))).toEqual(this.logged);
    expect(ink.filter(([, reason]) => reason)).toEqual([...this.struck].sort(([one], [other]) => one - other));
  }
}

test(`@run whatever two tabs log and strike, reloaded and killed, the ink is what was acknowledged (${ROUNDS} rounds, seed ${SEED})`, async () => {
  test.setTimeout(120_000 + ROUNDS * 30_000);
  const noise = seeded(SEED);
  const profile = newProfile();
  let browser = await browse(profile);
  let other = browser.page;
  const [first, second] = [new Lane('A', 'Sedge 5'), new Lane('B', 'Bittern Slate')];
  /** How often the browser threw everything away. */
  let thrown = 0;
  let kills = 0;
  await bringShelf(browser.page, [first.device, second.device], ['Cobble 20']);
  for (const { device } of [first, second]) await startRun(browser.page, device, 'Cobble 20', '5');
  /** A second tab takes one of the lanes. */
  const openOther = async () => {
    other = await browser.page.context().newPage();
    await other.goto(new URL('/', browser.page.url()).href);
    await expect(other.getByRole('article')).toHaveCount(2);
    await other.keyboard.press('b');
    await other.getByRole('button', { name: 'Take over from the other tab' }).click();
    await expect(second.field(other)).toBeEnabled();
  };
  const killSoon = async () => {
    await new Promise((resolve) => setTimeout(resolve, noise() * 40));
    await browser.kill();
    kills += 1;
    browser = await browse(profile);
    await browser.page.goto('/');
    await expect(entry(browser.page)).toBeEnabled();
    thrown += await browser.page.getByText('It was brought back from its second copy').count();
  };
  await openOther();
  for (let round = 0; round < ROUNDS; round += 1) {
    // Every kind comes up in the first rounds; after them, chance decides.
    const turn = round < 5 ? [0, 0.6, 0.7, 0.8, 0.95][round] : noise();
    if (turn === undefined || turn < 0.5) {
      for (let count = 1 + Math.floor(noise() * 3); count > 0; count -= 1) {
        await first.log(browser.page);
        await second.log(other);
      }
    } else if (turn < 0.65) {
      await first.strike(browser.page, String(round));
      await second.log(other);
    } else if (turn < 0.75) {
      await browser.page.reload();
      // The other tab stood in the queue for what it left. The line may be with the other lane.
      await expect(browser.page.getByRole('article')).toHaveCount(2);
      await browser.page.keyboard.press('a');
      await browser.page.getByRole('button', { name: 'Take over from the other tab' }).click();
      await expect(first.field(browser.page)).toBeEnabled();
    } else {
      await first.try(browser.page);
      await second.try(other);
      await killSoon();
      // And once more, before it has come to rest.
      if (turn > 0.88) {
        await first.try(browser.page);
        await killSoon();
      }
      await openOther();
    }
  }
  await other.close();
  for (const lane of [first, second])
    await lane.expectWhole(browser.page).catch(async (error: unknown) => {
      // A page that Chromium itself gives up is a kill like any other: what is stored is looked at in the next one.
      if (!String(error).includes('Target crashed')) throw error;
      await killSoon();
      await lane.expectWhole(browser.page);
    });
  await browser.kill();
  console.log(`Soak: ${kills} kills, everything thrown away by the browser ${thrown} times; nothing acknowledged is missing.`);
});

/** How often the browser is killed while the logbook of an older program moves. */
const MOVES = Math.max(2, Math.round(ROUNDS / 4));

test(`@long @run a logbook of an older program is moved whole, however often the browser is killed meanwhile (${MOVES} kills, seed ${SEED})`, async () => {
  test.setTimeout(120_000 + MOVES * 30_000);
  const noise = seeded(SEED + 2);
  const { databases } = JSON.parse(readFileSync(new URL('../app/ledger/fixtures/old-logbook.json', import.meta.url), 'utf8')) as {
    databases: Record<string, [string, unknown][]>;
  };
  const old = (page: Page) =>
    page.evaluate(async () =>
      (await indexedDB.databases()).flatMap(({ name = '' }) =>
        /^inkpath-(shelf|live|runs|catalogue|studies|methods|comparisons|arriving|ink-)/.test(name) ? [name] : [],
      ),
    );
  for (let kills = 0; kills < MOVES;) {
    const profile = newProfile();
    let browser = await browse(profile);
    await browser.page.goto('/inkpath');
    await plantIn(browser.page, databases, 2);
    // Killed again and again, until it is moved.
    for (let left = (await old(browser.page)).length; left > 0 && kills < MOVES;) {
      await browser.page.goto('/', { waitUntil: 'commit' });
      await new Promise((resolve) => setTimeout(resolve, 100 + noise() * 900));
      await browser.kill();
      kills += 1;
      browser = await browse(profile);
      await browser.page.goto('/inkpath');
      left = (await old(browser.page)).length;
    }
    const { page } = browser;
    await page.goto('/');
    await expect(page.getByRole('article')).toHaveCount(1);
    const counts = await Promise.all(
      ['run/', 'listed/', 'live/', 'ink/', 'study/', 'method/', 'comparison/'].map((kind) => storedOf(page, kind)),
    );
    // That nobody was there meanwhile may have become ink too.
    expect(counts).toEqual([13, 13, 1, Math.max(11, counts[3] ?? 0), 1, 1, 1]);
    expect(await old(page)).toEqual([]);
    await log(page, '60');
    await browser.kill();
  }
});

/** Resolves when a page has made good what a kill left undone: a line may stand whose transaction does not. */
async function compared(page: Page): Promise<void> {
  await expect
    .poll(() =>
      page.evaluate(async () => {
        const { held = [], pending = [] } = await navigator.locks.query();
        const names = [...held, ...pending].map(({ name }) => name ?? '');
        return names.some((name) => name.startsWith('inkpath/page/')) && !names.includes('inkpath/mend');
      }),
    )
    .toBe(true);
  await page.waitForTimeout(500);
}

/** How often each of the four is tried: a kill at the start of a set, at a stop, at a strike, at an import. */
const KILLS = Math.max(1, Math.round(ROUNDS / 12));
/** So many files are brought in a round, and so many runs in each. */
const FILES = process.env.SOAK ? 3 : 1;
const BROUGHT = 20;

test(`@long @run a browser killed at a start, a stop, a strike or an import leaves each whole or not begun (${KILLS} of each, seed ${SEED})`, async () => {
  test.setTimeout(120_000 + KILLS * 180_000);
  const noise = seeded(SEED + 1);
  const profile = newProfile();
  let browser = await browse(profile);
  const articles = () => browser.page.getByRole('article');
  /** What stands is whole, so that a page that is ready tells it. */
  const ready = async () => {
    await browser.page.goto('/');
    await expect(browser.page.getByRole('heading', { level: 1 })).toBeVisible();
    await expect(browser.page.getByRole('link', { name: 'Runs', exact: true })).toBeVisible();
    await expect(browser.page.getByRole('alert', { name: 'Runs set aside' })).toHaveCount(0);
  };
  const killSoon = async (max: number) => {
    await new Promise((resolve) => setTimeout(resolve, noise() * max));
    await browser.kill();
    browser = await browse(profile);
    await ready();
    await compared(browser.page);
  };
  /** How many runs are listed, once what a crash left has been ended. */
  const listed = async () => {
    await browser.page.waitForTimeout(3000);
    await browser.page.goto('/runs');
    await expect(browser.page.getByRole('heading', { level: 1 })).toBeVisible();
    const table = browser.page.getByRole('table');
    await expect(browser.page.getByText('From plug-in to a verdict').or(table).first()).toBeVisible();
    // The heading is a row too.
    return (await table.count()) === 0 ? 0 : Number(await table.getAttribute('aria-rowcount')) - 1;
  };
  await bringShelf(browser.page, ['Sedge 5', 'Bittern Slate'], ['Cobble 20', 'Quern 65']);

  let live = 0;
  let filed = 0;
  /** Files that came in. */
  let whole = 0;
  for (let round = 0; round < KILLS; round += 1) {
    // A device charges on one lane at a time: what is live is stopped in peace.
    let { page } = browser;
    for (; live > 0; live -= 1, filed += 1) {
      await ready();
      await page.getByRole('button', { name: 'stop' }).click();
      await page.getByLabel('Window over').check();
      await page.getByRole('button', { name: 'Stop the run' }).click();
      // The last of them leads to its run; of two, the other stays on the board.
      await expect(articles()).toHaveCount(live - 1);
    }

    // A set of two.
    await page.goto('/live/new');
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

    // Files that are brought in, each with a comparison of its runs: all of it, or nothing.
    for (let file = 0; file < FILES; file += 1) {
      ({ page } = browser);
      const name = `k${round}-${file}`;
      const runs = Array.from({ length: BROUGHT }, (_, index) => finished(`${name}-${index}`, [2, 30, 60]));
      const comparison = { schema: SCHEMA, id: name, name, at: 1, runs: runs.map(({ header }) => header.id) };
      await page.getByRole('button', { name: 'Import a file' }).click();
      await page.getByLabel('File', { exact: true }).setInputFiles({
        name: 'runs.json',
        mimeType: 'application/json',
        buffer: Buffer.from(writeLogbook(logbookOf({ comparisons: [comparison] }, runs))),
      });
      await page.getByRole('button', { name: 'Import it' }).click({ noWaitAfter: true });
      await killSoon(900);
      const found = await listed();
      expect([filed, filed + BROUGHT]).toContain(found);
      whole += (found - filed) / BROUGHT;
      filed = found;
      expect(await storedOf(browser.page, 'comparison/')).toBe(whole);
    }
  }
  await browser.kill();
});
