import { expect, test, type Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { inkOf } from '../core/ink';
import { bookOf, bringShelf, chooseFile, DEMO, doMore, finished, importFile, isReady, pairUp } from './person';

const reader = (page: Page) => page.getByRole('slider', { name: /^Moment on the strip/ });
const readout = (page: Page) => page.locator('.readout');

/** The power of a phone limited to 9 V and 3 A (common practice, no source), by minutes. */
const stagedWatts = (minute: number) => (minute < 17 ? 26 : minute < 31 ? 19 : minute < 47 ? 14 : 0.6 + 9 * Math.exp(-(minute - 47) / 18));

/** Its stages once a second. */
function stagedLog(): string {
  const rows = Array.from({ length: 6481 }, (_, second) => {
    const minute = second / 60;
    const watts = stagedWatts(minute);
    const level = Math.min(
      100,
      Math.floor(minute < 24 ? 1 + (minute * 49) / 24 : minute < 50 ? 50 + ((minute - 24) * 30) / 26 : 80 + ((minute - 50) * 20) / 58),
    );
    return `${second},${level},${minute < 47 ? 9 : 5},${(watts + (second % 3) * 0.05).toFixed(2)}`;
  });
  return ['elapsed (s),percent,volts,watts', ...rows].join('\n');
}

test('@curve a log of a staged charge is read in stages, by time and by level', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await importFile(page, 'staged.csv', stagedLog());
  await isReady(page);
  const figures = page.getByRole('complementary', { name: 'Figures' });
  await expect(figures).toContainText(/holds about 26\.\d W for 17 min, then 19\.\d W for 14 min, then 14\.\d W for 16 min, then tapers/);
  await expect(figures).toContainText(/9 → 5 V/);
  await page.getByRole('button', { name: 'By level' }).click();
  await expect(page.getByRole('img', { name: /^Power and heat by level/ })).toBeVisible();
  await page.getByRole('button', { name: 'By time' }).click();

  // Pointed at, the paper says all that was read there, and the list which stage that is.
  const box = await reader(page).boundingBox();
  if (!box) throw new Error('There is no paper.');
  await page.mouse.move(box.x + box.width * 0.3, box.y + 100);
  await expect(readout(page)).toContainText(/% · \d+(\.\d)? W/);
  await expect(figures.locator('.here')).toHaveCount(1);

  // Looked at closer it is drawn as finely as it was streamed, and the whole lies beneath.
  await page.getByRole('button', { name: 'Voltage' }).click();
  for (let times = 0; times < 5; times += 1) await page.getByRole('button', { name: 'Look closer' }).click();
  await expect(page.getByRole('button', { name: 'Whole' })).toBeEnabled();
  await expect(page.locator('.whole')).toBeVisible();
  await page.getByRole('button', { name: 'Whole' }).click();
  await expect(page.locator('.whole')).toBeHidden();
});

test('@curve the cursor goes from reading to reading by keys alone, and says what it reads', async ({ page }) => {
  await page.goto(`${DEMO}/runs/saltmarsh-6`);
  await isReady(page);
  await reader(page).focus();
  await page.keyboard.press('Home');
  await expect(reader(page)).toHaveAttribute('aria-valuetext', /^0 s: \d+ %/);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(reader(page)).toHaveAttribute('aria-valuetext', /min.*: \d+ %, .* W/);
  await page.keyboard.press('+');
  await expect(page.getByRole('button', { name: 'Whole' })).toBeEnabled();
  await page.keyboard.press('End');
  const last = await reader(page).getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(reader(page)).toHaveAttribute('aria-valuetext', last ?? '');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Whole' })).toBeDisabled();
});

test('@long @curve a log without a heading is read as one says, and the next of its meter likewise', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  const rows = Array.from({ length: 600 }, (_, second) => `${second};${(9 + (second % 5) / 100).toFixed(2).replace('.', ',')};2100`);
  const text = ['bench meter 3, range auto', ...rows].join('\n');
  await chooseFile(page, 'bare.txt', text);
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText(/heads no column of times/)).toBeVisible();
  const holds = (column: string) => sheet.getByRole('combobox', { name: `Holds, ${column}` });
  await expect(holds('column 1')).toHaveValue('elapsed, s');
  await expect(sheet.getByText('its numbers only rise')).toBeVisible();
  for (const [column, meaning] of [
    ['column 2', 'volts, V'],
    ['column 3', 'amps, mA'],
  ] as const) {
    await holds(column).fill(meaning);
    await page.getByRole('option', { name: meaning, exact: true }).click();
  }
  await sheet.getByLabel('Skip rows that cannot be read').check();
  await expect(sheet.getByText(/600 rows over 10 min/)).toBeVisible();
  await pairUp(page);
  await page.getByRole('button', { name: 'Import it' }).click();
  await expect(page.getByRole('heading', { name: 'Sedge 5 on Cobble 20' })).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Figures' })).toContainText('9 V');

  // Dropped onto the window, the next log of that meter is read as the last one was.
  await page.goto('/bench');
  await isReady(page);
  await page.evaluate((contents) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([contents], 'again.txt', { type: 'text/plain' }));
    document.querySelector('h1')?.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: transfer }));
  }, text);
  await expect(holds('column 3')).toHaveValue('amps, mA');
});

test('@long @curve two logs are opened at once for a comparison, and each closer look is of its own run', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20', 'Quern 30']);
  for (const [index, name] of ['one.csv', 'other.csv'].entries()) {
    await chooseFile(page, name, stagedLog());
    await pairUp(page, index);
    await page.getByRole('button', { name: 'Import it' }).click();
    await expect(reader(page)).toBeVisible();
  }
  await page.goto('/runs');
  await page.getByRole('button', { name: 'Pick all found' }).click();
  await page.getByRole('button', { name: 'Compare 2 runs' }).click();
  await expect(page.getByRole('region', { name: 'Figures side by side' }).getByRole('row')).toHaveCount(3);
});

test('@long @curve 200,000 rows are laid on readings taken by hand by their steps, while the page goes on; moved on the strip, and taken back', async ({
  page,
}, info) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  // Read by hand every three minutes; its watts tell where a log lies.
  const run = finished('byhand', [1, 50]);
  const readings = Array.from({ length: 36 }, (_, index) => ({
    seconds: index * 180,
    percent: Math.min(99, 1 + index * 2.5),
    watts: Number(stagedWatts(index * 3).toFixed(1)),
  }));
  const stop = { kind: 'stop' as const, seq: 40, id: 'stopped', at: run.header.plugInAt + 6400_000, written: 1, because: 'full' as const };
  await importFile(page, 'runs.json', bookOf([{ header: run.header, entries: [...inkOf(run.header, readings), stop] }]));
  await page.goto('/runs/byhand');
  await isReady(page);

  // The meter was started four minutes late, and logs 33 times a second.
  const rows = Array.from({ length: 200_000 }, (_, row) => `${(row * 0.03).toFixed(2)},${stagedWatts(row * 0.0005 + 4).toFixed(2)},9`);
  const file = info.outputPath('fast.csv');
  writeFileSync(file, `elapsed (s),watts,volts\n${rows.join('\n')}`);
  await page.evaluate(() => {
    const seen = window as unknown as { frames: number };
    seen.frames = 0;
    const count = () => {
      seen.frames += 1;
      requestAnimationFrame(count);
    };
    count();
  });
  await doMore(page, 'Add a meter’s log');
  const sheet = page.getByRole('dialog');
  const frames = () => page.evaluate(() => (window as unknown as { frames: number }).frames);
  const before = await frames();
  await sheet.getByLabel('File', { exact: true }).setInputFiles(file);
  await expect(sheet.getByText(/^200000 rows over 1 h 40/)).toBeVisible();
  expect(await frames()).toBeGreaterThan(before + 10);
  await expect(sheet.getByLabel(/by its steps: begins (4 min|3 min 5\d s|4 min \d s) after plug-in ± .* tell (9\d|100) %/)).toBeChecked();
  await sheet.getByRole('button', { name: 'Import it' }).click();
  const figures = page.getByRole('complementary', { name: 'Figures' });
  await expect(figures).toContainText('fast.csv');
  await expect(figures).toContainText(/begins (4 min|3 min 5\d s|4 min \d+ s) after plug-in/);
  await expect(figures).toContainText(/then 14\.0 W/);

  // Taken in hand it is moved by the arrows of the strip, and left there; struck in the ink it lies where it lay.
  await page.getByRole('button', { name: 'Move fast.csv' }).click();
  await expect(page.getByRole('button', { name: 'Leave it here' })).toBeVisible();
  await reader(page).focus();
  for (let times = 0; times < 3; times += 1) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'Leave it here' }).click();
  const moved = page.getByRole('row').filter({ hasText: /^.*log fast\.csv moved/ });
  await expect(moved).toContainText(/begins 4 min 2\d s|begins 4 min 3\d s/);
  await moved.getByRole('button', { name: /^Strike the place of a log/ }).click();
  await page.getByLabel('Why?').fill('it fitted before');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(figures).toContainText(/begins (4 min|3 min 5\d s|4 min \d s) after plug-in/);

  // Or it is written where it begins: what is no time is said, and nothing moves.
  await page.getByRole('button', { name: 'Move fast.csv' }).click();
  await page.getByLabel('Begins, from plug-in').fill('five');
  await expect(figures).toContainText('Write minutes and seconds, as 2:30, or -2:30 before plug-in.');
  await page.getByLabel('Begins, from plug-in').fill('-1:30');
  await expect(figures).toContainText('begins 1 min 30 s before plug-in');
  await page.getByLabel('Begins, from plug-in').fill('5:20');
  await page.getByRole('button', { name: 'Leave it here' }).click();
  await expect(page.getByRole('row').filter({ hasText: /log fast\.csv moved: it begins 5 min 20 s after plug-in/ })).toBeVisible();
});

test('@long @curve a file of two devices gives a run for each, and two million rows that are called off leave nothing', async ({
  page,
}, info) => {
  await bringShelf(page, ['Sedge 5', 'Teasel 14'], ['Cobble 20', 'Quern 65']);
  const rows = Array.from(
    { length: 300 },
    (_, row) => `${row * 2},Sedge 5,${10 + Math.floor(row / 20)},18\n${row * 2},Teasel 14,${40 + Math.floor(row / 30)},45`,
  );
  const text = `elapsed (s),device,percent,watts\n${rows.join('\n')}`;
  const sheet = page.getByRole('dialog');
  const importPair = async () => {
    await expect(sheet.getByText(/^2 devices\./)).toBeVisible();
    for (const [label, name] of [
      ['Charger of “Sedge 5”', 'Cobble 20'],
      ['Charger of “Teasel 14”', 'Quern 65'],
    ] as const) {
      await sheet.getByRole('combobox', { name: label }).fill(name);
      await page.getByRole('option', { name, exact: true }).click();
    }
    await sheet.getByRole('button', { name: 'Import it' }).click();
    await expect(sheet).toHaveCount(0);
  };
  await chooseFile(page, 'bench.csv', text);
  await importPair();
  const list = page.getByRole('table');
  await expect(list.getByRole('row', { name: /Sedge 5\s*Cobble 20/ })).toBeVisible();
  await expect(list.getByRole('row', { name: /Teasel 14\s*Quern 65/ })).toBeVisible();

  // From the page of a run too: none of the two is laid into that run, with the other dropped.
  await list.getByRole('link', { name: 'Teasel 14' }).click();
  await doMore(page, 'Add a meter’s log');
  await sheet.getByLabel('File', { exact: true }).setInputFiles({ name: 'more.csv', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await importPair();
  await page.goto('/runs');
  await expect(page.getByText('4 runs', { exact: true })).toBeVisible();

  const file = info.outputPath('millions.csv');
  writeFileSync(
    file,
    `elapsed (s),watts,volts,amps\n${Array.from({ length: 2_000_000 }, (_, row) => `${row / 10},18.25,9.01,2.03`).join('\n')}`,
  );
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByRole('dialog').getByLabel('File', { exact: true }).setInputFiles(file);
  const bar = page.getByRole('progressbar', { name: 'Reading the file' });
  await expect.poll(async () => Number(await bar.getAttribute('aria-valuenow')), { intervals: [50] }).toBeGreaterThan(10);
  await page.getByRole('button', { name: 'Stop reading' }).click();
  await expect(bar).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Import it' })).toBeDisabled();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.reload();
  await isReady(page);
  await expect(page.getByText('4 runs', { exact: true })).toBeVisible();
});

test('@curve plug-in is set, the end is trimmed, a run is split, and each is taken back by striking it', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await importFile(page, 'runs.json', bookOf([finished('one', [2, 10, 20, 30, 40, 50, 60, 70, 80])]));
  await page.goto('/runs/one');
  await isReady(page);
  const heading = page.locator('.sheet > header');
  await expect(heading).toContainText('ended at 45 min');

  await doMore(page, 'Plug-in, trim or split');
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('trim its ends').check();
  await sheet.getByLabel('to, min:s').fill('20:00');
  await sheet.getByRole('button', { name: 'Trim it' }).click();
  await expect(heading).toContainText('ended at 20 min, cut off');
  await page.getByRole('button', { name: /^Strike the trimming/ }).click();
  await page.getByLabel('Why?').fill('all of it counts');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(heading).toContainText('ended at 45 min');

  await doMore(page, 'Correct its settings');
  await sheet.getByLabel('Wi-Fi').fill('on');
  await sheet.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Settings: Wi-Fi on', { exact: true })).toBeVisible();

  await doMore(page, 'Plug-in, trim or split');
  await sheet.getByLabel('split it in two').check();
  await sheet.getByLabel('At, min:s').fill('22:30');
  await sheet.getByRole('button', { name: 'Split it' }).click();
  // The second half is a run of its own, plugged in then.
  await expect(heading).toContainText('11:22 · ended at 23 min');
  await expect(page.getByRole('region', { name: 'Ink' }).getByRole('row')).toHaveCount(7);
  await page.goto('/runs');
  await expect(page.getByText('2 runs', { exact: true })).toBeVisible();
});

test('@long @curve a level that was asked for stays asked for, and a stretch that is looked at has its least, mean and most', async ({
  page,
}) => {
  await page.goto(`${DEMO}/runs/saltmarsh-6`);
  await isReady(page);
  const figures = page.getByRole('complementary', { name: 'Figures' });
  await figures.getByText('Figures to work out').click();
  await figures.getByLabel('Also at these levels, %').fill('95');
  await page.keyboard.press('Enter');
  await expect(figures.getByRole('button', { name: 'Show working of 95 %' })).toBeVisible();
  await page.goto(`${DEMO}/runs/saltmarsh-9`);
  await isReady(page);
  await expect(figures.getByRole('button', { name: 'Show working of 95 %' })).toBeVisible();
  await page.getByRole('button', { name: 'Look closer' }).click();
  const stretch = page.getByRole('region', { name: 'The stretch that is looked at' });
  await expect(stretch.getByRole('row', { name: /^W / })).toContainText(/\d/);
  await expect(figures.getByText('Against the pencil')).toBeVisible();
  await figures.getByRole('button', { name: /^Fit Sedge 5 to its \d runs/ }).click();
  // It takes as long as the machine does, and shows its share meanwhile.
  const share = figures.getByRole('progressbar');
  await expect(share.or(figures.getByText(/lie \d+\.\d % off the pencil/)).first()).toBeVisible();
  await expect(share).toHaveCount(0, { timeout: 240_000 });
  await expect(figures.getByText(/lie \d+\.\d % off the pencil\. Fitted, \d+\.\d %/)).toBeVisible();
});
