import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DuckDBConnection } from '@duckdb/node-api';
import { expect, test, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { DEMO, doMore, exportBy } from './person';

/** All that is in a logbook leaves in open formats, from wherever a person stands, and other programs read it. */

const more = (page: Page) => page.getByRole('button', { name: 'More', exact: true }).click();
const filesIn = (path: string) => unzipSync(readFileSync(path));

/** What DuckDB makes of a file of an archive. `{}` stands for it in the query. */
async function asked(path: string, file: string, sql: string): Promise<Record<string, unknown>[]> {
  const folder = mkdtempSync(join(tmpdir(), 'inkpath-out-'));
  const duck = await DuckDBConnection.create();
  try {
    const at = join(folder, file.replaceAll('/', '_'));
    writeFileSync(at, filesIn(path)[file] ?? new Uint8Array());
    return (await duck.runAndReadAll(sql.replace('{}', `'${at}'`))).getRowObjectsJS();
  } finally {
    duck.closeSync();
    rmSync(folder, { recursive: true });
  }
}

test('@out each export from each place of the demo, and what another program reads in it', async ({ page }) => {
  await page.goto(`${DEMO}/runs`);
  const rows = page.getByRole('table', { name: 'Finished runs' });
  const count = Number(await rows.getAttribute('aria-rowcount')) - 1;

  // The list: all of it, and those that are picked.
  const whole = await exportBy(page, 'Export the logbook', 'Data package');
  expect(whole.name).toMatch(/^inkpath-logbook-\d{4}-\d\d-\d\d\.zip$/);
  const [runs] = await asked(whole.path, 'runs.csv', 'select count(*)::int as found from read_csv({})');
  expect(runs?.found).toBeGreaterThanOrEqual(count);
  const said = await asked(whole.path, 'sentences.csv', `select text from read_csv({}, all_varchar = true) where need = 'headline'`);
  for (const { text } of said) expect(String(text).length).toBeGreaterThan(20);
  await rows.getByRole('checkbox').nth(0).check();
  await rows.getByRole('checkbox').nth(1).check();
  const two = await exportBy(page, 'Export', 'Parquet');
  expect(Object.keys(filesIn(two.path)).filter((name) => /^readings\/run=[\w-]+\/part-0\.parquet$/.test(name)).length).toBeLessThanOrEqual(
    2,
  );
  expect(await asked(two.path, 'runs/part-0.parquet', 'select count(*)::int as found from read_parquet({})')).toEqual([{ found: 2 }]);

  // A run: the figure on its page is the one in the file.
  await rows.getByRole('link', { name: /Quern 30/ }).first().click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
  await more(page);
  const run = await exportBy(page, 'Export', 'Data package');
  const [peak] = await asked(run.path, 'figures.csv', `select value, told from read_csv({}) where figure = 'peak'`);
  await expect(page.getByText(String(peak?.told).split(',')[0] ?? 'no peak').first()).toBeVisible();
  await more(page);
  const csv = await exportBy(page, 'Export', 'CSV');
  expect(readFileSync(csv.path, 'utf8')).toMatch(/^elapsed \(s\),clock time,kind/);
  await more(page);
  const book = await exportBy(page, 'Export', 'Spreadsheet');
  expect(Object.keys(filesIn(book.path))).toContain('xl/workbook.xml');
  expect(Buffer.from(filesIn(book.path)['xl/workbook.xml'] ?? []).toString()).toMatch(/Results.*Runs.*Gear/s);

  // The bench.
  await page.goto(`${DEMO}/bench`);
  const gear = await exportBy(page, 'Export gear', 'CSV');
  expect(readFileSync(gear.path, 'utf8')).toContain('Quern 30');
  const shelf = await exportBy(page, 'Export gear', 'Logbook');
  const { runs: none, chargers } = JSON.parse(readFileSync(shelf.path, 'utf8')) as { runs: unknown[]; chargers: unknown[] };
  expect([none.length, chargers.length > 3]).toEqual([0, true]);

  // A study: its runs, and itself without them.
  await page.goto(`${DEMO}/plan`);
  await page.getByRole('link', { name: /Van chargers/ }).first().click();
  await expect(page.getByRole('button', { name: 'Export', exact: true })).toBeVisible();
  const study = await exportBy(page, 'Export', 'Study to repeat');
  const { runs: left, studies } = JSON.parse(readFileSync(study.path, 'utf8')) as { runs: unknown[]; studies: { calendar?: unknown }[] };
  expect([left, studies.length, studies[0]?.calendar]).toEqual([[], 1, undefined]);
  const ofStudy = await exportBy(page, 'Export', 'Spreadsheet');
  expect(ofStudy.name).toMatch(/\.xlsx$/);
});

test('@out a comparison leaves with its verdict, and a long export can be called off', async ({ page }) => {
  await page.goto(DEMO);
  await expect(page).toHaveURL(/compare/);
  await expect(page.getByRole('button', { name: 'Choose runs' })).toBeVisible();
  await doMore(page, 'Export');
  const sheet = page.getByRole('dialog', { name: 'Export' });
  await expect(sheet.getByRole('group', { name: 'What' }).getByRole('radio')).toHaveCount(2);
  await expect(sheet.getByText(/^about \d+ (kB|MB)$/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Cancel' }).click();
  await more(page);
  const made = await exportBy(page, 'Export', 'Data package');
  const [figures] = await asked(made.path, 'figures.csv', 'select count(distinct run)::int as runs from read_csv({})');
  expect(figures?.runs).toBeGreaterThan(1);
});
