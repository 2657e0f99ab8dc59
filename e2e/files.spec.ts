import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { addCharger, addDevice, figure, logEveryFive, pairUp, startRun, stopRun, exportBy } from './person';

const METER =
  'Case,Power (W),Time (s),Battery %,Current (A),Voltage (V)\n' +
  [0, 60, 120, 180, 240].map((second) => `off,18.${second % 9},${second},${10 + second / 60},2.02,9.0`).join('\n');

async function choose(page: Page, name: string, contents: string): Promise<void> {
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(contents) });
}

async function takeOut(page: Page, button: string, as?: string): Promise<{ name: string; text: string }> {
  const { name, path } = await exportBy(page, button, as);
  return { name, text: readFileSync(path, 'utf8') };
}

const bringIn = (page: Page) => page.getByRole('button', { name: 'Import it' });
const rows = (page: Page) => page.getByRole('table', { name: 'Finished runs' }).getByRole('row');

test('@slice a run goes out as CSV, the logbook as JSON, and both come back', async ({ page, browser }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await addDevice(page, 'Sedge <b>5</b>', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge <b>5</b>', 'Cobble 20', '2');
  await logEveryFive(page, ['12 18.4w 29c', '22 18.3w # =case', '31 18.1w']);
  await stopRun(page, 'Window over');
  await expect(page.getByRole('heading', { name: 'Sedge <b>5</b> on Cobble 20' })).toBeVisible();
  await expect(figure(page, 'Gained in 15 min')).toContainText('29 points');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  const csv = await takeOut(page, 'Export', 'CSV');
  expect(csv.name).toBe('sedge-b-5-b-on-cobble-20-2026-10-05-1400.csv');
  expect(csv.text.split('\r\n')[0]).toBe(
    'elapsed (s),clock time,kind,entry,percent,volts,amps,watts,watt-hours,milliamp-hours,temperature (°C),note',
  );
  await page.getByRole('link', { name: 'Runs' }).click();
  const book = await takeOut(page, 'Export the logbook');
  expect(book.name).toBe('inkpath-logbook-2026-10-05.json');

  const elsewhere = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  await elsewhere.goto('/runs');
  await choose(elsewhere, book.name, book.text);
  await expect(elsewhere.getByText('A logbook of 1 run. It adds 1 run')).toBeVisible();
  await bringIn(elsewhere).click();
  await expect(rows(elsewhere)).toHaveCount(2);
  // Bringing the same logbook in again changes nothing.
  await choose(elsewhere, book.name, book.text);
  await expect(elsewhere.getByText('A logbook of 1 run. It adds nothing.')).toBeVisible();
  await bringIn(elsewhere).click();
  await expect(rows(elsewhere)).toHaveCount(2);

  await choose(elsewhere, csv.name, csv.text);
  await expect(elsewhere.getByText('5 rows over 15 min')).toBeVisible();
  await pairUp(elsewhere);
  await bringIn(elsewhere).click();
  await expect(figure(elsewhere, 'Gained in 15 min')).toContainText('29 points');
  await expect(elsewhere.getByText('=case')).toBeVisible();
  await expect(elsewhere.getByText('5 Oct 2026, 14:00')).toBeVisible();
  await elsewhere.context().close();
});

test('@slice a meter’s CSV comes in as a run, whatever the order of its columns', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await page.getByRole('link', { name: 'Runs' }).click();
  await choose(page, 'van-3.csv', METER);
  await expect(page.getByText('Not read: Case.')).toBeVisible();
  await page.getByLabel('Plugged in at').fill('2026-10-04T09:30:00');
  // Nothing is chosen beforehand.
  await bringIn(page).click();
  await expect(page.getByText('Choose the device and the charger of this run first.')).toBeVisible();
  await pairUp(page);
  await bringIn(page).click();
  await expect(page.getByRole('heading', { name: 'Sedge 5 on Cobble 20' })).toBeVisible();
  await expect(page.getByText('from van-3.csv')).toBeVisible();
  await expect(figure(page, 'Peak, highest 60-second mean')).toContainText(/18\.\d W/);
});

test('@slice a file that cannot be read is refused by its place, and nothing stored changes', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await page.getByRole('link', { name: 'Runs' }).click();
  await page.getByRole('button', { name: 'Import a file' }).click();
  const files: [string, string, RegExp][] = [
    ['van.csv', 'hello\nworld', /Row 1 of van.csv heads no column of times/],
    ['photo.csv', '\u0000\u0001PNG', /photo.csv is not a text file/],
    ['empty.csv', '', /empty.csv is empty/],
    ['ragged.csv', 'time,watts\n0,5\n1,5,9', /Row 3 of ragged.csv has 3 columns/],
    ['back.csv', 'time,watts\n60,5\n0,5', /Row 3 of back.csv goes back in time/],
    ['words.csv', 'time,watts\n0,5\n1,"12,4,1"', /“12,4,1” is not a number in column “watts”. Choose decimal comma, or skip the row/],
    ['cut.json', '{"format":"inkpath-logbook"', /cut.json is not JSON, or was cut off/],
    ['newer.json', '{"format":"inkpath-logbook","schema":99}', /newer Inkpath Log \(schema 99/],
  ];
  for (const [name, contents, sentence] of files) {
    await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(contents) });
    await expect(page.getByRole('alert').filter({ hasText: sentence })).toBeVisible();
    await expect(bringIn(page)).toBeDisabled();
  }
  const large = join(mkdtempSync(join(tmpdir(), 'inkpath-')), 'large.csv');
  writeFileSync(large, Buffer.alloc(52 * 1024 * 1024, 'x'));
  await page.locator('input[type=file]').setInputFiles(large);
  await expect(page.getByRole('alert').filter({ hasText: 'Row 1 of large.csv is longer than any row of a log is' })).toBeVisible();
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'words.csv', mimeType: 'text/plain', buffer: Buffer.from('time,watts\n0,5\n1,lots\n2,6') });
  await page.getByLabel('Skip rows that cannot be read').check();
  await expect(page.getByText('1 could not be read and are left out')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
});
