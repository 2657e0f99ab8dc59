import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { browse, newProfile } from './browse';
import { addCharger, addDevice, entry, limitedStorage, log, said, startRun } from './person';

test('@slice a run killed with its browser comes back counting, with all its ink', async () => {
  const profile = newProfile();
  const first = await browse(profile);
  await addDevice(first.page, 'Sedge 5', '4500', '3.85');
  await addCharger(first.page, 'Cobble 20', '20');
  await startRun(first.page, 'Sedge 5', 'Cobble 20', '2');
  for (const line of ['3 18w', '4 18.1w', '5 18.2w 26c']) await log(first.page, line);
  await first.kill();

  const second = await browse(profile);
  await second.page.goto('/');
  const lane = second.page.getByRole('article', { name: 'Sedge 5 on Cobble 20' });
  await expect(lane).toContainText('5%');
  await expect(lane).toContainText(/\d:\d\d/);
  await lane.getByRole('link', { name: 'Sedge 5' }).click();
  await expect(second.page.locator('.ink tbody tr')).toHaveCount(4);
  await log(second.page, '6');
  await expect(second.page.locator('.ink tbody tr')).toHaveCount(5);
  await second.kill();
});

test('@slice a reload in mid-run loses nothing that was shown as logged', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await page.clock.fastForward('05:00');
  await log(page, '12 18.4w 29c');
  await page.reload();
  const lane = page.getByRole('article');
  await expect(lane).toContainText('12%');
  await expect(lane).toContainText('18.4 W');
  await expect(lane).toContainText(/5:\d\d/);
});

test('@slice a failed write says so, keeps the entry, and offers a file', async ({ page }) => {
  const fill = await limitedStorage(page);
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  await fill(true);
  await entry(page).fill('12 18.4w');
  await entry(page).press('Enter');
  await expect(said(page)).toContainText('Not logged. This browser has no room left for it.');
  await expect(entry(page)).toHaveValue('12 18.4w');
  await expect(page.getByRole('article')).toContainText('2%');

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save this run as a file' }).click();
  const saved = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as { runs: { entries: { text?: string }[] }[] };
  expect(saved.runs[0]?.entries.at(-1)?.text).toBe('Not logged: 12 18.4w');

  await fill(false);
  await entry(page).press('Enter');
  await expect(said(page)).toContainText('Logged at');
});

test('@slice a start or a stop that cannot be stored says so and offers the run as a file', async ({ page }) => {
  const fill = await limitedStorage(page);
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await page.goto('/live/new');
  await page.getByLabel('Level at plug-in').fill('7');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Plug in now' })).toBeFocused();
  await fill(true);
  await page.keyboard.press('Space');
  await expect(page.getByRole('alert')).toContainText('Not logged. This browser has no room left');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save this run as a file' }).click();
  const saved = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as { runs: { entries: { percent?: number }[] }[] };
  expect(saved.runs[0]?.entries[0]?.percent).toBe(7);

  await fill(false);
  await page.getByRole('button', { name: 'Plug in now' }).click();
  await expect(page.getByRole('article')).toContainText('7%');
  await fill(true);
  await page.getByRole('button', { name: 'stop' }).click();
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('no room left');
  await fill(false);
  await page.getByRole('button', { name: 'Stop the run' }).click();
  await expect(page.getByRole('heading', { name: 'When it reached' })).toBeVisible();
});

test('@slice without storage nothing is offered to be logged', async ({ page }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('blocked', 'SecurityError');
    };
  });
  await page.goto('/');
  await expect(page.getByRole('alert')).toContainText('The logbook of this address cannot be opened');
});

test('@slice one tab writes a run; another follows it and can take over', async ({ page, context }) => {
  await addDevice(page, 'Sedge 5', '4500', '3.85');
  await addCharger(page, 'Cobble 20', '20');
  await startRun(page, 'Sedge 5', 'Cobble 20', '2');
  const other = await context.newPage();
  await other.goto('/');
  await expect(entry(other)).toBeDisabled();
  await log(page, '3');
  await expect(other.getByRole('article')).toContainText('3%');
  await other.getByRole('button', { name: 'Take over from the other tab' }).click();
  await log(other, '4');
  await expect(entry(page)).toBeDisabled();
  await expect(page.getByRole('article')).toContainText('4%');
});
