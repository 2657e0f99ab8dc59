import { readFileSync } from 'node:fs';
import { chromium, expect, type Page } from '@playwright/test';
import { CHROMIUM_ARGS } from '../playwright.config';
import { summarise } from '../core/curve';
import { foldRun, inkOf } from '../core/ink';
import type { StoredRun } from '../core/exchange';
import { exampleHeader } from '../core/ink/example';
import { bookOf, importFile } from '../e2e/person';
import { atMost, inColdBrowser, median, PUT, type Figure } from './harness';

/** Lays filed runs as the ledger keeps them, with columns that are made in the page. */
const LAY = `(async (runs) => {
  ${PUT}
  const CHUNK = 65536;
  for (const { packed, listed, samples, step } of runs) {
    const rows = [];
    const shapes = { percent: (at) => Math.min(100, Math.floor(at / (samples * step / 100))), watts: (at) => 26 * Math.exp(-at / (samples * step / 2)) + Math.sin(at), volts: () => 9, celsius: (at) => 25 + 10 * Math.sin(at / 9000) };
    for (const [quantity, value] of Object.entries(samples > 0 ? shapes : {}))
      for (let from = 0; from < samples; from += CHUNK) {
        const seconds = Float64Array.from({ length: Math.min(CHUNK, samples - from) }, (_, row) => (from + row) * step);
        rows.push([packed.header.id + '/' + quantity + '/' + String(from / CHUNK).padStart(6, '0'), { seconds, values: seconds.map(value) }]);
      }
    if (rows.length > 0) await put('inkpath-samples', rows);
    await put('inkpath', [['run/' + packed.header.id, packed], ['listed/' + packed.header.id, listed]]);
  }
})`;

interface Laid {
  packed: object;
  listed: object;
  samples: number;
  step: number;
}

function runOf(id: string, samples: number, step: number): Laid {
  const header = exampleHeader({ id, ...(samples > 0 && { source: `${id}.csv`, cadence: undefined }) });
  const readings =
    samples > 0 ? [] : Array.from({ length: 25 }, (_, row) => ({ seconds: row * 300, percent: Math.min(100, 2 + row * 4), watts: 18 }));
  const end = samples > 0 ? samples * step : 7200;
  const at = header.plugInAt + end * 1000;
  const stop = { kind: 'stop' as const, because: 'full' as const, seq: readings.length + 1, id: 'stop', at, written: at };
  const entries = [...inkOf(header, readings), stop];
  return { packed: { schema: header.schema, header, entries }, listed: summarise(foldRun(header, entries)), samples, step };
}

/** Puts runs into a logbook that was opened, and waits until they are listed. */
async function lay(page: Page, address: string, runs: readonly Laid[]): Promise<void> {
  await page.goto(new URL('/live', address).href);
  await page.locator('h1').waitFor();
  await page.evaluate(`(${LAY})(${JSON.stringify(runs)})`);
  await page.goto(`${address}runs`);
  await page.getByText(`${runs.length} run`, { exact: false }).first().waitFor({ timeout: 120_000 });
}

const MILLION = 1_000_000;
const ROUNDS = 7;

/** From the list to a strip that is drawn: presses the run’s name, and looks at each frame. In milliseconds. */
const OPEN = `((id) => new Promise((resolve) => {
  const link = document.querySelector('a[href="/runs/' + id + '"]');
  const began = performance.now();
  link.click();
  (function look() {
    const canvas = document.querySelector('.reader .paper canvas');
    if (canvas && canvas.width > 300) resolve(performance.now() - began);
    else requestAnimationFrame(look);
  })();
}))`;

/** Does something with what was worked out of runs before, in the page. */
const withWorked = (mode: string, work: string) => `new Promise((resolve, reject) => {
  const opening = indexedDB.open('inkpath-worked');
  opening.onupgradeneeded = () => opening.result.createObjectStore('kept');
  opening.onerror = reject;
  opening.onsuccess = () => {
    const transaction = opening.result.transaction('kept', '${mode}');
    const request = transaction.objectStore('kept').${work};
    transaction.oncomplete = () => { opening.result.close(); resolve(request.result); };
    transaction.onerror = reject;
  };
})`;
const FORGET = withWorked('readwrite', 'clear()');
const COUNT = withWorked('readonly', 'count()');
/** When what was worked out is surely stored, in milliseconds (app/ledger/worked.ts). */
const KEPT_BY = 2500;

/**
 * A run of a million samples from the list to its strip drawn, beside the same with a run that was read by hand: both as they open once they were
 * shown, as an import shows them. How the long one opens while nothing is kept of it (a setting was changed, the program is newer) is said too.
 */
export function open({ own }: { own: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await lay(page, own, [runOf('million', MILLION, 0.1), runOf('byhand', 0, 1)]);
    const opened = async (id: string): Promise<number> => {
      await page.goto(`${own}runs`);
      await page.locator(`a[href="/runs/${id}"]`).waitFor();
      await page.waitForTimeout(700);
      return page.evaluate<number>(`(${OPEN})('${id}')`);
    };
    // The first of each fetches what the others find.
    for (const id of ['million', 'byhand']) await opened(id);
    const rounds: Record<'anew' | 'again' | 'byHand', number>[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      await page.evaluate(FORGET);
      const anew = await opened('million');
      await page.waitForTimeout(KEPT_BY);
      if ((await page.evaluate<number>(COUNT)) !== 1) throw new Error('Nothing was kept of the run.');
      rounds.push({ anew, again: await opened('million'), byHand: await opened('byhand') });
    }
    const times = (which: keyof (typeof rounds)[number]) => rounds.map((each) => each[which]);
    const [anew, again, byHand] = [median(times('anew')), median(times('again')), median(times('byHand'))];
    const worst = `${MILLION} rows of 4 quantities ${again.toFixed(0)} ms (slowest ${Math.max(...times('again')).toFixed(0)}) beside a run read by hand ${byHand.toFixed(0)} ms, medians of ${ROUNDS}; while nothing is kept of it ${anew.toFixed(0)} ms`;
    return [atMost(2, { name: 'open', value: again / byHand, unit: 'ratio', worst })];
  });
}

const RUNS = 10;
const DAY = 86_400;

/** Memory of a process that is its own, in bytes: what it shares is shared out. */
const memoryOf = (pid: number): number =>
  1024 * Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? Number.NaN);

/** Ten runs of 86,400 samples laid over each other, net of the program with none of them, beside the bytes of their columns. */
export async function memory({ own }: { own: string }): Promise<Figure[]> {
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: CHROMIUM_ARGS });
  try {
    const context = await browser.newContext({ serviceWorkers: 'block', viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const ids = Array.from({ length: RUNS }, (_, index) => `day-${index}`);
    await lay(
      page,
      own,
      ids.map((id) => runOf(id, DAY, 1)),
    );
    const session = await browser.newBrowserCDPSession();
    const taken = async (): Promise<number> => {
      const client = await context.newCDPSession(page);
      await client.send('HeapProfiler.collectGarbage');
      await client.detach();
      await page.waitForTimeout(1500);
      const { processInfo } = await session.send('SystemInfo.getProcessInfo');
      return processInfo.filter(({ type }) => type === 'renderer').reduce((sum, { id }) => sum + memoryOf(id), 0);
    };
    const net: number[] = [];
    for (let round = 0; round < 3; round += 1) {
      await page.goto(`${own}compare`);
      await page.locator('h1').waitFor();
      await page.waitForTimeout(1500);
      const without = await taken();
      await page.goto(`${own}compare?runs=${ids.join('.')}`);
      await page.locator('canvas').first().waitFor({ timeout: 120_000 });
      await page.waitForTimeout(3000);
      net.push((await taken()) - without);
    }
    const columns = RUNS * DAY * 4 * 2 * 8;
    const worst = `${RUNS} runs of ${DAY} samples of 4 quantities take ${(median(net) / 1e6).toFixed(0)} MB beside ${(columns / 1e6).toFixed(0)} MB of columns, median of 3`;
    return [atMost(3, { name: 'memory', value: median(net) / columns, unit: 'ratio', worst })];
  } finally {
    await browser.close();
  }
}

const SETUPS = 20;
const REPEATS = 3;
const HOUR = 3600;

/** A run of an hour, read once a second: four quantities. */
function hourOf(id: string, setup: number): StoredRun {
  const header = exampleHeader({
    ...{ id, source: `${id}.csv`, cadence: undefined, pen: setup },
    charger: { id: `c${setup}`, name: `Brick ${setup}`, kind: 'adapter', watts: 20 },
  });
  const seconds = Float64Array.from({ length: HOUR }, (_, row) => row);
  const column = (value: (at: number) => number) => ({ seconds, values: seconds.map((_, row) => Math.round(1000 * value(row)) / 1000) });
  const samples = {
    percent: column((at) => Math.min(100, Math.floor(at / (HOUR / 100)))),
    watts: column((at) => 26 * Math.exp(-at / (HOUR / 2)) + Math.sin(at)),
    volts: column(() => 9),
    celsius: column((at) => 25 + 10 * Math.sin(at / 9000)),
  };
  const at = header.plugInAt + HOUR * 1000;
  return { header, entries: [{ kind: 'stop', because: 'full', seq: 1, id: 'stop', at, written: at }], samples };
}

/**
 * Twenty setups with three repeats each, samples included, from their address to curves and table, beside the same page with two of those runs: both as
 * they open for the first time after they were imported, and the logbook was left alone for a few seconds. How they open while nothing is kept of them
 * (a setting was changed, the program is newer) and how they open again is said too.
 */
export function compare({ own }: { own: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    const runs = Array.from({ length: SETUPS * REPEATS }, (_, index) => hourOf(`run-${index}`, index % SETUPS));
    const book = bookOf(runs);
    const ids = runs.map(({ header }) => header.id);
    /** Imports them, anew where they are here, with nothing kept of them, and waits until they were worked out. */
    const bring = async (): Promise<void> => {
      await page.goto(`${own}runs`);
      await page.evaluate(FORGET);
      await importFile(page, 'runs.json', book);
      await expect.poll(() => page.evaluate<number>(COUNT).catch(() => 0), { timeout: 120_000 }).toBe(ids.length);
    };
    const opened = async (some: readonly string[], setups: number): Promise<number> => {
      await page.goto(`${own}compare?runs=${some.join('.')}`);
      return page.evaluate<number>(`new Promise((resolve) => {
        (function look() {
          const rows = document.querySelectorAll('[aria-label="Figures side by side"] tbody tr').length;
          if (rows === ${setups} && document.querySelector('.reader .paper canvas')) resolve(performance.now());
          else requestAnimationFrame(look);
        })();
      })`);
    };
    const few = () => opened(ids.slice(0, 2), 2);
    const many = () => opened(ids, SETUPS);
    const ways = { brought: bring, forgotten: () => page.evaluate(FORGET), again: () => page.waitForTimeout(KEPT_BY) };
    // The first of each fetches what the others find.
    await bring();
    for (const open of [few, many]) await open();
    const times = { brought: [] as [number, number][], forgotten: [] as [number, number][], again: [] as [number, number][] };
    for (let round = 0; round < ROUNDS; round += 1)
      for (const way of ['brought', 'forgotten', 'again'] as const) {
        await ways[way]();
        const first = await few();
        await ways[way]();
        times[way].push([await many(), first]);
      }
    const middle = (way: keyof typeof times) => ([0, 1] as const).map((which) => median(times[way].map((pair) => pair[which])));
    const says = (way: keyof typeof times) => {
      const [all = 0, two = 0] = middle(way);
      return `${all.toFixed(0)} ms beside ${two.toFixed(0)} ms, ${(all / two).toFixed(2)}`;
    };
    const [all = 0, two = 0] = middle('brought');
    const slowest = Math.max(...times.brought.map(([time]) => time)).toFixed(0);
    const worst = `${SETUPS} setups of ${REPEATS} runs of ${HOUR} rows after an import, ${says('brought')} for two runs (slowest ${slowest}); with nothing kept ${says('forgotten')}; opened again ${says('again')}; medians of ${ROUNDS}`;
    return [atMost(2, { name: 'compare', value: all / two, unit: 'ratio', worst })];
  });
}
