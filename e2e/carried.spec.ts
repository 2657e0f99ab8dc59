import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { logbookOf, writeLogbook, type Logbook, type StoredRun } from '../core/exchange';
import { inkOf } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { bringShelf, chooseFile, entry, finished, log, pairUp, plantIn, said, startRun, stopRun, storedOf, exportBy } from './person';

/** What a logbook carries out comes back whole, and a choice of it takes what belongs to it and nothing else. */

/** A run of a device of its own, with a picture. */
function pictured(id: string): StoredRun {
  const { header, entries } = finished(id, [10, 50, 90]);
  const picture = {
    kind: 'picture' as const,
    seq: 50,
    id: `${id}-shown`,
    at: header.plugInAt + 60_000,
    written: header.plugInAt,
    target: entries[1]?.id ?? '',
    picture: `p-${id}`,
  };
  return { header: { ...header, device: { ...header.device, id: `d-${id}`, name: `Device ${id}` } }, entries: [...entries, picture] };
}
const PICTURE = `data:image/png;base64,${readFileSync('public/icon-192.png').toString('base64')}`;
const runs = ['one', 'two'].map(pictured);
const book = writeLogbook({
  ...logbookOf(
    {
      devices: runs.map(({ header }) => header.device),
      chargers: runs.map(({ header }) => header.charger),
      remembered: [{ heading: 't\tP', headingRow: 0, columns: ['elapsed:s', 'watts:mW'] }],
      settings: { scale: '°F', levels: [37] },
    },
    runs,
  ),
  pictures: { 'p-one': PICTURE, 'p-two': PICTURE },
});

const sheet = (page: Page) => page.getByRole('dialog', { name: 'Import a file' });
async function offer(page: Page, text: string): Promise<void> {
  await page.goto('/runs');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'book.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(
    sheet(page)
      .getByRole('status')
      .filter({ hasText: /A logbook of \d+ runs?\./ }),
  ).toBeVisible();
}
async function take(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}
async function saved(page: Page, button: string): Promise<{ text: string; book: Logbook }> {
  const text = readFileSync((await exportBy(page, button)).path, 'utf8');
  return { text, book: JSON.parse(text) as Logbook };
}
async function temperatures(page: Page, text: string): Promise<void> {
  await page.goto('/settings');
  await expect(page.locator('.v-select').filter({ hasText: 'Temperatures in' })).toContainText(text);
}

test('@carried settings, remembered columns and pictures go out and come back; a choice of runs takes what belongs to it', async ({
  page,
  browser,
}) => {
  await offer(page, book);
  await expect(sheet(page)).toContainText('Nothing is here yet, so its settings are taken too.');
  await take(page);
  await temperatures(page, '°F');

  await page.goto('/runs');
  await page
    .getByRole('row', { name: /Device one/ })
    .getByRole('checkbox')
    .check();
  const part = await saved(page, 'Export');
  expect(part.book.runs.map(({ header }) => header.id)).toEqual(['one']);
  expect(Object.keys(part.book.pictures ?? {})).toEqual(['p-one']);
  expect(part.book.devices.map(({ name }) => name)).toEqual(['Device one']);
  expect(part.book).toMatchObject({ remembered: [], settings: { scale: '°F', levels: [37] } });

  const whole = await saved(page, 'Export the logbook');
  expect(Object.keys(whole.book.pictures ?? {}).sort()).toEqual(['p-one', 'p-two']);
  expect(whole.book).toMatchObject({ remembered: [{ heading: 't\tP', headingRow: 0, columns: ['elapsed:s', 'watts:mW'] }] });

  // Where something is already, settings stay, and it is said in which the file differs.
  const elsewhere = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  await offer(elsewhere, writeLogbook(logbookOf({ devices: [{ id: 'd', name: 'Sedge 5', kind: 'phone' }] })));
  await take(elsewhere);
  await offer(elsewhere, whole.text);
  await expect(sheet(elsewhere)).toContainText(
    'Settings stay as they are here; those of the file differ in: levels asked for, temperatures.',
  );
  await take(elsewhere);
  await expect(elsewhere.getByRole('table', { name: 'Finished runs' }).getByRole('row')).toHaveCount(3);
  await temperatures(elsewhere, '°C');
  await elsewhere.goto('/runs/two');
  await elsewhere.getByRole('button', { name: /^Picture of/ }).click();
  await expect(elsewhere.getByRole('img', { name: /^Picture of/ })).toBeVisible();
  await elsewhere.context().close();
});

test('@carried a second copy whose worker is dead is said, and stops nobody', async ({ page }) => {
  await page.route(/copyWorker/, (route) => route.abort());
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  for (const line of ['3', '4 18w', '5 18w']) await log(page, line);
  expect(await storedOf(page, 'ink/')).toBe(4);
  await expect(page.getByText('there is no second copy of this logbook')).toBeVisible();
  await page.goto('/help');
  await expect(page.getByText('there is no second copy just now')).toBeVisible();
});

/** A meter’s log of so many rows. */
const logOf = (rows: number) =>
  `time (s),watts,volts,percent\n${Array.from({ length: rows }, (_, row) => `${row},${(18 + (row % 7) / 10).toFixed(1)},9.0${row % 10},${Math.min(100, Math.floor(row / 3000))}`).join('\n')}\n`;
/** Columns that are stored. */
const columnsOf = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const opening = indexedDB.open('inkpath-samples');
        opening.onsuccess = () => {
          const has = opening.result.objectStoreNames.contains('kept');
          const counting = has ? opening.result.transaction('kept').objectStore('kept').count() : undefined;
          if (counting) counting.onsuccess = () => resolve(counting.result);
          else resolve(0);
          opening.result.close();
        };
      }),
  );

test('@long @carried a disk that fills up while a log is stored is called full, and nothing of the log stays', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  // The disk of the worker that stores it: it takes three values, and more once there is room.
  await page.route(/\/exchange-[^/]*\.js$/, async (route) => {
    const response = await route.fetch();
    const script = await response.text();
    const disk = `{
      let [stored, hasRoom] = [0, false];
      new BroadcastChannel('room').onmessage = () => (hasRoom = true);
      const put = IDBObjectStore.prototype.put;
      IDBObjectStore.prototype.put = function (...args) {
        if ((stored += 1) > 3 && !hasRoom) throw new DOMException('no room', 'QuotaExceededError');
        return put.apply(this, args);
      };
    }`;
    await route.fulfill({ response, body: `${script}\n${disk}` });
  });
  await chooseFile(page, 'meter.csv', logOf(300_000));
  await pairUp(page);
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(sheet(page).getByRole('alert').filter({ hasText: 'Nothing was imported.' })).toContainText(
    'This browser has no room left for it.',
  );
  expect([await storedOf(page, 'run/'), await storedOf(page, 'listed/'), await storedOf(page, 'unnamed/'), await columnsOf(page)]).toEqual([
    0, 0, 0, 0,
  ]);
  // With room again the same file goes in, as it was chosen.
  await page.evaluate(() => {
    new BroadcastChannel('room').postMessage('');
  });
  await take(page);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Sedge 5');
  expect(await storedOf(page, 'listed/')).toBe(1);
});

test('@long @carried an import says how far it is, and can be called off while it is read and while it is stored', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  // While it is read.
  await chooseFile(page, 'meter.csv', logOf(900_000));
  await expect(sheet(page).getByRole('progressbar', { name: 'Reading the file' })).toBeVisible();
  await expect(
    sheet(page)
      .getByRole('status')
      .filter({ hasText: /^Reading, \d+\.\d of \d+\.\d MB$/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Stop reading' }).click();
  await expect(sheet(page).getByRole('progressbar')).toHaveCount(0);
  // While it is stored: another import has its turn first.
  await page.evaluate(
    () =>
      new Promise<void>((held) => {
        void navigator.locks.request('inkpath/import', () => {
          held();
          return new Promise<void>((resolve) => Object.assign(window, { letGo: resolve }));
        });
      }),
  );
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'meter.csv', mimeType: 'text/csv', buffer: Buffer.from(logOf(50_000)) });
  await pairUp(page);
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(sheet(page).getByRole('progressbar', { name: 'Storing what was read' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop importing' }).click();
  await page.evaluate(() => (window as unknown as { letGo: () => void }).letGo());
  await expect(sheet(page).getByRole('progressbar')).toHaveCount(0);
  await expect(sheet(page).getByRole('alert')).toHaveCount(0);
  // The next one has its turn, and finds nothing of it.
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'meter.csv', mimeType: 'text/csv', buffer: Buffer.from(logOf(5000)) });
  await pairUp(page);
  await take(page);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Sedge 5');
  expect([await storedOf(page, 'listed/'), await storedOf(page, 'run/'), await storedOf(page, 'unnamed/'), await columnsOf(page)]).toEqual([
    1, 1, 0, 4,
  ]);
});

test('@long @carried a lane of ten thousand entries is logged to, struck, stopped and opened like any other', async ({ page }) => {
  const plugInAt = Date.now() - 10_000 * 4000;
  const header = exampleHeader({ id: 'long', plugInAt });
  const ink = inkOf(
    header,
    Array.from({ length: 10_000 }, (_, row) => ({ seconds: row * 4, percent: Math.min(99, Math.floor(row / 101)), watts: 12 })),
  );
  await page.goto('/inkpath');
  await plantIn(page, {
    inkpath: [['live/long', header], ...ink.map((each) => [`ink/long/${String(each.seq).padStart(9, '0')}/${each.id}`, each] as const)],
  });
  await page.goto('/');
  await expect(page.getByRole('article')).toContainText('99%');
  await log(page, '99 11w');
  await log(page, '100 9w');
  await expect(page.getByRole('article')).toContainText('100%');
  await entry(page).press('Escape');
  await page.keyboard.press('x');
  await page.getByLabel(/Why strike/).fill('misread');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Struck');
  await expect(page.getByRole('article')).toContainText('99%');
  expect(await storedOf(page, 'ink/long/')).toBe(10_003);
  await page.keyboard.press('Escape');
  await stopRun(page, 'Window over');
  expect(await storedOf(page, 'ink/')).toBe(0);
  const { book } = await (async () => {
    await page.goto('/runs');
    return saved(page, 'Export the logbook');
  })();
  expect(book.runs[0]?.entries).toHaveLength(10_004);
});
