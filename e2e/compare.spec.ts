import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { exampleHeader } from '../core/ink/example';
import { bookOf, choose, DEMO, doMore, finished, importFile, isReady, exportBy } from './person';

const table = (page: Page) => page.getByRole('region', { name: 'Figures side by side' });
/** How many runs something is kept of that was worked out of them. */
const KEPT = `new Promise((resolve) => {
  const opening = indexedDB.open('inkpath-worked');
  opening.onsuccess = () => {
    if (!opening.result.objectStoreNames.contains('kept')) resolve(0);
    else {
      const counting = opening.result.transaction('kept').objectStore('kept').count();
      counting.onsuccess = () => resolve(counting.result);
    }
    opening.result.close();
  };
})`;
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

test('@compare the study of the demo is seen as curves, bars, table, matrix and heat, and each figure tells its working', async ({
  page,
}) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  await expect(page.getByRole('heading', { name: '7 runs of Sedge 5' })).toBeVisible();

  // Curves: over each other, moved to a level, by level, as a lead, each alone.
  await expect(page.getByRole('img', { name: /over time/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'Time', exact: true }).selectOption('all at 50 % together');
  await press(page, 'By level');
  await expect(page.getByRole('img', { name: /by level/ })).toBeVisible();
  await page.getByRole('group', { name: 'What is drawn by level' }).getByRole('button', { name: 'Temperature' }).click();
  const warm = page.getByRole('row', { name: /^Cobble 20 at \d+ % 3\d\.\d °C$/ });
  await expect(warm).not.toHaveCount(0);
  await press(page, 'Heat as its rise');
  await expect(warm).toHaveCount(0);
  await press(page, 'Heat as its rise');
  await press(page, 'Ahead of the baseline');
  await expect(page.getByRole('row', { name: /^Quern 65 .*: \+\d+ ± \d+ %/ })).toHaveCount(1);
  await press(page, 'Each alone');
  await expect(page.getByRole('img', { name: /, alone$/ })).toHaveCount(7);
  await press(page, 'Over each other');
  await press(page, 'Temperature');
  await press(page, 'Heat as its rise');

  // Bars, of times and of heat.
  await press(page, 'Bars');
  await expect(page.getByRole('region', { name: 'Time to 80 %' }).getByRole('listitem').first()).toContainText(/Quern (65|30).*1=/);
  await press(page, 'Heat');
  await expect(page.getByRole('region', { name: /hottest/ })).toContainText('Cobble 12');

  // Matrix: a cell leads to its runs.
  await press(page, 'Matrix');
  await page.getByRole('combobox', { name: 'Figure' }).press('ArrowDown');
  await page.getByRole('option', { name: 'Time to 100 %', exact: true }).click();
  await expect(page.getByRole('region', { name: /devices by chargers/ }).getByRole('link', { name: /2 h 4[56]/ })).toBeVisible();

  // Table: sorted by a column, its columns chosen, differences, working.
  const first = table(page).getByRole('rowheader').first();
  await table(page).getByRole('button', { name: 'Time to 80 %' }).click();
  await expect(first).toContainText('Quern 65');
  await table(page).getByRole('button', { name: 'Time to 80 %' }).click();
  await expect(first).toContainText('Puddle');
  await page.getByRole('button', { name: /^Columns, / }).click();
  await page.getByRole('checkbox', { name: 'Average to 80 %' }).check();
  await expect(table(page).getByRole('columnheader', { name: 'Average to 80 %' })).toBeVisible();
  const quern = table(page).getByRole('row', { name: /^Quern 30/ });
  await quern.getByRole('button', { name: /57 min/ }).click();
  const working = page.getByRole('region', { name: 'Working of Time to 80 %: Quern 30' });
  await expect(working).toContainText('Mean of 3 runs');
  await expect(working).toContainText(/Cobble 12 is surely worse: by \d+ min \(\d+ to \d+ min\)/);
  await expect(working).toContainText(/Quern 65: a tie/);
  await quern.getByRole('button', { name: /min saved/ }).click();
  const against = page.getByRole('region', { name: 'Working of Time to 100 %: Quern 30 against Cobble 12' });
  await expect(against).toContainText('Time is t ÷ t₀ − 1 and rate t₀ ÷ t − 1');
  await press(page, 'Differences from the baseline');
  await expect(quern).toContainText(/−\d+ minbetween \d+ and \d+ min/);
  // By what was gained instead: the sentence and the column follow.
  await choose(page, 'By', 'gained in 30 min');
  await expect(page.getByRole('region', { name: 'In short' })).toContainText('Most in 30 min: Quern 30 or Quern 65;');
  await expect(quern).toContainText(/\+\d+ points?± \d points?gained in 30 minrate \+\d+ ± \d+ % in 30 min/);
  await press(page, 'in hours of use');
  await expect(table(page).getByRole('row', { name: /^Cobble 20/ })).toContainText(/\+[\d.]+ h± [\d.]+ h/);
});

test('@long @compare runs of a meter are worked out again once their ink has changed, and not before', async ({ page }) => {
  const streamed = (id: string, charger: string, perPercent: number) => {
    const run = finished(id, []);
    const seconds = Float64Array.from({ length: 3600 }, (_, row) => row);
    const samples = {
      percent: { seconds, values: seconds.map((at) => Math.min(100, 10 + Math.floor(at / perPercent))) },
      watts: { seconds, values: seconds.map((at) => (at < 90 * perPercent ? 15 : 0.2)) },
    };
    const header = exampleHeader({
      ...run.header,
      cadence: undefined,
      source: `${id}.csv`,
      charger: { ...run.header.charger, id: `c-${id}`, name: charger },
    });
    const stop = run.entries.filter(({ kind }) => kind === 'stop').map((entry) => ({ ...entry, at: header.plugInAt + 3_600_000 }));
    return { header, entries: stop, samples };
  };
  await page.goto('/');
  await importFile(page, 'book.json', bookOf([streamed('one', 'Cobble 20', 30), streamed('two', 'Quern 65', 20)]));
  const compared = '/compare?runs=one.two&cols=level-80';
  const row = table(page).getByRole('row', { name: /^Cobble 20/ });
  await page.goto(compared);
  await expect(row).toContainText('35 min');
  // It is stored once nobody waits for it; what is shown then was taken from there.
  await expect.poll(() => page.evaluate(KEPT)).toBe(2);
  await page.reload();
  await expect(row).toContainText('35 min');

  await page.goto('/runs/one');
  await isReady(page);
  await doMore(page, 'Plug-in, trim or split');
  await page.getByRole('dialog').getByLabel('trim its ends').check();
  await page.getByRole('dialog').getByLabel('to, min:s').fill('30:00');
  await page.getByRole('dialog').getByRole('button', { name: 'Trim it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto(compared);
  await expect(row).toContainText('not reached');
  await expect(row).not.toContainText('35 min');

  await page.goto('/runs/one');
  await page.getByRole('button', { name: /^Strike the trimming/ }).click();
  await page.getByLabel('Why?').fill('all of it counts');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(page.locator('.sheet > header')).toContainText('ended at 1 h');
  await page.goto(compared);
  await expect(row).toContainText('35 min');
});

test('@long @compare hours of use follow the share of real use that is changed in between', async ({ page }) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  await page.waitForURL(/runs=/);
  await page.goto(`${page.url()}&unit=h&cols=gain-1800`);
  const row = table(page).getByRole('row', { name: /^Quern 30/ });
  await expect(row).toContainText(/ h/);
  const before = await row.innerText();
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByLabel(/real use/i).fill('80');
  await page.getByLabel(/real use/i).blur();
  await page.goBack();
  await expect(row).toContainText(/ h/);
  await expect.poll(() => row.innerText()).not.toBe(before);
});

test('@long @compare a planted unfair condition is listed, and a comparison is saved, found again, exported, and removed', async ({
  page,
}) => {
  const runOf = (id: string, charger: string, levels: number[], screen: string) => {
    const run = finished(id, levels);
    const header = exampleHeader({
      ...run.header,
      charger: { ...run.header.charger, id: `c-${id}`, name: charger },
      conditions: [{ name: 'screen', value: screen }],
    });
    return { ...run, header };
  };
  await page.goto('/');
  await importFile(
    page,
    'book.json',
    bookOf([runOf('one', 'Cobble 20', [2, 20, 40, 60, 80, 100], 'off'), runOf('two', 'Quern 65', [2, 30, 60, 85, 97, 100], 'on at full')]),
  );
  await page.goto('/compare');
  await press(page, 'Sedge 5');
  const aside = page.getByRole('complementary', { name: 'Verdict' });
  await expect(aside).toContainText('One thing differs');
  await expect(aside).toContainText(/Screen: .*on at full for Quern 65/);
  await expect(aside).toContainText('what the screen uses never reaches the battery');

  await press(page, 'Bars');
  await press(page, 'Gains');
  await press(page, 'Save');
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Give it a name.')).toBeVisible();
  await page.getByLabel('Name').fill('Screen on against off');
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto('/runs');
  const book = readFileSync((await exportBy(page, 'Export the logbook')).path, 'utf8');
  const elsewhere = await (
    await page
      .context()
      .browser()
      ?.newContext({ baseURL: new URL(page.url()).origin })
  )?.newPage();
  if (!elsewhere) throw new Error('There is no other browser to import it in.');
  await elsewhere.goto('/');
  await importFile(elsewhere, 'book.json', book);
  await elsewhere.goto('/compare');
  await expect(elsewhere.getByRole('button', { name: 'Screen on against off', exact: true })).toBeVisible();
  await elsewhere.context().close();
  await page.goto('/compare');
  await press(page, 'Screen on against off');
  await expect(page.getByRole('heading', { name: '2 runs of Sedge 5' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Gains', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await press(page, 'Choose runs');
  await press(page, 'Remove Screen on against off');
  await expect(page.getByRole('heading', { name: 'Saved comparisons' })).toHaveCount(0);
  await page.reload();
  await press(page, 'Choose runs');
  await expect(
    page.getByRole('heading', { name: 'A study' }).or(page.getByRole('heading', { name: 'The latest of a device' })),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Saved comparisons' })).toHaveCount(0);
});
