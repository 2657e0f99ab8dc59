import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import type { Logbook } from '../core/exchange';
import { browse, newProfile } from './browse';
import {
  bookOf,
  bringShelf,
  choose,
  chooseFile,
  pairUp,
  entry,
  finished,
  importFile,
  limitedStorage,
  log,
  loseDatabases,
  loseSecondCopy,
  said,
  startRun,
  storedOf,
  stopRun,
  exportBy,
} from './person';

/** Nothing can ruin a run, lock the logbook or blank a screen: each of these once did. */

const lanes = (page: Page) => page.getByRole('article');

async function savedLogbook(page: Page): Promise<Logbook> {
  const emergency = page.getByRole('button', { name: 'Save the logbook as a file' });
  await expect(emergency.or(page.getByRole('button', { name: 'Export the logbook' })).first()).toBeVisible();
  if ((await emergency.count()) === 0)
    return JSON.parse(readFileSync((await exportBy(page, 'Export the logbook')).path, 'utf8')) as Logbook;
  const download = page.waitForEvent('download');
  await emergency.click();
  return JSON.parse(readFileSync(await (await download).path(), 'utf8')) as Logbook;
}

test('@long @ground a run that was plugged in after the last heartbeat is never told that nobody watched it', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.clock.runFor(40_000);
  await stopRun(page, 'Window over');
  await page.clock.fastForward('02:00:00');
  await page.reload();
  await startRun(page, 'Sedge 5', 'Cobble 20', '5');
  await page.clock.runFor(40_000);
  await expect(page.getByText(/Not watched/)).toHaveCount(0);
  await log(page, '6');
  await expect(lanes(page)).toContainText('6%');

  // What the machine sleeps through is asked about; whatever is answered, the run goes on, and the answer can be undone.
  await page.clock.setSystemTime(new Date('2026-10-05T15:00:00Z'));
  await page.clock.runFor(1000);
  await page.getByRole('button', { name: 'the clock was changed' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/Not watched for \d+ min/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');
  await expect(page.getByText(/count on as if it had not been/)).toBeVisible();
  await log(page, '7');
});

test('@ground a run that cannot be filed is named, and closes nothing else', async ({ page }) => {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...args) {
      if (localStorage.getItem('refuse') && (args[1] as string).startsWith('run/')) throw new DOMException('no', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  await bringShelf(page, ['Sedge 5', 'Bittern Slate'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await startRun(page, 'Bittern Slate', 'Cobble 20', '9');
  await page.evaluate(() => localStorage.setItem('refuse', 'yes'));
  await page.keyboard.press('Escape');
  await page.keyboard.press('a');
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'Stop the run' }).click();
  const aside = page.getByRole('alert', { name: 'Runs set aside' });
  await expect(aside).toContainText('The stop is stored, but the run could not be filed yet');
  await expect(aside).toContainText('no room left');

  await page.reload();
  await expect(lanes(page)).toHaveCount(1);
  await expect(aside).toContainText('Sedge 5 on Cobble 20');
  await log(page, '10');
  const download = page.waitForEvent('download');
  await aside.getByRole('button', { name: 'Save it as a file' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('"percent": 2');
  await page.getByRole('link', { name: 'Runs' }).click();
  expect((await savedLogbook(page)).runs).toHaveLength(2);

  await page.evaluate(() => localStorage.removeItem('refuse'));
  await aside.getByRole('button', { name: 'Try again' }).click();
  await expect(aside).toHaveCount(0);
  await expect(page.getByRole('row', { name: /Sedge 5/ })).toBeVisible();
});

test('@ground a page that fails says so, keeps the due line alive, and offers the logbook and a way on', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await importFile(page, 'runs.json', bookOf([finished('one', [2, 30, 60])]));
  // A strip that cannot be drawn takes its page, and nothing else.
  await page.evaluate(() => {
    HTMLCanvasElement.prototype.getContext = () => {
      throw new Error('the paper is torn');
    };
  });
  await page
    .getByRole('link', { name: 'Charger one' })
    .or(page.getByRole('link', { name: /Sedge 5/ }).first())
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'This page failed' })).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('the paper is torn');
  await log(page, '3');
  expect((await savedLogbook(page)).runs).toHaveLength(2);
  await page.getByRole('link', { name: 'Help' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});

test('@long @ground a long log that runs hot opens, and so does the comparison of a run that starts at 79.6 %', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  const rows = Array.from({ length: 200_000 }, (_, row) => `${row},${(79.6 + row / 20_000).toFixed(1)},9,${47 + (row % 5)}`);
  await importFile(page, 'hot.csv', `time (s),percent,watts,temp °C\n${rows.join('\n')}\n`);
  await expect(page.getByText(/Above 40 °C between 0 min and 55 h 33, up to 51.0 °C/)).toBeVisible();
  await page.getByRole('link', { name: 'Compare' }).first().click();
  await importFile(page, 'runs.json', bookOf([finished('one', [2, 30, 85])]));
  await page.getByRole('link', { name: 'Compare' }).click();
  await page.getByRole('combobox', { name: 'Runs compared' }).press('ArrowDown');
  for (const name of [/Sedge 5 on Cobble 20/, /Sedge 5 on Charger one/]) await page.getByRole('option', { name }).click();
  await page.keyboard.press('Escape');
  await page.waitForURL(/runs=[^&]+\./);
  await page.goto(`${page.url()}&level=80`);
  await expect(page.getByRole('region', { name: 'Figures side by side' })).toBeVisible();
  await expect(page.getByText('This page failed')).toHaveCount(0);
});

test('@ground every entry can be struck: by X what was entered last, and in the list each row; a strike can be undone', async ({
  page,
}) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20', 'Quern 65']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await log(page, '3');
  await page.keyboard.press('Escape');
  await page.keyboard.press('v');
  await expect(page.getByRole('heading', { name: /^What happened/ })).toBeVisible();
  await page.keyboard.press('c');
  await expect(said(page)).toContainText('Noted');
  await page.keyboard.press('x');
  await page.getByLabel(/Why strike “chime or charge icon”/).fill('no chime');
  await page.keyboard.press('Enter');
  await expect(said(page)).toContainText('Struck: “chime or charge icon”');
  await log(page, '# a note of it');
  await page.keyboard.press('Escape');
  await page.keyboard.press('v');
  await expect(page.getByRole('heading', { name: /^What happened/ })).toBeVisible();
  await page.keyboard.press('x');
  await choose(page, 'Now charging from', 'Quern 65');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(lanes(page)).toContainText('Quern 65');

  await lanes(page).getByRole('link', { name: 'Sedge 5' }).click();
  const ink = page.getByRole('region', { name: 'Ink' });
  await expect(ink.getByRole('row')).toHaveCount(6);
  await ink.getByRole('button', { name: /Strike “source or cable swapped”/ }).click();
  await page.getByLabel(/Why strike “source or cable swapped”/).fill('it was not');
  await page.keyboard.press('Enter');
  await expect(ink.getByText('struck: it was not')).toBeVisible();
  await ink.getByRole('button', { name: /Strike the note/ }).click();
  await page.getByLabel(/Why strike the note/).fill('wrong run');
  await page.keyboard.press('Enter');
  await expect(entry(page)).toHaveValue('# a note of it');
  await entry(page).press('Escape');
  await ink.getByRole('button', { name: /Let the note .* count again/ }).click();
  await expect(ink.getByText('struck: wrong run')).toHaveCount(0);

  await stopRun(page, 'Window over');
  await ink
    .getByRole('button', { name: /Strike the reading at 0 s/ })
    .first()
    .click();
  await page.getByLabel('Why?').fill('not seen');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(ink.getByText('struck: not seen')).toBeVisible();
  await ink.getByRole('button', { name: 'Let 2 % at 0 s count again' }).click();
  await expect(ink.getByText('struck: not seen')).toHaveCount(0);
});

test('@ground a set that cannot be stored is offered as one file of all its runs, and is all there or not at all', async ({ page }) => {
  const fill = await limitedStorage(page);
  await bringShelf(page, ['Sedge 5', 'Bittern Slate'], ['Cobble 20', 'Quern 65']);
  await page.goto('/live/new');
  await choose(page, 'Device', 'Sedge 5');
  await choose(page, 'Charger', 'Cobble 20');
  await page.getByLabel('Level at plug-in').fill('7');
  await page.getByRole('button', { name: 'Start another with it' }).click();
  await choose(page, 'Device', 'Bittern Slate');
  await choose(page, 'Charger', 'Quern 65');
  await page.getByLabel('Level at plug-in').fill('8');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Switch the strip on now' })).toBeFocused();
  await fill(true);
  await page.keyboard.press('Space');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save all 2 runs as a file' }).click();
  const saved = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as Logbook;
  expect(saved.runs.map(({ entries }) => (entries[0] as { percent?: number }).percent)).toEqual([7, 8]);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(lanes(page)).toHaveCount(0);
});

test('@ground a form that is half filled in outlives Esc and a click outside', async ({ page }) => {
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Heron 3');
  await page.getByLabel('Battery, mAh').fill('3700');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByLabel('Battery, mAh')).toHaveValue('3700');
  await page.mouse.click(5, 400);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: 'Add a device' }).click();
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('');
  await page.getByRole('button', { name: 'Cancel' }).click();

  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.getByRole('button', { name: 'stop' }).click();
  await page.getByLabel('Remark, if any').fill('the plug sparked');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'stop' }).click();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByLabel('Remark, if any')).toHaveValue('the plug sparked');
});

test('@ground places 10, 11 and 12 are not called best', async ({ page }) => {
  const runs = Array.from({ length: 12 }, (_, index) =>
    finished(`r${index}`, [2, ...Array.from({ length: 4 * (index + 1) }, (__, at) => 3 + at * 0.5), 55]),
  );
  await importFile(page, 'runs.json', bookOf(runs));
  await page.goto(`/compare?runs=${runs.map(({ header }) => header.id).join('.')}&level=50`);
  const table = page.getByRole('region', { name: 'Figures side by side' });
  await expect(table.locator('.rank', { hasText: /^rank 12: $/ }).first()).toBeVisible();
  // Of the times to 50 % the first two tie; every gain that is named best stands at 1 or 1=.
  for (const led of await table.locator('td', { has: page.locator('.lead') }).all())
    await expect(led.locator('.rank')).toHaveText(/^rank 1=?:/);
  await expect(table.locator('.lead')).not.toHaveCount(12);
});

test('@ground at larger type the entry field keeps a dozen characters, and the time axis of a run lies above the due line', async ({
  page,
}) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.evaluate(() => (document.documentElement.style.fontSize = '150%'));
  const wide = async () => {
    const box = await entry(page).boundingBox();
    const size = await entry(page).evaluate((field) => parseFloat(getComputedStyle(field).fontSize));
    return (box?.width ?? 0) / (size * 0.6);
  };
  for (const [width, height] of [
    [1280, 800],
    [900, 700],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    expect(await wide()).toBeGreaterThan(12);
  }
  await page.evaluate(() => (document.documentElement.style.fontSize = ''));
  for (const height of [800, 640]) {
    await page.setViewportSize({ width: 1280, height });
    await page.goto('/live');
    await lanes(page).getByRole('link', { name: 'Sedge 5' }).click();
    await expect(page.locator('.paper canvas')).toBeVisible();
    const [paper, line] = [await page.locator('.spread > .paper').boundingBox(), await page.getByLabel('Due line').boundingBox()];
    expect((paper?.y ?? 0) + (paper?.height ?? 0)).toBeLessThanOrEqual((line?.y ?? 0) + 1);
  }
});

test('@ground a file that contradicts a live run is refused; a backup of it leaves it live', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await log(page, '3 18w');
  await page.getByRole('link', { name: 'Runs' }).click();
  const backup = await savedLogbook(page);
  const bent = JSON.parse(JSON.stringify(backup)) as Logbook;
  for (const each of bent.runs[0]?.entries ?? []) Object.assign(each, { watts: 40 });
  await chooseFile(page, 'bent.json', JSON.stringify(bent));
  await expect(page.getByRole('alert').filter({ hasText: /live here, and different in the file. Stop it first/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import it' })).toBeDisabled();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await importFile(page, 'backup.json', JSON.stringify(backup));
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
  await log(page, '4');
  await stopRun(page, 'Window over');
  await page.reload();
  await expect(page.getByRole('region', { name: 'Ink' }).getByRole('row')).toHaveCount(5);
});

test('@long @ground a backup can always be restored, though it is larger than the log it came from', async ({ page }) => {
  test.setTimeout(400_000);
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  // 52 MB, more than was once read of any file; in a logbook it is more still.
  const rows = Array.from(
    { length: 1_050_000 },
    (_, row) =>
      `${row},${(row / 10_500).toFixed(2)},${(9 + (row % 7) / 1000).toFixed(6)},${(2 + (row % 11) / 1000).toFixed(6)},${(31.25 + (row % 13) / 100).toFixed(4)},ordinary`,
  );
  const file = join(mkdtempSync(join(tmpdir(), 'inkpath-')), 'long.csv');
  writeFileSync(file, `time (s),percent,volts,amps,temp °C,phase of the moon\n${rows.join('\n')}\n`);
  await page.goto('/runs');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('File', { exact: true }).setInputFiles(file);
  await expect(page.getByText(/1050000 rows over/)).toBeVisible({ timeout: 100_000 });
  await pairUp(page);
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0, { timeout: 100_000 });
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
  await page.getByRole('link', { name: 'Runs' }).click();
  const { path } = await exportBy(page, 'Export the logbook');
  await page.goto('/inkpath');
  await loseDatabases(page);
  await loseSecondCopy(page);
  await page.goto('/runs');
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('File', { exact: true }).setInputFiles(path);
  await expect(page.getByText(/A logbook of 1 run. It adds 1 run/)).toBeVisible({ timeout: 100_000 });
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0, { timeout: 100_000 });
  await page
    .getByRole('row', { name: /Sedge 5/ })
    .getByRole('link')
    .first()
    .click();
  await expect(page.getByText(/°C/).first()).toBeVisible();
});

test('@ground a run left live for five weeks is logged and stopped like any other', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  for (let week = 0; week < 5; week += 1) await page.clock.fastForward(7 * 86_400_000);
  await page.clock.runFor(1000);
  await log(page, '50');
  await log(page, '51');
  await lanes(page).getByRole('link', { name: 'Sedge 5' }).click();
  await expect(page.getByText(/\d+ checks from 5 min to .* were missed/)).toHaveCount(1);
  await stopRun(page, 'Window over');
  await expect(page.getByText(/\d+ checks from 5 min to .* were missed/)).toHaveCount(1);
});

test('@ground an import that is killed leaves nothing or everything', async () => {
  test.setTimeout(300_000);
  const runs = Array.from({ length: 60 }, (_, index) => finished(`r${index}`, [2, 30, 60, 80]));
  const outcomes: number[] = [];
  // On the way and after it; at any moment by the dozen: `npm run soak`.
  for (const wait of [250, 6000]) {
    const profile = newProfile();
    const first = await browse(profile);
    await chooseFile(first.page, 'runs.json', bookOf(runs));
    await expect(first.page.getByText(/A logbook of 60 runs. It adds 60 runs/)).toBeVisible();
    await first.page.getByRole('button', { name: 'Import it' }).click({ noWaitAfter: true });
    await new Promise((resolve) => setTimeout(resolve, wait));
    await first.kill();
    const second = await browse(profile);
    await second.page.goto('/compare');
    await expect(second.page.getByRole('heading', { level: 1 })).toBeVisible();
    // What a crash left is ended at the start; then it is all or nothing.
    await second.page.waitForTimeout(3500);
    await second.page.goto('/runs');
    await expect(second.page.getByText(/From plug-in to a verdict|Charger r\d+/).first()).toBeVisible();
    const listed = [await storedOf(second.page, 'run/'), await storedOf(second.page, 'listed/')];
    expect([
      [0, 0],
      [60, 60],
    ]).toContainEqual(listed);
    outcomes.push(listed[0] ?? -1);
    await second.kill();
  }
  expect(outcomes).toContain(60);
});

test('@long @ground no other tab is said to have a run where there is none, however quickly pages are left', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  for (let round = 0; round < 40; round += 1) {
    await page.goto('/live', { waitUntil: 'commit' });
    await page.goto('/live', { waitUntil: 'commit' });
    await expect(entry(page)).toBeEnabled();
    await expect(page.getByRole('button', { name: 'Take over from the other tab' })).toHaveCount(0);
  }
  await log(page, '3');
});

test('@long @ground storage that is silent, newer or blocked is told as what it is', async ({ browser }) => {
  const pages: [script: string, sentence: RegExp][] = [
    [
      'IDBFactory.prototype.open = () => Object.create(IDBOpenDBRequest.prototype, { addEventListener: { value() {} } })',
      /has not answered for ten seconds/,
    ],
    ['IDBFactory.prototype.open = () => { throw new DOMException("no", "SecurityError") }', /private window, or site data is blocked/],
    ['IDBFactory.prototype.open = () => { throw new DOMException("no", "VersionError") }', /written by a newer Inkpath Log/],
    ['IDBFactory.prototype.open = () => { throw new DOMException("no", "QuotaExceededError") }', /disk, or the room/],
  ];
  for (const [script, sentence] of pages) {
    const page = await browser.newPage();
    await page.addInitScript(script);
    await page.goto('/');
    await expect(page.getByRole('alert')).toContainText(sentence);
    await page.close();
  }
});
