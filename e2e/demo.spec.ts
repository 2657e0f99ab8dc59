import { expect, test } from '@playwright/test';
import { DEMO, log } from './person';

test('@slice the demo opens with finished runs, one that stalled, and one live', async ({ page }) => {
  const troubles: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') troubles.push(message.text());
  });
  await page.goto(`${DEMO}/live`);
  await expect(page.getByRole('article', { name: 'Bittern Slate on Quern 30' })).toContainText('38:');
  await expect(page.getByLabel('Due line')).toContainText(/1:\d\d/);
  await log(page, '54 28.7w');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('54%');
  await page.getByRole('link', { name: 'Runs' }).click();
  // Rows that are not in sight are not drawn; all are counted.
  await expect(page.getByRole('table', { name: 'Finished runs' })).toHaveAttribute('aria-rowcount', '13');
  await page
    .getByRole('row', { name: /Puddle/ })
    .getByRole('link')
    .click();
  await expect(page.getByText(/No gain for .* from .* on/)).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'From plug-in to a verdict' })).toBeVisible();
  expect(troubles).toEqual([]);
});

test('@slice a stale live run of the demo is laid anew', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-11-02T09:00:00Z') });
  await page.goto(`${DEMO}/live`);
  await expect(page.getByRole('article')).toContainText('38:');
  await page.clock.setFixedTime(new Date('2026-11-03T09:00:00Z'));
  await page.reload();
  await expect(page.getByRole('article')).toContainText('38:');
  await expect(page.getByRole('article')).toHaveCount(1);
});
