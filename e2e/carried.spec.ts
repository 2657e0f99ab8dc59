import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { logbookOf, writeLogbook, type Logbook, type StoredRun } from '../core/exchange';
import { bringShelf, finished, log, startRun, storedOf } from './person';

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
  await page.goto('/curve');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'book.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(sheet(page).getByRole('status').filter({ hasText: 'A logbook. Runs:' })).toBeVisible();
}
async function take(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}
async function saved(page: Page, button: string): Promise<{ text: string; book: Logbook }> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: button, exact: true }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
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

  await page.goto('/curve');
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
  await elsewhere.goto('/curve/two');
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
