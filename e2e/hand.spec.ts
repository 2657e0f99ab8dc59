import { expect, test, type Page } from '@playwright/test';
import { DEMO, isReady, log, startRun, bringShelf, stopRun } from './person';

/** Out by hand: what is copied is what stands on the screen, figure by figure. */

test.beforeEach(async ({ context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
});

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** What lies on the clipboard, as a spreadsheet and as an editor take it. */
async function clipboard(page: Page): Promise<{ text: string; html: string }> {
  return page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const read = async (type: string) => (item?.types.includes(type) ? (await item.getType(type)).text() : '');
    return { text: await read('text/plain'), html: await read('text/html') };
  });
}
const cellsIn = (text: string) => text.split('\n').map((line) => line.split('\t'));

test('@hand a comparison is copied with ranks, bounds and units in columns of their own, and says what the screen says', async ({
  page,
}) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  const table = page.getByRole('region', { name: 'Figures side by side' });
  await expect(table.getByRole('row').nth(1)).toBeVisible();
  await press(page, 'Copy the figures');
  await expect(page.getByRole('status').filter({ hasText: 'Copied' })).toBeVisible();
  const { text, html } = await clipboard(page);
  const [heads = [], ...rows] = cellsIn(text);
  expect(rows.length).toBe((await table.getByRole('row').count()) - 1);
  // Each cell of the screen is told in its column, and its rank stands alone.
  const figures = heads.flatMap((head) => (head.endsWith(': unit') ? [head.slice(0, -': unit'.length)] : []));
  for (const [at, row] of rows.entries()) {
    const shown = table.getByRole('row').nth(at + 1);
    await expect(shown.getByRole('rowheader')).toContainText(row[0] ?? '?');
    for (const [column, figure] of figures.entries()) {
      const cell = await shown
        .getByRole('cell')
        .nth(column + 1)
        .innerText();
      const of = (what: string) => row[heads.indexOf(`${figure}: ${what}`)] ?? '';
      const told = of('as told').split(', ')[0] ?? '';
      if (told !== '') expect(cell.replaceAll('\n', ' ')).toContain(told);
      if (of('rank')) expect(cell).toMatch(new RegExp(`^rank ${of('rank')}: `));
      const [value, lower, upper] = [row[heads.indexOf(figure)] ?? '', of('lower'), of('upper')];
      if (value !== '')
        expect([lower, value, upper].map(Number)).toEqual([lower, value, upper].map(Number).sort((one, other) => one - other));
    }
  }
  // The same as HTML, parsed by the browser.
  const parsed = await page.evaluate((markup) => {
    const found = new DOMParser().parseFromString(markup, 'text/html');
    return [...found.querySelectorAll('tr')].map((row) => [...row.children].map((cell) => cell.textContent));
  }, html);
  expect(parsed).toEqual(cellsIn(text));
  // What a hand selects and copies reads as a rank too, never as 321 %.
  const selected = await table
    .getByRole('row')
    .nth(1)
    .evaluate((row) => {
      const selection = getSelection();
      selection?.selectAllChildren(row);
      return selection?.toString() ?? '';
    });
  expect(selected).toMatch(/rank \d=?: \d/);
});

test('@hand the answer, a sentence, the whole verdict, a matrix and bars are copied as they stand, by one key too', async ({ page }) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  await press(page, 'Copy the answer in short');
  const answer = page.getByRole('region', { name: 'In short' });
  for (const line of (await clipboard(page)).text.split('\n')) await expect(answer).toContainText(line);
  await press(page, 'Bars');
  await press(page, 'Copy the bars as a table');
  expect(cellsIn((await clipboard(page)).text)[0]?.slice(0, 2)).toEqual(['Setup', expect.stringMatching(/: rank$/)]);
  await press(page, 'Matrix');
  await press(page, 'Copy the matrix');
  expect(cellsIn((await clipboard(page)).text)[0]?.slice(0, 2)).toEqual(['Device', 'Charger']);
  await press(page, 'Verdict');
  await press(page, 'Copy the whole verdict');
  const { text } = await clipboard(page);
  for (const title of await page.getByRole('region', { name: 'Verdict in full' }).getByRole('heading', { level: 2 }).allInnerTexts())
    expect(text).toContain(`\n${title}: `);
  // By one key: what is pointed at, else the first that is seen.
  await page.getByRole('listitem').filter({ hasText: 'Overnight' }).hover();
  await page.keyboard.press('Shift+C');
  await expect(page.getByRole('status').filter({ hasText: 'Copied' }).first()).toBeVisible();
  expect((await clipboard(page)).text).toMatch(/^Overnight: /);
});

test('@hand tables of a run, its figures, the list, a shelf and a plan are copied without their buttons', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20', 'Quern 30']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '10');
  await log(page, '20 18.2w');
  await stopRun(page, 'Window over');
  await press(page, 'Copy the ink');
  const ink = cellsIn((await clipboard(page)).text);
  expect(ink[0]?.[0]).toContain('Seen at');
  expect(ink.flat().join(' ')).not.toMatch(/Strike|Correct/);
  await press(page, 'Copy all figures');
  expect(cellsIn((await clipboard(page)).text)[0]).toEqual(['Group', 'Figure', 'Value', 'What is to be known of it']);
  await page.goto('/curve');
  await press(page, 'Copy the list');
  expect(cellsIn((await clipboard(page)).text)[1]?.slice(0, 2)).toEqual(['Sedge 5', 'Cobble 20']);
  await page.goto('/bench?shelf=charger');
  await press(page, 'Copy the shelf');
  const shelf = cellsIn((await clipboard(page)).text);
  expect(shelf[0]?.[0]).toBe('Name');
  expect(shelf[0]).not.toContain('Actions');
  expect(shelf.slice(1).map(([name]) => name)).toEqual(['Cobble 20; adapter', 'Quern 30; adapter']);
});
