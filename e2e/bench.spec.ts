import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { addCharger, addDevice, choose, startRun, stopRun, unfold, exportBy } from './person';

const gear = (page: Page, name: string) => page.getByRole('row').filter({ has: page.getByRole('button', { name, exact: false }) });
const onShelf = (page: Page, shelf: string) => page.getByRole('link', { name: new RegExp(`^${shelf}`) }).click();
const names = (page: Page) => page.getByRole('row').locator('.gear strong');

test('@bench from an empty shelf and a typed label to what each pairing will do, and a pencil curve', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Teasel 14');
  await choose(page, 'Kind', 'laptop');
  await unfold(page, 'Its energy');
  await page.getByLabel('Battery energy, Wh').fill('54');
  await page.getByLabel('Input limit, W').fill('65');
  await unfold(page, 'What it takes');
  await choose(page, 'Power Delivery up to, V', '20');
  await unfold(page, 'Awake');
  await page.getByLabel('Charges from, W').fill('14');
  await page.getByLabel('Uses awake, W').fill('21');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(gear(page, 'Teasel 14')).toBeVisible();
  await addDevice(page, 'Sedge 5', '4500', '3.85', '25');

  const chargers: [string, string, string][] = [
    ['Cobble 12', '12', '5V⎓2.4A'],
    ['Cobble 20', '20', '5V⎓3A, 9V=2,22A'],
    ['Quern 30', '30', '5V/3A 9V/3A 15V/2A'],
    ['Quern 65', '65', 'OUTPUT 5V⎓3A 9V⎓3A 15V⎓3A 20V⎓3.25A 型号'],
  ];
  await onShelf(page, 'Chargers');
  for (const [name, watts, label] of chargers) {
    await page.getByRole('button', { name: 'Add a charger' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByLabel('Watts').fill(watts);
    await page.getByLabel('Label text').fill(label);
    if (name === 'Quern 65') {
      await expect(page.getByText('Not read: 型号')).toBeVisible();
      await expect(page.getByText('Over 3 A needs a cable marked for 5 A.')).toBeVisible();
      await expect(page.getByText(/read as.*5V⎓3A.*20V⎓3.25A/)).toBeVisible();
    }
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(names(page).filter({ hasText: name })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Add a charger' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Twin 40');
  await page.getByLabel('Watts').fill('40');
  await page.getByRole('button', { name: 'Add a port' }).click();
  for (const [index, name] of ['C1', 'C2'].entries()) {
    await page.getByLabel('Port name').nth(index).fill(name);
    await page.getByLabel('Label text').nth(index).fill('5V⎓3A 9V⎓3A 15V⎓2.6A');
  }
  await unfold(page, 'Several ports, or a battery of its own');
  await page.getByLabel('When ports share').fill('C1+C3: 15+25');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('there is no port called C3')).toBeVisible();
  await page.getByLabel('When ports share').fill('C1+C2: 15+25');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(names(page).filter({ hasText: 'Twin 40' })).toBeVisible();
  await onShelf(page, 'Cables');
  await page.getByRole('button', { name: 'Add a cable' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Marked cable');
  await choose(page, 'Marked for', '5 A');
  await page.getByRole('button', { name: 'Save', exact: true }).click();

  await page.getByRole('link', { name: 'What to expect' }).click();
  const cell = (name: RegExp) => page.getByRole('button', { name });
  await expect(cell(/^Sedge 5 on Quern 30: 25 W, device/)).toBeVisible();
  await expect(cell(/^Sedge 5 on Cobble 20: 20 W, charger/)).toBeVisible();
  await expect(cell(/^Teasel 14 on Cobble 12: 0 W, will not charge/)).toBeVisible();
  await expect(cell(/^Teasel 14 on Cobble 20: 20 W, only asleep/)).toBeVisible();
  await expect(cell(/^Teasel 14 on Quern 65: 60 W, cable/)).toBeVisible();
  await expect(page.getByText('Above 25 W nothing changes for Sedge 5: Quern 30, Quern 65 and Twin 40 will tie.')).toBeVisible();
  await expect(page.getByText('Cobble 20 will not charge Teasel 14 awake.')).toBeVisible();
  await choose(page, 'Through the cable', 'Marked cable (5 A)');
  await expect(cell(/^Teasel 14 on Quern 65: 65 W, device/)).toBeVisible();

  await cell(/^Sedge 5 on Quern 30/).click();
  const panel = page.getByLabel('Sedge 5 on Quern 30, in pencil');
  await expect(panel).toContainText('9 V × 2.78 A = 25 W by Power Delivery. Sedge 5 is the limit');
  await expect(panel.getByRole('img', { name: /Sedge 5 on Quern 30, expected over/ })).toBeVisible();
  await expect(panel.getByRole('definition').last()).toContainText(/about [12] h/);
  const early = await panel.getByRole('definition').first().textContent();
  await panel.getByLabel('From a level of, %').fill('40');
  await expect(panel.getByRole('definition').first()).not.toHaveText(early ?? '');
  await cell(/^Sedge 5 on Twin 40/).click();
  const twin = page.getByLabel('Sedge 5 on Twin 40, in pencil');
  await expect(twin).toContainText('= 25 W');
  await choose(page, 'Also in use', 'C2');
  await page.keyboard.press('Escape');
  await expect(twin).toContainText('= 15 W by Power Delivery. Twin 40 is the limit');

  await cell(/^Teasel 14 on Cobble 20/).click();
  const awake = page.getByLabel('Teasel 14 on Cobble 20, in pencil');
  await awake.getByLabel('awake').check();
  await expect(awake.getByRole('definition').last()).toHaveText('not within a day');
});

test('@bench gear goes out as CSV and comes back; a bad row is named and the rest is kept', async ({ page, browser }) => {
  await addDevice(page, 'Sedge <b>5</b>', '4500', '3.85', '25');
  await addCharger(page, 'Cobble 20', '20', '19');
  const text = readFileSync((await exportBy(page, 'Export gear', 'CSV')).path, 'utf8');
  expect(text.split('\r\n')[0]).toContain('shelf,name,kind,battery (mah)');

  const elsewhere = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
  const bring = async (contents: string) => {
    await elsewhere.getByRole('button', { name: 'Import gear' }).click();
    await elsewhere.locator('input[type=file]').setInputFiles({ name: 'van.csv', mimeType: 'text/csv', buffer: Buffer.from(contents) });
  };
  await elsewhere.goto('/bench');
  await bring('hello\nworld');
  await expect(elsewhere.getByRole('alert')).toContainText('Row 1 of van.csv heads no column “shelf”');
  await expect(elsewhere.getByRole('button', { name: 'Import it' })).toBeDisabled();
  await elsewhere.getByRole('button', { name: 'Cancel' }).click();
  await expect(elsewhere.getByText('Nothing to charge yet')).toBeVisible();

  const heading = text.split('\r\n')[0] ?? '';
  const bad = [
    'charger',
    'Pebble',
    ...heading
      .split(',')
      .slice(2)
      .map(() => ''),
  ].join(',');
  await bring(`${text}\r\n${bad}`);
  await expect(elsewhere.getByText('Rows that stand: 2, new here: 2. Left out: 1.')).toBeVisible();
  await expect(elsewhere.getByText(/^Row 4 of van.csv: column “(kind|watts \(w\))”/)).toBeVisible();
  await elsewhere.getByRole('button', { name: 'Import it' }).click();
  await expect(gear(elsewhere, 'Sedge <b>5</b>')).toContainText('17.3 Wh');
  await onShelf(elsewhere, 'Chargers');
  await expect(gear(elsewhere, 'Cobble 20')).toContainText('5V⎓3A 9V⎓2.22A');
  await bring(text.replace(',19,', ',21,'));
  await expect(elsewhere.getByText('new here: 0')).toBeVisible();
  await elsewhere.getByRole('button', { name: 'Import it' }).click();
  await onShelf(elsewhere, 'Chargers');
  await expect(gear(elsewhere, 'Cobble 20')).toContainText('21');
  await elsewhere.context().close();
});

test('@bench @slice the shelf says what is wrong at its field, and is searched, sorted, copied and retired', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByLabel('Battery, mAh').fill('4500');
  await page.getByLabel('Input limit, W').fill('lots');
  await unfold(page, 'What it takes');
  await page.getByLabel('Barrel, V').fill('0');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Give it a name')).toBeVisible();
  await expect(page.getByText('Give the nominal volts too')).toBeVisible();
  await expect(page.getByText('Write a number of W')).toBeVisible();
  await expect(page.getByText('Must be more than 0 V')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Teasel 14');
  await page.getByLabel('Barrel, V').fill('');
  await page.getByLabel('Nominal volts, V').fill('11.4');
  await expect(page.getByText('That is 51.3 Wh.')).toBeVisible();
  await unfold(page, 'Its energy');
  await page.getByLabel('Battery energy, Wh').fill('60');
  await expect(page.getByText('4500 mAh × 11.4 V is 51.3 Wh, not 60 Wh')).toBeVisible();
  await page.getByLabel('Battery energy, Wh').fill('51.3');
  await page.getByLabel('Input limit, W').fill('65');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(gear(page, 'Teasel 14')).toContainText('51.3 Wh');

  await addCharger(page, 'Drumlin', '60', '120');
  await page.getByRole('button', { name: /^Drumlin/ }).click();
  await unfold(page, 'What decides a purchase');
  await page.getByLabel('Price').fill('-3');
  await page.getByLabel('Label text').fill('9V⎓0A');
  await expect(page.getByText('“9V⎓0A” gives no power')).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('A price cannot be below zero.')).toBeVisible();
  await page.getByLabel('Price').fill('99');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(gear(page, 'Drumlin')).toContainText('99');

  await page.getByRole('button', { name: 'Duplicate Drumlin' }).click();
  await page.getByLabel('Watts').fill('100');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(names(page)).toHaveText(['Drumlin', 'Drumlin, another']);
  await page.getByRole('columnheader', { name: 'rated' }).click();
  await page.getByRole('columnheader', { name: 'rated' }).click();
  await expect(names(page)).toHaveText(['Drumlin, another', 'Drumlin']);
  await page.getByRole('textbox', { name: 'Search chargers' }).fill('100 W');
  await expect(names(page)).toHaveText(['Drumlin, another']);
  await page.getByRole('textbox', { name: 'Search chargers' }).fill('');

  await page.getByRole('button', { name: 'Retire Drumlin, another' }).click();
  await expect(names(page)).toHaveText(['Drumlin']);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(names(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Retire Drumlin, another' }).click();
  await expect(names(page)).toHaveText(['Drumlin']);
  await page.reload();
  await expect(names(page)).toHaveText(['Drumlin']);
  await page.getByLabel('Show what is retired').check();
  await page.getByRole('button', { name: 'Remove Drumlin, another' }).click();
  await expect(names(page)).toHaveText(['Drumlin']);
});

test('@long @bench what a run used is retired and never thrown away, and the run keeps its own copy', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85', '25');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '40');
  await stopRun(page, 'Window over');
  await page.goto('/bench?shelf=charger');
  await page.getByRole('button', { name: /^Cobble 20/ }).click();
  await page.getByLabel('Name', { exact: true }).fill('Cobble 21');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('button', { name: 'Retire Cobble 21' }).click();
  await expect(page.getByText('kept for its runs, and no longer offered')).toBeVisible();
  await page.getByLabel('Show what is retired').check();
  await expect(page.getByRole('button', { name: 'Put Cobble 21 back' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Remove / })).toHaveCount(0);
  await page.goto('/runs');
  await expect(page.getByRole('row', { name: /Cobble 20/ })).toBeVisible();
  await page.goto('/live/new');
  await page.getByRole('combobox', { name: 'Charger' }).press('ArrowDown');
  await expect(page.getByText('Type its name')).toBeVisible();
});

test('@long @bench a start says what to expect through the chosen cable and port, and the run keeps both', async ({ page }) => {
  await page.goto('/bench');
  const gear = [
    'shelf,name,kind,battery energy (wh),input limit (w),power delivery up to (v),watts (w),ports,charger end,device end,marked for',
    'device,Teasel 14,laptop,54,100,20,,,,,',
    'charger,Quern 100,adapter,,,,100,C1 (USB-C) 5V⎓3A 9V⎓3A 15V⎓3A 20V⎓5A | A1 (USB-A) 5V⎓2.4A,,,',
    'cable,Marked cable,,,,,,,USB-C,USB-C,5 A',
  ].join('\n');
  await page.getByRole('button', { name: 'Import gear' }).click();
  await page.locator('input[type=file]').setInputFiles({ name: 'van.csv', mimeType: 'text/csv', buffer: Buffer.from(gear) });
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto('/live/new');
  await expect(page.getByText('To expect: 20 V × 3.00 A = 60 W by Power Delivery. The cable is the limit')).toBeVisible();
  await choose(page, 'Cable', 'Marked cable');
  await expect(page.getByText('To expect: 20 V × 5.00 A = 100 W')).toBeVisible();
  await choose(page, 'Port', 'A1');
  await expect(page.getByText('Quern 100 does not go together with Teasel 14')).toBeVisible();
  await choose(page, 'Port', 'C1');
  await page.getByLabel('Level at plug-in').fill('20');
  await page.getByRole('button', { name: 'Ready' }).click();
  await page.getByRole('button', { name: 'Plug in now' }).press('Space');
  await stopRun(page, 'Window over');
  await page.getByRole('link', { name: 'Runs' }).click();
  const book = JSON.parse(readFileSync((await exportBy(page, 'Export the logbook')).path, 'utf8')) as {
    runs: { header: { port?: number; cable?: { name: string } } }[];
  };
  expect(book.runs[0]?.header).toMatchObject({ port: 0, cable: { name: 'Marked cable' } });
});
