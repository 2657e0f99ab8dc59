import { expect, test, type Page } from '@playwright/test';
import { isReady } from './person';

/** Ways in: nothing typed, pasted or imported is lost, guessed or read as something else. */

/** Pastes into whatever has the focus, as a spreadsheet puts it on the clipboard. */
const paste = (page: Page, text: string) =>
  page.evaluate((block) => {
    const data = new DataTransfer();
    data.setData('text', block);
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

test('@ways thirty-five columns with unknown names, cables and full times are filed from an empty shelf, cell for cell', async ({
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
  await page.goto('/run/paper');
  await isReady(page);
  await page.getByLabel('Time of row 1', { exact: true }).focus();
  await paste(page, grid);
  await expect(page.getByText('Not on the shelf: Sedge 1 (device)')).toBeVisible();
  await press(page, 'File 35 runs');
  await expect(page.getByRole('alert').first()).toHaveText('Put what is not on the shelf there first.');
  await press(page, 'Put these 14 on the shelf');
  await expect(page.getByText('Not on the shelf')).toHaveCount(0);
  await press(page, 'File 35 runs');
  await expect(page.getByRole('heading', { name: '35 runs, 7 devices' })).toBeVisible();
  await page.goto('/curve');
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
  await page.goto('/run/paper');
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
