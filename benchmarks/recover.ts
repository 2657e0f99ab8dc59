import type { Entry, Header } from '../core';
import { inkOf, SCHEMA } from '../core';
import { atMost, inColdBrowser, median, type Figure } from './harness';

const LANES = 12;
const ENTRIES = 500;
const ROUNDS = 9;

/** Notes when every lane counts, or when an empty board says so. A text, for what a compiler adds to a function is not in the page. */
const WATCH = `(function look() {
  const counting = [...document.querySelectorAll('.lane .elapsed')].filter((each) => /\\d:\\d\\d/.test(each.textContent)).length;
  if (counting === ${LANES} || document.querySelector('.board .first-step')) window.countsAt = performance.now();
  else requestAnimationFrame(look);
})()`;

/** Lays live runs as the ledger keeps them, straight into the databases. */
const LAY = `(async (runs) => {
  const put = (name, rows) => new Promise((resolve, reject) => {
    const opening = indexedDB.open(name);
    opening.onupgradeneeded = () => opening.result.createObjectStore('kept');
    opening.onerror = reject;
    opening.onsuccess = () => {
      const transaction = opening.result.transaction('kept', 'readwrite');
      for (const [key, value] of rows) transaction.objectStore('kept').put(value, key);
      transaction.oncomplete = () => { opening.result.close(); resolve(); };
    };
  });
  for (const { header, rows } of runs) await put('inkpath-ink-' + header.id, rows);
  await put('inkpath-live', runs.map(({ header }) => [header.id, header]));
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
  return { header, rows: inkOf(header, readings).map((entry) => [`${String(entry.seq).padStart(9, '0')}/${entry.id}`, entry]) };
}

/** A reload with twelve live runs of 500 entries each until every lane counts, beside the same app with an empty logbook. */
export async function recover({ own }: { own: string }): Promise<Figure[]> {
  const until = (isFull: boolean) =>
    inColdBrowser(async (context) => {
      const page = context.pages()[0] ?? (await context.newPage());
      await page.goto(own);
      if (isFull) await page.evaluate(`(${LAY})(${JSON.stringify(Array.from({ length: LANES }, (_, index) => liveRun(index)))})`);
      await page.addInitScript(WATCH);
      const times: number[] = [];
      for (let round = 0; round < ROUNDS; round += 1) {
        await page.reload();
        const found = await page.waitForFunction(() => (window as unknown as { countsAt?: number }).countsAt);
        times.push((await found.jsonValue()) ?? Number.NaN);
      }
      return times;
    });
  const [full, empty] = [await until(true), await until(false)];
  const [own12, none] = [median(full), median(empty)];
  const worst = `${LANES} lanes of ${ENTRIES} entries ${own12.toFixed(0)} ms (slowest ${Math.max(...full).toFixed(0)}) beside empty ${none.toFixed(0)} ms, medians of ${ROUNDS}`;
  return [atMost(2, { name: 'recover', value: own12 / none, unit: 'ratio', worst })];
}
