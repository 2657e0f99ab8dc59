import { expect, test, type Page } from '@playwright/test';
import { bringShelf, choose, chooseFile, doMore, entry, isReady, log, said, startRun, stopRun } from './person';

/** Ways in: nothing typed, pasted or imported is lost, guessed or read as something else. */

/** Pastes into whatever has the focus, as a spreadsheet puts it on the clipboard. */
const paste = (page: Page, text: string) =>
  page.evaluate((block) => {
    const data = new DataTransfer();
    data.setData('text', block);
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

test('@long @ways thirty-five columns with unknown names, cables and full times are filed from an empty shelf, cell for cell', async ({
  page,
}) => {
  const columns = Array.from({ length: 35 }, (_, index) => index);
  const across = (of: (column: number) => string | number) => columns.map(of).join('\t');
  const grid = [
    `\t${across((column) => `Sedge ${1 + Math.floor(column / 5)} on Cobble ${10 + (column % 5)}`)}`,
    `Cable\t${across((column) => (column % 2 ? 'short one' : 'long one'))}`,
    `Screen\t${across((column) => (column % 3 ? 'off' : ''))}`,
    `Plugged in\t${across((column) => `2026-11-${10 + Math.floor(column / 5)} ${10 + (column % 5)}:05`)}`,
    `0\t${across(() => 2)}`,
    `15\t${across((column) => (column === 7 ? '' : 20 + (column % 20)))}`,
    `full\t${across((column) => `${90 + column} min`)}`,
  ].join('\n');
  await page.goto('/live/paper');
  await isReady(page);
  await page.getByLabel('Time of row 1', { exact: true }).focus();
  await paste(page, grid);
  await expect(page.getByText('Not on the shelf: Sedge 1 (device)')).toBeVisible();
  await press(page, 'Save 35 runs');
  await expect(page.getByRole('alert').first()).toHaveText('Put what is not on the shelf there first.');
  await press(page, 'Put these 14 on the shelf');
  await expect(page.getByText('Not on the shelf')).toHaveCount(0);
  await press(page, 'Save 35 runs');
  await expect(page.getByRole('heading', { name: '35 runs, 7 devices' })).toBeVisible();
  await page.goto('/runs');
  await expect(page.getByText('35 runs')).toBeVisible();
  await page.getByRole('searchbox', { name: 'Find a device' }).fill('Sedge 2');
  await page.getByRole('link').filter({ hasText: 'Sedge 2' }).filter({ hasText: 'Cobble 12' }).click();
  // Column 8: nothing was read at 15 min, so that was no check; it was full at 97 min.
  await expect(page.getByText(/ended at 1 h 37, full: from paper · from paper · read at 1 h 37 · through short one/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Ink' }).getByRole('row', { name: /^1 h 37 min 100 from paper/ })).toBeVisible();
  await expect(page.getByText(/missed/)).toHaveCount(0);
});

test('@ways more than a paper holds is refused with a count, and what stood there stays; a block goes where it is pasted', async ({
  page,
}) => {
  await page.goto('/live/paper');
  await isReady(page);
  await page.getByLabel('Device of column 1').fill('Sedge 5');
  await page.getByLabel('Time of row 1', { exact: true }).focus();
  await paste(page, Array.from({ length: 3 }, (_, row) => [row, ...Array.from({ length: 61 }, () => 5)].join('\t')).join('\n'));
  await expect(page.getByRole('alert').first()).toContainText('That is 61 setups, and 60 are the most at a time: nothing was taken.');
  await expect(page.getByLabel('Device of column 1')).toHaveValue('Sedge 5');
  await page.getByLabel('column 2 at 10', { exact: true }).focus();
  await paste(page, '40\t50\n60\t70');
  await expect(page.getByLabel('column 3 at 15', { exact: true })).toHaveValue('70');
  // Whoever leaves finds it again.
  await page.getByRole('link', { name: 'Live' }).first().click();
  await page.goBack();
  await page.getByRole('button', { name: /go on/i }).click();
  await expect(page.getByLabel('column 3 at 15', { exact: true })).toHaveValue('70');
});

test('@long @ways a log with AM and PM and dates that can be read either way asks which, once, and keeps its date', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  const rows = [
    '03/11/2026 11:58:00 PM,10,18.2',
    '03/11/2026 11:59:00 PM,11,18.1',
    '04/11/2026 12:00:00 AM,12,18.0',
    '04/11/2026 12:01:00 AM,13,17.9',
  ];
  await chooseFile(page, 'night.csv', ['Date and time,Current level,Charge power', ',%,W', ...rows].join('\n'));
  const imports = page.getByRole('button', { name: 'Import it' });
  await expect(page.getByText('4 rows over 3 min')).toBeVisible();
  await expect(imports).toBeDisabled();
  await expect(page.getByLabel(/the month first: 11 Mar 2026 to 11 Apr 2026/)).toBeVisible();
  await page.getByLabel(/the day first: 3 Nov 2026 to 4 Nov 2026/).check();
  await expect(page.getByText('4 rows over 3 min')).toBeVisible();
  await choose(page, 'Device', 'Sedge 5');
  await choose(page, 'Charger', 'Cobble 20');
  await imports.click();
  await expect(page.getByText(/3 Nov 2026, 23:58/)).toBeVisible();
});

test('@long @ways a digit typed in a rehearsal lands there, and not in the lane that is live', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '10');
  await page.getByRole('link', { name: 'Rehearse' }).click();
  await press(page, 'Plug in');
  const rehearsed = page.getByLabel(/Rehearsed reading/);
  await expect(rehearsed).toBeVisible();
  await page.getByRole('heading', { name: 'Rehearsal' }).click();
  await page.keyboard.type('42');
  await expect(rehearsed).toHaveValue('42');
  await expect(entry(page)).toHaveValue('');
  await rehearsed.fill('');
  await page.getByRole('heading', { name: 'Rehearsal' }).click();
  await page.keyboard.press('x');
  await expect(page.getByText(/Why strike/)).toHaveCount(0);
});

test('@long @ways a cable is swapped alone, named in the ink, and corrected there; a filled field of names is replaced by typing', async ({
  page,
}) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20', 'Quern 30'], ['Short one', 'Long one']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '10', undefined, () => choose(page, 'Cable', 'Short one'));
  await page.keyboard.press('v');
  await expect(page.getByRole('heading', { name: /^What happened at/ })).toBeVisible();
  await page.keyboard.press('x');
  const source = page.getByRole('combobox', { name: 'Now charging from' });
  await expect(source).toHaveValue('Cobble 20');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText('That is what it charges from already')).toBeVisible();
  // One letter is enough to begin anew: it is not added to what stands there.
  await source.click();
  await page.keyboard.type('Q');
  await expect(source).toHaveValue('Q');
  await page.getByRole('option', { name: 'Quern 30' }).click();
  await source.click();
  await page.keyboard.type('Cobb');
  await page.getByRole('option', { name: 'Cobble 20' }).click();
  await choose(page, 'Cable', 'Long one');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(said(page)).toContainText('swapped');
  await log(page, '12');
  await stopRun(page, 'Window over');
  await expect(page.getByRole('row', { name: /cable Long one/ }).first()).toBeVisible();
  await doMore(page, 'Correct its gear');
  await choose(page, 'What was wrong', 'Long one (cable)');
  await page.getByLabel('Length, m').fill('2');
  await page.getByLabel('On the shelf too, for runs to come').check();
  await page.getByRole('button', { name: 'Correct it', exact: true }).click();
  await expect(page.getByRole('row', { name: /Long one: length 2, not unknown/ }).first()).toBeVisible();
  await page.goto('/bench?shelf=cable');
  await expect(page.getByRole('row', { name: /Long one/ })).toContainText('2');
});

test('@long @ways a clip at 240 × has a margin of minutes, and its plug-in is asked', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await page.goto('/live/footage');
  await choose(page, 'Device', 'Sedge 5');
  await choose(page, 'Charger', 'Cobble 20');
  await page.getByLabel('Speed').fill('240');
  await page.getByRole('button', { name: 'Write it up' }).click();
  await expect(page.getByText('Say when it was plugged in').first()).toBeVisible();
  await page.getByLabel('Plugged in at').fill('2026-10-05T14:00');
  await page.getByLabel('Time of the clip at plug-in').fill('0:02');
  await page.getByRole('button', { name: 'Write it up' }).click();
  const field = page.getByLabel('A reading, with the time of the clip');
  for (const [line, says] of [
    ['10 @0:02', 'Written at 0 s'],
    ['40 @0:01', 'At 0:01 of the clip it was not plugged in yet'],
    ['49 @0:10', 'Written at 32 min'],
    ['52 @0:11', 'Written at 36 min'],
  ] as const) {
    await field.fill(line);
    await field.press('Enter');
    await expect(page.getByRole('status').filter({ hasText: says })).toBeVisible();
  }
  await page.getByRole('button', { name: 'The footage ends there' }).click();
  await expect(page.getByText(/between 28 min and 40 min|between 28 and 40 min/).first()).toBeVisible();
});

test('@long @ways a spreadsheet with days alone and a row of run numbers; a log whose headings are in other words', async ({ page }) => {
  await page.goto('/live/paper');
  await isReady(page);
  await page.getByLabel('Time of row 1', { exact: true }).focus();
  const grid = [
    'Phone\tSedge 5\tSedge 5',
    'Adapter\tCobble 20\tQuern 30',
    'Run\t1\t1',
    'Date\t2026-11-05\t2026-11-06',
    '0\t5\t5',
    '30 min\t40%\t52%',
  ];
  await paste(page, grid.join('\n'));
  await press(page, 'Put these 3 on the shelf');
  await press(page, 'Save 2 runs');
  await expect(page.getByRole('alert').first()).toContainText('One cell cannot be read');
  await expect(page.getByRole('alert').first()).toContainText('Columns 1 and 2: Write its day and its time of day.');
  await press(page, 'Leave out the row Run');
  await page.getByLabel('Time of day').fill('14:05');
  await press(page, 'Save 2 runs');
  await expect(page.getByRole('heading', { name: '2 runs of Sedge 5' })).toBeVisible();
  await page.goto('/runs');
  await isReady(page);
  const rows = ['Zeit;Spannung;Strom;Ladestand', 'hh:mm:ss;V;mA;%', '23:30:00;9,02;2200;5', '23:31:00;9,02;2100;7'];
  await chooseFile(page, 'nacht.csv', rows.join('\n'));
  await press(page, 'Read it like this');
  await expect(page.getByText('2 rows over 1 min. Read: Zeit (hh:mm:ss), Spannung (V), Strom (mA), Ladestand (%).')).toBeVisible();
  await expect(page.getByLabel('Plugged in at (the file does not say which day)')).toHaveValue(/T23:30/);
  await choose(page, 'Device', 'Sedge 5');
  await choose(page, 'Charger', 'Cobble 20');
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByText(/23:30 · ended at 1 min/)).toBeVisible();
});
