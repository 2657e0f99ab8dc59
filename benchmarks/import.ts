import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BrowserContext, Page } from '@playwright/test';
import { summarise } from '../core/curve';
import { logbookOf, writeLogbook, type StoredRun } from '../core/exchange';
import { foldRun, inkOf } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { choose, importFile } from '../e2e/person';
import { atMost, inColdBrowser, median, type Figure } from './harness';

/** Files in and out through the interface: what a person waits for, and for how long the page answers nothing meanwhile. */

const ROWS = 1_000_000;
const RUNS = 1000;
const ROUNDS = 3;

/** Times of the page, in milliseconds, and the longest for which it did not answer. */
interface Watched {
  chosen: number;
  read: number;
  pressed: number;
  shown: number;
  longest: number;
}

/**
 * Has the page note when a file is chosen, when it says what was read of it, when that is taken, and when `shown` holds. Between these it looks
 * every few milliseconds whether it still answers.
 */
const WATCH = (shown: string) => `(() => {
  const watched = window.watched = { longest: 0 };
  const now = () => performance.now();
  let last = 0;
  const isBusy = () => (watched.chosen && !watched.read) || (watched.pressed && !watched.shown);
  setInterval(() => {
    if (isBusy() && last > 0) watched.longest = Math.max(watched.longest, now() - last - 4);
    last = isBusy() ? now() : 0;
  }, 4);
  addEventListener('change', ({ target }) => { if (target.type === 'file') watched.chosen ??= now(); }, true);
  addEventListener('click', ({ target }) => { if (target.closest('button')?.textContent.trim() === 'Import it') watched.pressed ??= now(); }, true);
  (function look() {
    if (watched.chosen && document.querySelector('[role="dialog"] p[role="status"]')) watched.read ??= now();
    if (watched.pressed && (${shown})) watched.shown ??= now();
    if (!watched.shown) requestAnimationFrame(look);
  })();
})()`;

const until = (what: keyof Watched) =>
  `new Promise((resolve) => { (function look() { if (watched.${what}) resolve(); else setTimeout(look, 50); })(); })`;

/** Brings a file in through the interface. @param between what is said of it before it is taken */
async function brought(page: Page, file: string, shown: string, between: () => Promise<void> = () => Promise.resolve()): Promise<Watched> {
  await page.goto(new URL('/runs', page.url()).href);
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.evaluate(WATCH(shown));
  await page.getByLabel('File', { exact: true }).setInputFiles(file);
  await page.evaluate(until('read'));
  await between();
  await page.getByRole('button', { name: 'Import it' }).click();
  await page.evaluate(until('shown'));
  return page.evaluate<Watched>('watched');
}

const took = ({ chosen, read, pressed, shown }: Watched): number => read - chosen + shown - pressed;

/** A page with the same file at hand, in which the bare work is measured. */
async function besideOf(context: BrowserContext, address: string, file: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto(new URL('/live', address).href);
  await page.evaluate(() => {
    document.body.append(Object.assign(document.createElement('input'), { type: 'file' }));
  });
  await page.locator('input').setInputFiles(file);
  return page;
}
const FILE = `document.querySelector('input').files[0]`;

/** A million rows of a meter’s CSV from the choice of the file until their run is shown, beside Papa Parse alone in a worker. */
export function importFigures({ own, files }: { own: string; files: string }): Promise<Figure[]> {
  const parts = ['elapsed (s),percent,volts,amps,watts\n'];
  for (let row = 0; row < ROWS; row += 1)
    parts.push(
      `${row / 10},${Math.min(100, Math.floor(row / 10_000))},9.0${row % 10},2.${row % 100},${(18 + (row % 97) / 97).toFixed(3)}\n`,
    );
  const file = join(mkdtempSync(join(tmpdir(), 'inkpath-log-')), 'meter.csv');
  writeFileSync(file, parts.join(''));
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    const beside = await besideOf(context, files, file);
    await page.goto(`${own}runs`);
    const { device, charger } = exampleHeader();
    await importFile(page, 'shelf.json', writeLogbook(logbookOf({ devices: [device], chargers: [charger] })));
    const pick = async () => {
      await choose(page, 'Device', device.name);
      await choose(page, 'Charger', charger.name);
    };
    const canvas = `document.querySelector('.reader .paper canvas')?.width > 300`;
    const pairs: { mine: Watched; papa: number }[] = [];
    for (let round = 0; round < ROUNDS; round += 1)
      pairs.push({
        mine: await brought(page, file, canvas, pick),
        papa: await beside.evaluate<number>(`papa(${FILE})`),
      });
    const [mine, papa] = [median(pairs.map((pair) => took(pair.mine))), median(pairs.map((pair) => pair.papa))];
    const read = median(pairs.map(({ mine: { read, chosen } }) => read - chosen));
    const longest = Math.max(...pairs.map((pair) => pair.mine.longest));
    const worst = `${ROWS} rows ${mine.toFixed(0)} ms, of which reading ${read.toFixed(0)}, beside ${papa.toFixed(0)} ms, medians of ${ROUNDS}; the page answered within ${longest.toFixed(0)} ms`;
    return [
      atMost(2, { name: 'import', value: median(pairs.map((pair) => took(pair.mine) / pair.papa)), unit: 'ratio', worst }),
      atMost(50, { name: 'import, longest block', value: longest, unit: 'ms', worst }),
    ];
  });
}

/** A run of an hour and a half, read by hand every three minutes. */
function runOf(index: number): StoredRun {
  const header = exampleHeader({ id: `run-${index}`, plugInAt: Date.UTC(2026, 0, 1) + index * 7_200_000 });
  const readings = Array.from({ length: 30 }, (_, row) => ({
    seconds: row * 180,
    percent: Math.min(100, 2 + row * 3),
    watts: 22 - row / 2,
  }));
  const at = header.plugInAt + 5400 * 1000;
  return { header, entries: [...inkOf(header, readings), { kind: 'stop', because: 'full', seq: 31, id: `stop${index}`, at, written: at }] };
}

/**
 * A thousand runs in through the interface until they are listed, beside parsing the file and putting the same values in one transaction; and out until
 * the file is handed over, beside reading them and putting them into words.
 */
export async function logbookFigures({ own, files }: { own: string; files: string }): Promise<Figure[]> {
  const runs = Array.from({ length: RUNS }, (_, index) => runOf(index));
  const summaries = runs.map(({ header, entries }) => summarise(foldRun(header, entries)));
  const text = writeLogbook(logbookOf({}, runs));
  const file = join(mkdtempSync(join(tmpdir(), 'inkpath-book-')), 'logbook.json');
  writeFileSync(file, text);
  const rounds: { mine: Watched; raw: number; out: number; rawOut: number }[] = [];
  for (let round = 0; round < ROUNDS; round += 1)
    rounds.push(
      await inColdBrowser(async (context) => {
        const page = context.pages()[0] ?? (await context.newPage());
        await page.goto(own);
        const mine = await brought(page, file, `/${RUNS} runs/.test(document.body.textContent)`);
        await page.waitForTimeout(2000);
        await page.getByRole('button', { name: 'Export the logbook' }).click();
        const button = page.getByRole('dialog', { name: 'Export' }).getByRole('button', { name: 'Export', exact: true });
        const began = await button.evaluate((pressed: HTMLElement) => {
          pressed.click();
          return performance.timeOrigin + performance.now();
        });
        await page.waitForEvent('download');
        const out = Date.now() - began;
        const beside = await besideOf(context, files, file);
        const raw = await beside.evaluate<number>(`bringIn(${FILE}, ${JSON.stringify(summaries)})`);
        return { mine, raw, out, rawOut: await beside.evaluate<number>('takeOut()') };
      }),
    );
  const middle = (of: (round: (typeof rounds)[number]) => number) => median(rounds.map(of));
  const longest = Math.max(...rounds.map(({ mine }) => mine.longest));
  const says = (mine: number, raw: number) => `${mine.toFixed(0)} ms beside ${raw.toFixed(0)} ms`;
  const worst = `${RUNS} runs, ${(text.length / 1e6).toFixed(1)} MB: in ${says(
    middle(({ mine }) => took(mine)),
    middle(({ raw }) => raw),
  )}, the page answered within ${longest.toFixed(0)} ms; out ${says(
    middle(({ out }) => out),
    middle(({ rawOut }) => rawOut),
  )}; medians of ${ROUNDS}`;
  return [
    atMost(3, { name: 'logbook in', value: middle(({ mine, raw }) => took(mine) / raw), unit: 'ratio', worst }),
    atMost(50, { name: 'logbook in, longest block', value: longest, unit: 'ms', worst }),
    atMost(2, { name: 'logbook out', value: middle(({ out, rawOut }) => out / rawOut), unit: 'ratio', worst }),
  ];
}
