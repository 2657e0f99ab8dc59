import { expect, test, type Page } from '@playwright/test';
import { bringShelf, chooseFile, DEMO, importFile, isReady, pairUp } from './person';

const reader = (page: Page) => page.getByRole('slider', { name: /^Moment on the strip/ });
const readout = (page: Page) => page.locator('.readout');

/** The stages of a phone limited to 9 V and 3 A (common practice, no source), once a second. */
function stagedLog(): string {
  const rows = Array.from({ length: 6481 }, (_, second) => {
    const minute = second / 60;
    const watts = minute < 17 ? 26 : minute < 31 ? 19 : minute < 47 ? 14 : 0.6 + 9 * Math.exp(-(minute - 47) / 18);
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
  await expect(page.getByRole('img', { name: /^Watts by level/ })).toBeVisible();
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
  await expect(page.locator('.whole')).toHaveCount(0);
});

test('@curve the cursor goes from reading to reading by keys alone, and says what it reads', async ({ page }) => {
  await page.goto(`${DEMO}/curve/saltmarsh-6`);
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

test('@curve a log without a heading is read as one says, and the next of its meter likewise', async ({ page }) => {
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

test('@curve two logs are opened at once for a comparison, and each closer look is of its own run', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20', 'Quern 30']);
  for (const [index, name] of ['one.csv', 'other.csv'].entries()) {
    await chooseFile(page, name, stagedLog());
    const sheet = page.getByRole('dialog');
    for (const [label, choice] of [
      ['Device', 0],
      ['Charger', index],
    ] as const) {
      await sheet.getByRole('combobox', { name: label }).press('ArrowDown');
      await page.getByRole('option').nth(choice).click();
    }
    await page.getByRole('button', { name: 'Import it' }).click();
    await expect(reader(page)).toBeVisible();
  }
  await page.goto('/curve');
  await page.getByRole('button', { name: 'Pick all found' }).click();
  await page.getByRole('button', { name: 'Compare 2 runs' }).click();
  await expect(page.getByRole('region', { name: 'Figures side by side' }).getByRole('row')).toHaveCount(3);
});
