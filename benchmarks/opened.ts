import { readFileSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM_ARGS } from '../playwright.config';
import { inkOf, type Header } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { atMost, inColdBrowser, median, PUT, type Figure } from './harness';

/** Lays filed runs as the ledger keeps them, with columns that are made in the page. */
const LAY = `(async (runs) => {
  ${PUT}
  const CHUNK = 65536;
  for (const { packed, samples, step } of runs) {
    const rows = [];
    const shapes = { percent: (at) => Math.min(100, Math.floor(at / (samples * step / 100))), watts: (at) => 26 * Math.exp(-at / (samples * step / 2)) + Math.sin(at), volts: () => 9, celsius: (at) => 25 + 10 * Math.sin(at / 9000) };
    for (const [quantity, value] of Object.entries(samples > 0 ? shapes : {}))
      for (let from = 0; from < samples; from += CHUNK) {
        const seconds = Float64Array.from({ length: Math.min(CHUNK, samples - from) }, (_, row) => (from + row) * step);
        rows.push([packed.header.id + '/' + quantity + '/' + String(from / CHUNK).padStart(6, '0'), { seconds, values: seconds.map(value) }]);
      }
    if (rows.length > 0) await put('inkpath-samples', rows);
    await put('inkpath-runs', [[packed.header.id, packed]]);
  }
})`;

interface Laid {
  packed: object;
  samples: number;
  step: number;
}

function runOf(id: string, samples: number, step: number, changes: Partial<Header> = {}): Laid {
  const header = exampleHeader({ id, ...(samples > 0 && { source: `${id}.csv`, cadence: undefined }), ...changes });
  const readings =
    samples > 0 ? [] : Array.from({ length: 25 }, (_, row) => ({ seconds: row * 300, percent: Math.min(100, 2 + row * 4), watts: 18 }));
  const end = samples > 0 ? samples * step : 7200;
  const at = header.plugInAt + end * 1000;
  const stop = { kind: 'stop', because: 'full', seq: readings.length + 1, id: 'stop', at, written: at };
  return { packed: { schema: header.schema, header, entries: [...inkOf(header, readings), stop] }, samples, step };
}

/** Puts runs into a logbook that was opened, and waits until they are listed. */
async function lay(page: Page, address: string, runs: readonly Laid[]): Promise<void> {
  await page.goto(address);
  await page.locator('h1').waitFor();
  await page.evaluate(`(${LAY})(${JSON.stringify(runs)})`);
  await page.goto(`${address}curve`);
  await page.getByText(`${runs.length} run`, { exact: false }).first().waitFor({ timeout: 120_000 });
}

const MILLION = 1_000_000;
const ROUNDS = 7;

/** From the list to a strip that is drawn: presses the run’s name, and looks at each frame. In milliseconds. */
const OPEN = `((id) => new Promise((resolve) => {
  const link = document.querySelector('a[href="/curve/' + id + '"]');
  const began = performance.now();
  link.click();
  (function look() {
    const canvas = document.querySelector('.reader .paper canvas');
    if (canvas && canvas.width > 300) resolve(performance.now() - began);
    else requestAnimationFrame(look);
  })();
}))`;

/** A run of a million samples from the list to its strip drawn, beside the same with a run that was read by hand. */
export function open({ own }: { own: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await lay(page, own, [runOf('million', MILLION, 0.1), runOf('byhand', 0, 1)]);
    const opened = async (id: string): Promise<number> => {
      await page.goto(`${own}curve`);
      await page.locator(`a[href="/curve/${id}"]`).waitFor();
      await page.waitForTimeout(700);
      return page.evaluate<number>(`(${OPEN})('${id}')`);
    };
    // The first of each fetches what the others find.
    for (const id of ['million', 'byhand']) await opened(id);
    const pairs: [number, number][] = [];
    for (let round = 0; round < ROUNDS; round += 1) pairs.push([await opened('million'), await opened('byhand')]);
    const times = (which: 0 | 1) => pairs.map((pair) => pair[which]);
    const worst = `${MILLION} rows of 4 quantities ${median(times(0)).toFixed(0)} ms (slowest ${Math.max(...times(0)).toFixed(0)}) beside a run read by hand ${median(times(1)).toFixed(0)} ms, medians of ${ROUNDS}`;
    return [atMost(2, { name: 'open', value: median(times(0)) / median(times(1)), unit: 'ratio', worst })];
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

/** When what was worked out of runs is surely stored, in milliseconds (app/ledger/worked.ts). */
const KEPT_BY = 2500;
/** Forgets what was worked out of runs before. */
const FORGET = `new Promise((resolve, reject) => {
  const opening = indexedDB.open('inkpath-worked');
  opening.onerror = reject;
  opening.onsuccess = () => {
    const transaction = opening.result.transaction('kept', 'readwrite');
    transaction.objectStore('kept').clear();
    transaction.oncomplete = () => { opening.result.close(); resolve(); };
    transaction.onerror = reject;
  };
})`;

/**
 * Twenty setups with three repeats each, samples included, from their address to curves and table, beside the same page with two of those runs: both as
 * they open once they were looked at before. How they open the first time is said too.
 */
export function compare({ own }: { own: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    const ids = Array.from({ length: SETUPS * REPEATS }, (_, index) => `run-${index}`);
    await lay(
      page,
      own,
      ids.map((id, index) => {
        const setup = index % SETUPS;
        return runOf(id, HOUR, 1, { pen: setup, charger: { id: `c${setup}`, name: `Brick ${setup}`, kind: 'adapter', watts: 20 } });
      }),
    );
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
    const two = ids.slice(0, 2);
    const all = { many: () => opened(ids, SETUPS), few: () => opened(two, 2) };
    const anew = async (open: () => Promise<number>): Promise<number> => {
      await page.evaluate(FORGET);
      const time = await open();
      await page.waitForTimeout(KEPT_BY);
      return time;
    };
    // The first of each fetches what the others find.
    for (const open of [all.few, all.many]) await open();
    await page.waitForTimeout(KEPT_BY);
    const rounds: Record<'few' | 'many' | 'fewAnew' | 'manyAnew', number>[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      const fewAnew = await anew(all.few);
      rounds.push({ fewAnew, manyAnew: await anew(all.many), many: await all.many(), few: await all.few() });
    }
    const middle = (which: keyof (typeof rounds)[number]) => median(rounds.map((times) => times[which]));
    const first = `the first time ${middle('manyAnew').toFixed(0)} beside ${middle('fewAnew').toFixed(0)} ms, ${(middle('manyAnew') / middle('fewAnew')).toFixed(2)}`;
    const worst = `${SETUPS} setups of ${REPEATS} runs of ${HOUR} rows ${middle('many').toFixed(0)} ms (slowest ${Math.max(...rounds.map(({ many }) => many)).toFixed(0)}) beside two runs ${middle('few').toFixed(0)} ms, medians of ${ROUNDS}; ${first}`;
    return [atMost(2, { name: 'compare', value: middle('many') / middle('few'), unit: 'ratio', worst })];
  });
}
