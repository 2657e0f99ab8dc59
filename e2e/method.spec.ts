import { expect, test } from '@playwright/test';
import { addCharger, addDevice, choose, log, startRun, stopRun } from './person';

test.beforeEach(async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await addDevice(page, 'Sedge 5', '4500', '3.85', '25');
  await addCharger(page, 'Cobble 20', '20');
});

test('@long @plan a top-up window is read at its marks, and wants no more after the last', async ({ page }) => {
  await startRun(page, 'Sedge 5', 'Cobble 20', '5', 'Top-up window');
  const lane = page.getByRole('article');
  await expect(lane).toContainText('until the check at 5 min');
  for (const [at, level, next] of [
    [5, 11, '10 min'],
    [10, 18, '15 min'],
    [15, 25, '20 min'],
    [20, 32, '30 min'],
  ] as const) {
    await page.clock.fastForward('05:00');
    await log(page, `${level} @${at}:00`);
    await expect(lane).toContainText(`until the check at ${next}`);
  }
  await page.clock.fastForward('10:00');
  await log(page, '45 @30:00');
  await expect(lane).toContainText('no more readings wanted');
  await stopRun(page, 'Window over');
  await expect(page.getByText('read at 5, 10, 15, 20 and 30 min')).toBeVisible();

  // Another run at the very times at which the first was read.
  await startRun(page, 'Sedge 5', 'Cobble 20', '5', 'The check times of an earlier run', async () => {
    await page.getByRole('combobox', { name: 'Copy check times from' }).press('ArrowDown');
    await page.getByRole('option', { name: /Sedge 5 on Cobble 20/ }).click();
    await expect(page.getByLabel('Read at, minutes')).toHaveValue('5, 10, 15, 20, 30');
  });
  await expect(lane).toContainText('until the check at 5 min');
});

test('@long @plan checks are coarse until a display shows 90 %, and then fine', async ({ page }) => {
  await startRun(page, 'Sedge 5', 'Cobble 20', '70', 'Coarse then fine');
  const lane = page.getByRole('article');
  await expect(lane).toContainText('until the check at 10 min');
  await page.clock.fastForward('10:00');
  await log(page, '82 @10:00');
  await expect(lane).toContainText('until the check at 20 min');
  await page.clock.fastForward('10:00');
  await log(page, '91 @20:00');
  await expect(lane).toContainText('until the check at 25 min');
  await page.reload();
  await expect(lane).toContainText('until the check at 25 min');
});

test('@plan a method says what it is good for and weak at, and what of it was typed wrong', async ({ page }) => {
  await page.goto('/live/new');
  await expect(page.getByText('Good for the whole curve by hand.')).toBeVisible();
  await choose(page, 'Method', 'Milestone checks');
  await expect(page.getByText('a winner at half an hour can lose at 100 %')).toBeVisible();
  await expect(page.getByLabel('Read at, minutes')).toHaveValue('15, 30, 45, 60');
  await page.getByLabel('Read at, minutes').fill('30, 15');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByText('Write the times in order, each once.').first()).toBeVisible();
  await page.getByLabel('Read at, minutes').fill('2,5 7,5');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByText('Write the times in order, each once.').first()).toBeVisible();
  await page.getByLabel('Read at, minutes').fill('2.5 7.5');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Plug in now' })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('article')).toContainText(/[12]:\d\d/);
});
