import type { BrowserContext, Page } from '@playwright/test';
import type { Entry, Header } from '../core/ink';
import { inkOf, SCHEMA } from '../core/ink';
import { atMost, inColdBrowser, median, PUT, type Figure } from './harness';

const LANES = 12;
const ENTRIES = 500;
const ROUNDS = 15;

/** Notes when every lane counts, or when an empty board says so. A text, for what a compiler adds to a function is not in the page. */
const WATCH = `(function look() {
  const counting = [...document.querySelectorAll('.lane .elapsed')].filter((each) => /\\d:\\d\\d/.test(each.textContent)).length;
  if (counting === ${LANES} || document.querySelector('.board .first-step')) window.countsAt = performance.now();
  else requestAnimationFrame(look);
})()`;

/** Resolves once the app has readied every lane for its next start, as it does for any long run. */
const GATHERED = `(async () => {
  const snapshots = () => new Promise((resolve) => {
    const opening = indexedDB.open('inkpath');
    opening.onsuccess = () => {
      const keys = opening.result.transaction('kept').objectStore('kept').getAllKeys(IDBKeyRange.bound('snapshot/', 'snapshot0'));
      keys.onsuccess = () => { opening.result.close(); resolve(new Set(keys.result.map((key) => key.split('/')[1])).size); };
    };
  });
  for (let tries = 0; (await snapshots()) < ${LANES}; tries += 1) {
    if (tries > 300) throw new Error('The ink of the lanes was not in snapshots within a minute.');
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
})()`;

/** Lays live runs as the ledger keeps them, straight into the database. */
const LAY = `(async (runs) => {
  ${PUT}
  await put('inkpath', runs.flatMap(({ header, rows }) => [['live/' + header.id, header], ...rows]));
})`;

function liveRun(index: number): { header: Header; rows: [string, Entry][] } {
  const device = { id: `d${index}`, name: `device ${index + 1}`, kind: 'phone' as const, wattHours: 17, inputLimit: 25 };
  const charger = { id: `c${index}`, name: `charger ${index + 1}`, kind: 'adapter' as const, watts: 20 };
  const plugInAt = Date.now() - ENTRIES * 30_000;
  const header: Header = {
    schema: SCHEMA,
    id: `live-${index}`,
    device,
    charger,
    plugInAt,
    cadence: { kind: 'fixed', every: 300 },
    pen: index,
  };
  const readings = Array.from({ length: ENTRIES }, (_, row) => ({
    seconds: row * 30,
    percent: Math.floor(row / 6),
    watts: 18,
    celsius: 31,
  }));
  return {
    header,
    rows: inkOf(header, readings).map((entry) => [`ink/${header.id}/${String(entry.seq).padStart(9, '0')}/${entry.id}`, entry]),
  };
}

/** A reload with twelve live runs of 500 entries each until every lane counts, beside the same app with an empty logbook, in turn. */
export async function recover({ own }: { own: string }): Promise<Figure[]> {
  const counting = async (page: Page): Promise<number> => {
    await page.reload();
    const found = await page.waitForFunction(() => (window as unknown as { countsAt?: number }).countsAt);
    return (await found.jsonValue()) ?? Number.NaN;
  };
  const opened = async (context: BrowserContext): Promise<Page> => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(own);
    await page.addInitScript(WATCH);
    return page;
  };
  const pairs = await inColdBrowser((one) =>
    inColdBrowser(async (other) => {
      const [full, empty] = [await opened(one), await opened(other)];
      await full.evaluate(`(${LAY})(${JSON.stringify(Array.from({ length: LANES }, (_, index) => liveRun(index)))})`);
      await counting(full);
      await full.evaluate(GATHERED);
      const times: [number, number][] = [];
      for (let round = 0; round < ROUNDS; round += 1) times.push([await counting(full), await counting(empty)]);
      return times;
    }),
  );
  const times = (which: 0 | 1) => pairs.map((pair) => pair[which]);
  const worst = `${LANES} lanes of ${ENTRIES} entries ${median(times(0)).toFixed(0)} ms (slowest ${Math.max(...times(0)).toFixed(0)}) beside empty ${median(times(1)).toFixed(0)} ms, medians of ${ROUNDS}`;
  return [atMost(1.5, { name: 'recover', value: median(pairs.map(([full, empty]) => full / empty)), unit: 'ratio', worst })];
}
