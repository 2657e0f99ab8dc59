import { expect, test } from '@playwright/test';
import { addCharger, addDevice, bringShelf, entry, log, said, startRun } from './person';

test('@slice several lanes are logged from one line, the most urgent first', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addDevice(page, 'Curlew', '1950', '7.2');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.clock.fastForward('01:00');
  await startRun(page, 'Curlew', 'Cobble 20', '10');

  const [sedge, curlew] = [page.getByRole('article', { name: 'Sedge 5' }), page.getByRole('article', { name: 'Curlew' })];
  await page.clock.fastForward('04:30');
  await expect(page.getByLabel('Reading of Sedge 5')).toBeVisible();
  await log(page, '12');
  await expect(sedge).toContainText('12%');
  await expect(page.getByLabel('Reading of Curlew')).toBeVisible();

  // A letter picks a lane, in the empty line only.
  await entry(page).press('a');
  await expect(page.getByLabel('Reading of Sedge 5')).toBeVisible();
  await page.keyboard.type('13 31.5c');
  await page.keyboard.press('Enter');
  await expect(sedge).toContainText('13%');
  await page.keyboard.press('b');
  await page.keyboard.type('14');
  await page.keyboard.press('Enter');
  await expect(curlew).toContainText('14%');
  await expect(sedge).toContainText('13%');

  // The other run of the two can be laid beside it while both are live.
  await page.goto('/compare');
  await page.getByRole('combobox', { name: 'Runs compared' }).press('ArrowDown');
  await page.getByRole('option', { name: /Curlew.*live/ }).click();
  await page.getByRole('option', { name: /Sedge 5.*live/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('The devices differ')).toBeVisible();
});

test('@long @run twelve lanes are started by one key, none of them out of sight, and there is no room for more', async ({ page }) => {
  const names = Array.from({ length: 12 }, (_, index) => `Reed ${index + 1}`);
  await bringShelf(page, names, ['Cobble 20']);
  await page.goto('/live/new');
  for (const [index, name] of names.entries()) {
    await page.getByRole('combobox', { name: 'Device' }).fill(name);
    await page.getByRole('option', { name, exact: true }).click();
    if (index < 11) await page.getByRole('button', { name: 'Start another with it' }).click();
  }
  await page.getByRole('button', { name: 'Ready' }).click();
  await page.getByRole('button', { name: 'Switch the strip on now' }).press('Space');
  const lanes = page.getByRole('article');
  await expect(lanes).toHaveCount(12);
  for (const [index, name] of names.entries()) {
    await expect(lanes.nth(index)).toHaveAccessibleName(`Lane ${'ABCDEFGHIJKL'[index] ?? ''}: ${name} on Cobble 20`);
    await expect(lanes.nth(index)).toBeInViewport({ ratio: 0.99 });
  }
  await page.getByRole('textbox', { name: 'What lane L shows' }).fill('7');
  await page.keyboard.press('Enter');
  await expect(lanes.nth(11)).toContainText('7%');
  await page.getByRole('link', { name: 'Start a run' }).click();
  await expect(page.getByRole('button', { name: 'Ready' })).toBeDisabled();
  await expect(page.getByText('Twelve lanes are the most: stop one first.')).toBeVisible();
});

test('@long @slice single keys can be turned off, and the theme is kept', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByLabel('Listen to single keys').uncheck();
  await page.getByRole('link', { name: 'Live', exact: false }).last().click();
  await expect(page.getByRole('heading', { name: 'Live', exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Light theme' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Live', exact: true })).toBeVisible();
  await page.keyboard.press('s');
  await page.keyboard.press('n');
  await page.keyboard.press('4');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('heading', { name: 'Live', exact: true })).toBeVisible();
  await expect(entry(page)).toHaveValue('');
  await entry(page).fill('s');
  await entry(page).press('Enter');
  await expect(said(page)).toContainText('“s” is not a figure');
});

test('@slice the start of a run says what is missing', async ({ page }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addDevice(page, 'Curlew', '1950', '7.2');
  await addCharger(page, 'Cobble 20', '20');
  await page.goto('/live/new');
  await page.getByLabel('Level at plug-in').fill('140');
  await page.getByLabel('Minutes between readings').fill('0');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByText('Choose the device that charges.').first()).toBeVisible();
  await expect(page.getByText('Displays show 0 to 100 %.').first()).toBeVisible();
  await expect(page.getByText('Half a minute is the shortest interval').first()).toBeVisible();
  await expect(page.getByText(/^Never charge a damaged, swollen or wet battery/)).toBeVisible();
});
