import { expect, test } from '@playwright/test';
import { choose, stopRun } from './person';

const GEAR = [
  'shelf,name,kind,battery energy (wh),input limit (w),power delivery up to (v),watts (w),ports,charger end,device end,marked for',
  'device,Sedge 5,phone,17,25,9,,,,,',
  'device,Bittern Slate,tablet,31,30,15,,,,,',
  'charger,Cobble 12,adapter,,,,12,(USB-C) 5V⎓2.4A,,,',
  'charger,Cobble 20,adapter,,,,20,(USB-C) 5V⎓3A 9V⎓2.22A,,,',
  'charger,Quern 30,adapter,,,,30,(USB-C) 5V⎓3A 9V⎓3A 15V⎓2A,,,',
].join('\n');

test('@plan a study goes from its question to a run that fills a cell of its matrix', async ({ page }) => {
  await page.goto('/plan');
  await expect(page.getByRole('heading', { name: 'First, put a device and a charger on the shelf' })).toBeVisible();
  await page.goto('/bench');
  await page.getByRole('button', { name: 'Bring gear in' }).click();
  await page.locator('input[type=file]').setInputFiles({ name: 'van.csv', mimeType: 'text/csv', buffer: Buffer.from(GEAR) });
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.getByRole('link', { name: 'Plan' }).click();
  await page.getByRole('button', { name: 'Begin a study' }).click();

  await page.getByRole('button', { name: 'Keep the study' }).click();
  await expect(page.getByRole('alert').first()).toContainText('Give it a name');
  await choose(page, 'The question', 'Which charger for this device? Is the dearer or bigger one worth it?');
  await expect(page.getByText('Methods that fit: Coarse then fine, Fixed interval, Milestone checks.')).toBeVisible();
  await page.getByLabel('Name of the study').fill('Van chargers');
  await page.getByRole('combobox', { name: 'Devices' }).press('ArrowDown');
  await page.getByRole('option', { name: 'Sedge 5' }).click();
  await page.keyboard.press('Escape');
  await page.getByLabel('Runs of each').fill('2');

  const cell = (name: RegExp) => page.getByRole('button', { name });
  await expect(page.getByText(/^12 runs, .* of your own time/)).toBeVisible();
  await cell(/^Bittern Slate on Cobble 12, asleep: planned/).click();
  await page.getByLabel('Why leave out Bittern Slate on Cobble 12?').fill('known too weak');
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await expect(cell(/^Bittern Slate on Cobble 12, asleep: left out, known too weak/)).toBeVisible();
  await expect(page.getByText(/^10 runs/)).toBeVisible();

  // What it can tell, and the cheapest change that would tell more.
  const telling = page.getByRole('table', { name: 'For the slowest of them' }).getByRole('row', { name: /^80 %/ });
  await expect(telling).toContainText('5 min');
  await page.getByLabel('To tell apart a difference of, min').fill('300');
  await expect(page.getByText('This study will tell them apart as it is.')).toBeVisible();
  await page.getByLabel('To tell apart a difference of, min').fill('0.1');
  await expect(page.getByText('Not even ten runs of each would tell them apart')).toBeVisible();

  await page.getByRole('textbox', { name: 'ambient, °C' }).fill('24');
  await page.getByRole('button', { name: 'Take keyboard light away' }).click();
  await page.getByRole('button', { name: 'Keep the study' }).click();
  await expect(page.getByRole('button', { name: 'Kept' })).toBeDisabled();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Van chargers' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'keyboard light' })).toHaveCount(0);

  // The next run opens ready, with everything filled in and the conditions to confirm.
  await page.getByRole('link', { name: /^Next: Bittern Slate on Cobble 20/ }).click();
  await expect(page.getByRole('heading', { name: 'As planned in Van chargers' })).toBeVisible();
  await expect(page.getByRole('definition').filter({ hasText: '24' })).toBeVisible();
  await expect(page.getByLabel('Level at plug-in')).toHaveValue('2');
  await page.getByLabel('What differs this time').fill('window open');
  await page.getByRole('button', { name: 'Ready' }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('article', { name: 'Bittern Slate on Cobble 20' })).toBeVisible();
  await stopRun(page, 'The window I wanted is over');
  await page.getByRole('link', { name: 'Plan' }).click();
  await expect(page.getByText('1 of 10 runs made')).toBeVisible();
  await page.getByRole('link', { name: 'Van chargers' }).click();
  await expect(cell(/^Bittern Slate on Cobble 20, asleep: begun, 1 of 2/)).toBeVisible();
  await expect(page.getByRole('link', { name: /^Next: Bittern Slate on Quern 30/ })).toBeVisible();
});
