import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DuckDBConnection } from '@duckdb/node-api';
import { expect, test, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { logbookOf, writeLogbook, type StoredRun } from '../core/exchange';
import { PORTS } from '../server/serve';
import { addDevice, bookOf, choose, compareAll, DEMO, doMore, exportBy, finished, importFile, loseDatabases } from './person';

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
  await rows
    .getByRole('link', { name: /Quern 30/ })
    .first()
    .click();
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
  await page
    .getByRole('link', { name: /Van chargers/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Export', exact: true })).toBeVisible();
  const study = await exportBy(page, 'Export', 'Study to repeat');
  const { runs: left, studies } = JSON.parse(readFileSync(study.path, 'utf8')) as { runs: unknown[]; studies: { calendar?: unknown }[] };
  expect([left, studies.length, studies[0]?.calendar]).toEqual([[], 1, undefined]);
  const ofStudy = await exportBy(page, 'Export', 'Spreadsheet');
  expect(ofStudy.name).toMatch(/\.xlsx$/);
});

test('@out a comparison leaves with its figures, and says before how large it will be', async ({ page }) => {
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

/** Keeps everything else from reading or writing the logbook, until it is let go. */
const holdLogbook = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<void>((held) => {
        const opening = indexedDB.open('inkpath');
        opening.onsuccess = () => {
          const store = opening.result.transaction('kept', 'readwrite').objectStore('kept');
          let isHeld = true;
          Object.assign(window, { letGo: () => (isHeld = false) });
          const again = () => {
            held();
            if (isHeld) store.get('none').onsuccess = again;
            else opening.result.close();
          };
          again();
        };
      }),
  );
const letGo = (page: Page) => page.evaluate(() => (window as unknown as { letGo: () => void }).letGo());

test('@out an export that takes long says so and can be called off, and nothing comes of it', async ({ page, context }) => {
  await page.goto('/runs');
  await importFile(
    page,
    'three.json',
    bookOf(['one', 'two', 'three'].map((id, day) => finished(id, [20, 60, 100], Date.UTC(2026, 9, 5 + day, 9)))),
  );
  const beside = await context.newPage();
  await beside.goto('/mark.svg');
  let files = 0;
  page.on('download', () => (files += 1));
  await page.getByRole('button', { name: 'Export the logbook' }).click();
  const sheet = page.getByRole('dialog', { name: 'Export' });
  const begin = sheet.getByRole('button', { name: 'Export', exact: true });
  const working = sheet.getByRole('progressbar', { name: 'Writing the file' });
  for (const end of ['Stop', 'Cancel']) {
    await holdLogbook(beside);
    await begin.click();
    await expect(working).toBeVisible();
    await expect(begin).toBeDisabled();
    await sheet.getByRole('button', { name: end, exact: true }).click();
    await expect(working).toHaveCount(0);
    await letGo(beside);
  }
  await expect(sheet).toHaveCount(0);
  // The next one comes, alone and whole.
  const { path } = await exportBy(page, 'Export the logbook', 'Data package');
  expect(files).toBe(1);
  expect(await asked(path, 'runs.csv', 'select count(*)::int as found from read_csv({})')).toEqual([{ found: 3 }]);
});

test('@out an export whose program cannot be fetched ends, and can be tried again', async ({ page }) => {
  await page.goto('/runs');
  await importFile(page, 'one.json', bookOf([finished('one', [20, 60])]));
  await page.route(/\/exporter-[^/]*\.js$/, (route) => route.abort());
  const gone = page.waitForEvent('requestfailed');
  await page.getByRole('button', { name: 'Export the logbook' }).click();
  await gone;
  const sheet = page.getByRole('dialog', { name: 'Export' });
  const begin = sheet.getByRole('button', { name: 'Export', exact: true });
  await begin.click();
  await expect(begin).toBeEnabled();
  await expect(sheet.getByRole('progressbar')).toHaveCount(0);
  await page.unroute(/\/exporter-[^/]*\.js$/);
  const file = page.waitForEvent('download');
  await begin.click();
  expect((await file).suggestedFilename()).toMatch(/\.json$/);
});

const offer = async (page: Page, name: string, text: string) => {
  await page.goto('/runs');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
};
const take = async (page: Page) => {
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
};

test('@long @out a colleague’s copy that differs is settled entry by entry, and their runs keep their name', async ({ page }) => {
  const mine = finished('shared', [10, 40, 70]);
  const theirs = {
    ...mine,
    entries: mine.entries.map((entry, index) => (index === 1 && entry.kind === 'reading' ? { ...entry, percent: 44 } : entry)),
  };
  const other = finished('other', [10, 60, 90], Date.UTC(2026, 9, 6, 9));
  await offer(page, 'mine.json', bookOf([mine]));
  await expect(page.getByRole('dialog')).toContainText('It adds 1 run.');
  await take(page);

  await offer(page, 'ada.json', writeLogbook({ ...logbookOf({ settings: { owner: 'Ada' } }, [theirs, other]) }));
  const sheet = page.getByRole('dialog');
  await expect(sheet).toContainText('It is Ada’s: the name stays with its runs.');
  await expect(sheet).toContainText('It adds 1 run. It joins 1 run with its copy here.');
  await expect(sheet.getByRole('heading', { name: 'One entry differs from what is here' })).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Import it' })).toBeDisabled();
  await expect(sheet.getByRole('region', { name: 'Entries that differ' })).toContainText('percent: 44');
  await sheet.getByRole('radio', { name: /as in the file/ }).check();
  await take(page);
  const rows = page.getByRole('table', { name: 'Finished runs' });
  await expect(rows.getByRole('link', { name: /Ada/ })).toHaveCount(1);
  await rows.getByRole('link').filter({ hasNotText: 'Ada' }).first().click();
  await expect(page.getByRole('row', { name: /44/ }).first()).toBeVisible();
  await expect(page.getByText('two copies differed, and the other was chosen (this one was here)').first()).toBeVisible();

  // The same file again changes nothing, and asks nothing.
  await offer(page, 'ada.json', writeLogbook({ ...logbookOf({ settings: { owner: 'Ada' } }, [theirs, other]) }));
  await expect(sheet).toContainText('It adds nothing. It joins 2 runs with their copies here.');
  await expect(sheet.getByRole('heading', { name: /differ/ })).toHaveCount(0);
  await take(page);

  // Side by side they are told apart.
  await compareAll(page, 2);
  await expect(page.getByText(/\(Ada\)/).first()).toBeVisible();
});

test('@long @out a study leaves without its runs, and is ready to run on somebody else’s gear', async ({ page, browser }) => {
  await page.goto(`${DEMO}/plan`);
  await page
    .getByRole('link', { name: /Van chargers/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Export', exact: true })).toBeVisible();
  const { path } = await exportBy(page, 'Export', 'Study to repeat');
  const elsewhere = await (await browser.newContext({ baseURL: `http://127.0.0.1:${PORTS.test}` })).newPage();
  await addDevice(elsewhere, 'My phone', '4500', '3.85');
  await offer(elsewhere, 'study.json', readFileSync(path, 'utf8'));
  const sheet = elsewhere.getByRole('dialog');
  await expect(sheet.getByRole('heading', { name: /Van chargers.*: a study to repeat/ })).toBeVisible();
  await choose(elsewhere, 'For device Sedge 5', 'My phone');
  await sheet.getByRole('button', { name: 'Import it' }).click();
  await expect(elsewhere).toHaveURL(/\/plan\//);
  await expect(elsewhere.getByRole('heading', { name: /Van chargers/, level: 1 })).toBeVisible();
  await expect(
    elsewhere
      .getByText(/Next: My phone on /)
      .or(elsewhere.getByRole('link', { name: /My phone/ }))
      .first(),
  ).toBeVisible();
  await elsewhere.goto('/bench');
  await expect(elsewhere.getByText('My phone').first()).toBeVisible();
  await expect(elsewhere.getByText('Sedge 5', { exact: true })).toHaveCount(0);
});

test('@long @out a folder that was chosen once takes a backup after each run, the last ten, and gives all of it back', async ({ page }) => {
  test.setTimeout(180_000);
  // The origin’s private files stand in for a folder of the person’s.
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () => (await navigator.storage.getDirectory()).getDirectoryHandle('my-backups', { create: true }),
    });
  });
  const seconds = Float64Array.from({ length: 200 }, (_, row) => row * 10);
  const streamed: StoredRun = {
    ...finished('streamed', [10, 50]),
    samples: { watts: { seconds, values: seconds.map((at) => 18 + (at % 7) / 10) } },
  };
  await offer(page, 'one.json', bookOf([streamed]));
  await take(page);
  await page.goto('/settings');
  await expect(page.getByText('No backup yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Choose a folder' }).click();
  await expect(page.getByText('Backup today.')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('my-backups', { exact: true })).toBeVisible();
  const names = () =>
    page.evaluate(async () => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('my-backups');
      const all: string[] = [];
      for await (const name of folder.keys()) all.push(name);
      return all.sort();
    });
  expect((await names()).filter((name) => name.startsWith('inkpath-backup-'))).toHaveLength(1);

  // A run that comes to its end is in the next one, by itself.
  await page.waitForTimeout(2500);
  await offer(page, 'two.json', bookOf([finished('second', [10, 50])]));
  await take(page);
  await expect.poll(async () => (await names()).filter((name) => name.startsWith('inkpath-backup-')).length, { timeout: 40_000 }).toBe(2);
  for (let more = 0; more < 11; more += 1)
    await page.evaluate(async (at) => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('my-backups');
      await folder.getFileHandle(`inkpath-backup-2020-01-01-0000${String(at).padStart(2, '0')}.json`, { create: true });
    }, more);
  await page.goto('/settings');
  await page.getByRole('button', { name: 'Back up now' }).click();
  await expect.poll(async () => (await names()).filter((name) => name.startsWith('inkpath-backup-')).length, { timeout: 40_000 }).toBe(10);

  // All of it comes back from there, samples too.
  await page.goto('/inkpath');
  await loseDatabases(page);
  await page.evaluate(async () => {
    const all = await navigator.storage.getDirectory();
    for await (const name of all.keys()) if (name !== 'my-backups') await all.removeEntry(name, { recursive: true }).catch(() => undefined);
  });
  await page.goto('/runs');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByRole('button', { name: 'The newest backup of a folder' }).click();
  await expect(page.getByRole('dialog')).toContainText('It adds 2 runs');
  await take(page);
  const { path } = await exportBy(page, 'Export the logbook');
  const { runs } = JSON.parse(readFileSync(path, 'utf8')) as { runs: StoredRun[] };
  const back = runs.find(({ header }) => header.id === 'streamed');
  expect([runs.length, back?.samples?.watts?.values.length]).toEqual([2, streamed.samples?.watts?.values.length]);
});

test('@long @out a folder for backups that is gone, or may no longer be written to, is said, and nothing else is touched', async ({
  page,
}) => {
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () => (await navigator.storage.getDirectory()).getDirectoryHandle('my-backups', { create: true }),
    });
  });
  await offer(page, 'one.json', bookOf([finished('one', [10, 50])]));
  await take(page);
  await page.goto('/settings');
  await page.getByRole('button', { name: 'Choose a folder' }).click();
  await expect(page.getByText('Backup today.')).toBeVisible({ timeout: 30_000 });
  await page.evaluate(async () => (await navigator.storage.getDirectory()).removeEntry('my-backups', { recursive: true }));
  await page.getByRole('button', { name: 'Back up now' }).click();
  const said = (text: string) => expect(page.getByRole('alert').filter({ hasText: text })).toBeVisible();
  await said('The folder my-backups is gone: no backup was written. Choose another folder.');

  await page.getByRole('button', { name: 'Another folder' }).click();
  await expect(page.getByRole('button', { name: 'Back up now' })).toBeVisible({ timeout: 30_000 });
  // The one that is written at once is done by then.
  await expect(page.getByRole('button', { name: 'Stop writing there' })).toBeEnabled();
  await page.evaluate(() => Object.assign(FileSystemHandle.prototype, { queryPermission: () => Promise.resolve('prompt') }));
  await page.getByRole('button', { name: 'Back up now' }).click();
  await said('The browser no longer lets backups be written to my-backups.');
  await expect(page.getByRole('button', { name: 'Allow it again' })).toBeVisible();
  await page.goto('/runs');
  await expect(page.getByRole('table', { name: 'Finished runs' }).getByRole('row')).toHaveCount(2);
});
