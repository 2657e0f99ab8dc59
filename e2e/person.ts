import { expect, type Page } from '@playwright/test';
import type { Charger, Device } from '../core/bench';
import { logbookOf, writeLogbook, type StoredRun } from '../core/exchange';
import { inkOf, type Draft, type Header } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { PORTS } from '../server/serve';

/** What a person does with the program, by what they see and press. */

export const DEMO = `http://127.0.0.1:${PORTS.testDemo}`;

export async function addDevice(page: Page, name: string, milliampHours: string, volts: string, limit?: string): Promise<void> {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Battery, mAh').fill(milliampHours);
  await page.getByLabel('Nominal volts').fill(volts);
  if (limit) await page.getByLabel('Input limit, W').fill(limit);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: `Retire ${name}` })).toBeVisible();
}

export async function addCharger(page: Page, name: string, watts: string, price = ''): Promise<void> {
  await page.goto('/bench?shelf=charger');
  await page.getByRole('button', { name: 'Add a charger' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Watts').fill(watts);
  await page.getByLabel('Label text').fill(`5V⎓3A 9V⎓2.22A`);
  if (price) {
    await unfold(page, 'What decides a purchase');
    await page.getByLabel('Price').fill(price);
  }
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: `Retire ${name}` })).toBeVisible();
}

/** A phone, and an adapter of 20 W, unless more is said of them; their ids are their names in small letters. */
type Some = Partial<Device> & { name: string };
type Any = Partial<Charger> & { name: string };
const idOf = (name: string) => name.toLowerCase().replaceAll(' ', '-');
const phone = (of: Some): Device => ({
  ...{ id: idOf(of.name), kind: 'phone' as const, milliampHours: 4500, nominalVolts: 3.85, inputLimit: 25 },
  ...of,
});
const adapter = (of: Any): Charger => ({ id: idOf(of.name), kind: of.name === 'Puddle' ? 'pad' : 'adapter', watts: 20, ...of });

/** Puts a whole shelf in place, as a person does who brings a logbook in from elsewhere. */
export async function bringShelf(
  page: Page,
  devices: readonly (string | Some)[],
  chargers: readonly (string | Any)[],
  cables: readonly string[] = [],
): Promise<void> {
  const named = <Each extends { name: string }>(each: string | Each) => (typeof each === 'string' ? ({ name: each } as Each) : each);
  const gear = {
    devices: devices.map((each) => phone(named(each))),
    chargers: chargers.map((each) => adapter(named(each))),
    cables: cables.map((name) => ({
      id: idOf(name),
      name,
      chargerEnd: 'USB-C' as const,
      deviceEnd: 'USB-C' as const,
      marker: 'none' as const,
    })),
    meters: [],
  };
  const book = logbookOf(gear, []);
  await page.goto('/runs');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'shelf.json', mimeType: 'application/json', buffer: Buffer.from(writeLogbook(book)) });
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** Waits until no choices are offered: the list of the field before fades, and its choices are not to be taken for those of the next. */
export const noneOffered = (page: Page) => expect(page.getByRole('listbox')).toHaveCount(0);

/** Opens a field that offers choices with the keyboard, and clicks one. */
export async function choose(page: Page, label: string, name: string): Promise<void> {
  await noneOffered(page);
  await page.getByRole('combobox', { name: label }).press('ArrowDown');
  // A choice may say beneath its name what it is good for.
  await page
    .getByRole('option')
    .filter({ has: page.getByText(name, { exact: true }) })
    .first()
    .click();
}

/** Chooses all that a list of boxes offers. */
export const chooseAll = (page: Page, name: string) => page.getByRole('button', { name: `All ${name}`, exact: true }).click();

/** Does what stands behind the button More of a page. */
export async function doMore(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
}

/** Takes a file out by the sheet that a button opens, and closes that. @param as the name of a format; @param what what is exported: each where the first is not meant */
export async function exportBy(
  page: Page,
  button: string | RegExp,
  as?: string,
  what?: string | RegExp,
): Promise<{ name: string; path: string }> {
  await page.getByRole('button', { name: button, exact: typeof button === 'string' }).click();
  const sheet = page.getByRole('dialog', { name: 'Export' });
  if (what !== undefined) await sheet.getByRole('group', { name: 'What' }).getByRole('radio', { name: what }).check();
  if (as !== undefined)
    await sheet
      .getByRole('group', { name: 'As' })
      .getByRole('radio', { name: new RegExp(`^${as} `) })
      .check();
  const download = page.waitForEvent('download', { timeout: 200_000 });
  await sheet.getByRole('button', { name: 'Export', exact: true }).click();
  const file = await download;
  const path = await file.path();
  await expect(sheet.getByRole('status')).toContainText(`Saved ${file.suggestedFilename()}`);
  await sheet.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(sheet).toHaveCount(0);
  return { name: file.suggestedFilename(), path };
}

/** Unfolds facts of a form that are asked for more rarely. */
export const unfold = (page: Page, group: string) => page.getByRole('button', { name: new RegExp(`^(Add|Change): ${group}$`) }).click();

/** Starts a run from a full shelf, up to and with the key at plug-in; `adjust` does more before that. */
export async function startRun(
  page: Page,
  device: string,
  charger: string,
  level = '',
  method?: string,
  adjust: () => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  await page.goto('/live/new');
  await choose(page, 'Device', device);
  await choose(page, 'Charger', charger);
  await page.getByLabel('Level at plug-in').fill(level);
  if (method) await choose(page, 'Method', method);
  await adjust();
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Plug in now' })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('article', { name: `${device} on ${charger}` })).toBeVisible();
}

export const entry = (page: Page) => page.getByRole('textbox', { name: /Reading of/ });
export const said = (page: Page) => page.getByLabel('Due line').locator('.answer');

/** Types a line and waits until the screen says it is logged. */
export async function log(page: Page, line: string): Promise<void> {
  await entry(page).fill(line);
  await entry(page).press('Enter');
  await expect(said(page)).toContainText('Logged at');
  await expect(entry(page)).toHaveValue('');
}

/** Logs one line for each check, five minutes apart, the clock moved on in between. */
export async function logEveryFive(page: Page, lines: readonly string[]): Promise<void> {
  for (const [index, line] of lines.entries()) {
    await page.clock.fastForward('05:00');
    await log(page, line.replace(/(?= #|$)/, ` @${5 * (index + 1)}:00`));
  }
}

export async function stopRun(page: Page, reason: string): Promise<void> {
  await page.getByRole('button', { name: 'stop' }).click();
  await page.getByLabel(reason).check();
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
}

/** The row of a figure on the curve screen. */
/** Compares the runs of a logbook, all of them. */
export async function compareAll(page: Page, count: number): Promise<void> {
  await page
    .getByRole('link', { name: 'Curve' })
    .or(page.getByRole('link', { name: 'Runs' }))
    .first()
    .click();
  await expect(page.getByRole('checkbox')).toHaveCount(count);
  for (const box of await page.getByRole('checkbox').all()) await box.check();
  await page.getByRole('button', { name: `Compare ${count} runs` }).click();
}

export const figure = (page: Page, label: string) =>
  page
    .getByLabel('Figures', { exact: true })
    .locator('.figure')
    .filter({ has: page.locator('.line > span:first-child', { hasText: new RegExp(`^\\s*${label}\\s*$`) }) });

/** Every screen of the demo. */
export const SCREENS = {
  plan: '/plan',
  study: '/plan/saltmarsh-chargers',
  calendar: '/plan/saltmarsh-chargers/calendar',
  run: '/live',
  start: '/live/new',
  footage: '/live/footage',
  spot: '/live/spot',
  rehearsal: '/live/rehearse',
  bench: '/bench?shelf=charger',
  expect: '/bench/expect?device=teasel-14&charger=cobble-20',
  runs: '/runs',
  curve: '/runs/saltmarsh-6',
  compare: '/compare?runs=saltmarsh-1.saltmarsh-3.saltmarsh-5.saltmarsh-7',
  bars: '/compare?show=bars&runs=saltmarsh-1.saltmarsh-3.saltmarsh-5',
  matrix: '/compare?show=matrix&runs=saltmarsh-1.saltmarsh-3.saltmarsh-5.saltmarsh-7.saltmarsh-10.saltmarsh-12',
  verdict: '/compare?show=verdict&runs=saltmarsh-1.saltmarsh-3.saltmarsh-5.saltmarsh-7.saltmarsh-8.saltmarsh-12',
  pieces: '/pieces',
  piece: '/pieces/saltmarsh-vans',
  sums: '/sums?sum=pack&run=saltmarsh-2',
  settings: '/settings',
  help: '/help',
};

/** Waits until a screen stands, with its type. */
export async function isReady(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.evaluate(() => document.fonts.ready);
}

/** Runs by their levels, five minutes apart, each stopped. */
export function finished(id: string, levels: readonly number[], plugInAt = Date.UTC(2026, 9, 5, 9)): StoredRun {
  const header = exampleHeader({ id, plugInAt, charger: { id: `c-${id}`, name: `Charger ${id}`, kind: 'adapter', watts: 20 } });
  const ink = inkOf(
    header,
    levels.map((percent, index) => ({ seconds: index * 300, percent })),
  );
  const at = plugInAt + levels.length * 300_000;
  return { header, entries: [...ink, { kind: 'stop', because: 'window over', seq: 99, id: `${id}-stop`, at, written: at }] };
}
/** What was read at one moment. */
export interface Row {
  minutes: number;
  percent?: number;
  watts?: number;
}
/** A run that was read at some moments, with what else happened, in milliseconds from plug-in. */
export function runOf(
  id: string,
  charger: Header['charger'],
  rows: readonly Row[],
  more: readonly Draft[] = [],
  changes: Partial<Header> = {},
): StoredRun {
  const header = exampleHeader({ id, charger, cable: undefined, study: undefined, plugInAt: Date.UTC(2026, 9, 5, 9), ...changes });
  const ink = inkOf(
    header,
    rows.map(({ minutes, ...read }) => ({ seconds: 60 * minutes, ...read })),
  );
  const last = 60_000 * (rows.at(-1)?.minutes ?? 0);
  const drafts: Draft[] = [...more, { kind: 'stop', because: 'window over', at: last }];
  const events = drafts.map((draft, index) => ({
    ...draft,
    at: header.plugInAt + draft.at,
    seq: 900 + index,
    id: `${id}-event-${index}`,
    written: 1,
  }));
  return { header, entries: [...ink, ...events] };
}
/** A logbook of runs alone, as a file. */
export const bookOf = (runs: StoredRun[]) => writeLogbook(logbookOf({}, runs));

/** Storage that can be filled up, from the next page on. @returns fills it, or makes room again */
export async function limitedStorage(page: Page): Promise<(isFull: boolean) => Promise<unknown>> {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...args) {
      if ((window as { isFull?: boolean }).isFull) throw new DOMException('no room', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  return (isFull) => page.evaluate((full) => ((window as { isFull?: boolean }).isFull = full), isFull);
}

/** What a browser does that finds its databases broken: all of them go, or those named. From a page that has none of them open. */
export const loseDatabases = (page: Page, names?: readonly string[]) =>
  page.evaluate(async (chosen) => {
    for (const name of chosen ?? (await indexedDB.databases()).map((each) => each.name ?? ''))
      await new Promise((resolve, reject) => {
        const request = indexedDB.deleteDatabase(name);
        request.onsuccess = resolve;
        request.onerror = reject;
      });
  }, names);

/** Puts values straight into databases, from a page that has none of them open. @param version of databases that are made */
export const plantIn = (page: Page, databases: Readonly<Record<string, readonly (readonly [string, unknown])[]>>, version = 1) =>
  page.evaluate(
    async ([all, at]) => {
      for (const [name, rows] of Object.entries(all))
        await new Promise<void>((resolve) => {
          const opening = indexedDB.open(name, at);
          opening.onupgradeneeded = () => opening.result.createObjectStore('kept');
          opening.onsuccess = () => {
            const transaction = opening.result.transaction('kept', 'readwrite');
            for (const [key, value] of rows) transaction.objectStore('kept').put(value, key);
            transaction.oncomplete = () => {
              opening.result.close();
              resolve();
            };
          };
        });
    },
    [databases, version] as const,
  );

/** How many values are stored under keys that begin so. */
export const storedOf = (page: Page, prefix: string) =>
  page.evaluate(
    (begins) =>
      new Promise<number>((resolve) => {
        const opening = indexedDB.open('inkpath');
        opening.onsuccess = () => {
          const counting = opening.result
            .transaction('kept')
            .objectStore('kept')
            .count(IDBKeyRange.bound(begins, `${begins}~`));
          counting.onsuccess = () => resolve(counting.result);
          opening.result.close();
        };
      }),
    prefix,
  );

/** All that the second copy holds, as text. */
export const secondCopy = (page: Page) =>
  page.evaluate(async () => {
    let text = '';
    for await (const folder of (await navigator.storage.getDirectory()).values())
      if (folder.kind === 'directory')
        for await (const file of folder.values())
          if (file.kind === 'file')
            text += await file
              .getFile()
              .then((each) => each.text())
              .catch(() => '');
    return text;
  });

/** The second copy goes too. A page that was just left may hold it for a moment still. */
export const loseSecondCopy = (page: Page) =>
  expect
    .poll(() =>
      page.evaluate(async () => {
        const all = await navigator.storage.getDirectory();
        let left = 0;
        for await (const name of all.keys()) await all.removeEntry(name, { recursive: true }).catch(() => left++);
        return left;
      }),
    )
    .toBe(0);

/** Gives a file to the import of the list of runs. */
export async function chooseFile(page: Page, name: string, text: string): Promise<void> {
  if (!page.url().endsWith('/runs')) await page.goto('/runs');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('File', { exact: true }).setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
}

/** Says whose a file is: the first device, and the first charger or another by its place. */
export async function pairUp(page: Page, charger = 0): Promise<void> {
  for (const [label, place] of [
    ['Device', 0],
    ['Charger', charger],
  ] as const) {
    await noneOffered(page);
    await page.getByRole('dialog').getByRole('combobox', { name: label }).press('ArrowDown');
    await page.getByRole('option').nth(place).click();
  }
}

/** Imports a file whole. */
export async function importFile(page: Page, name: string, text: string): Promise<void> {
  await chooseFile(page, name, text);
  if (name.endsWith('.csv')) await pairUp(page);
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}
