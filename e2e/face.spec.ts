import { expect, test, type Page } from '@playwright/test';
import type { StoredRun } from '../core/exchange';
import { bookOf, DEMO, finished, importFile, isReady, SCREENS } from './person';

const rows = (page: Page) => page.getByRole('table', { name: 'Finished runs' });
/** The first run of the list. */
const first = (page: Page) => rows(page).getByRole('row').nth(1);

/** Three hundred runs on a dozen chargers, whose names have numbers in them. */
const many = (): StoredRun[] =>
  Array.from({ length: 300 }, (_, index): StoredRun => {
    const run = finished(`r${index}`, [2, 30 + (index % 40), 100], Date.UTC(2026, 0, 1 + index));
    const name = `Cobble ${(index % 12) + 1}`;
    return { ...run, header: { ...run.header, charger: { ...run.header.charger, id: `c${index % 12}`, name } } };
  });

test('@face three hundred runs are sorted, filtered, tagged, discarded and put back', async ({ page }) => {
  await importFile(page, 'runs.json', bookOf(many()));
  await page.goto('/curve');
  await expect(page.getByText('300 runs', { exact: true })).toBeVisible();
  await expect(first(page)).toContainText('27 Oct 2026');
  // Numbers in names go by size: 1, 2 … 12, not 1, 10, 11.
  await page.getByRole('combobox', { name: 'Order' }).press('ArrowDown');
  await page.getByRole('option', { name: 'by charger' }).click();
  await expect(first(page).getByRole('link')).toHaveText(/Cobble 1\s*$/);
  await page.getByRole('button', { name: 'Filter' }).click();
  const charger = page.getByRole('combobox', { name: 'Charger' });
  await charger.fill('Cobble 1');
  await expect(page.getByRole('option')).toHaveText(['Cobble 1', 'Cobble 10', 'Cobble 11', 'Cobble 12']);
  await page.getByRole('option', { name: 'Cobble 12' }).click();
  await page.getByLabel('From', { exact: true }).fill('2026-06-01');
  await expect(page.getByText('13 runs', { exact: true })).toBeVisible();

  await page.getByRole('button', { name: 'Pick all found' }).click();
  await page.getByRole('button', { name: 'Tag', exact: true }).click();
  await page.getByRole('combobox', { name: 'Tags' }).fill('summer');
  await page.getByRole('combobox', { name: 'Tags' }).press('Enter');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('searchbox').fill('summer');
  await expect(page.getByText('13 of 13 picked')).toBeVisible();

  // One was a mistake: gone from the list, and put back.
  await page.getByRole('button', { name: 'Pick none' }).click();
  await first(page).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByText('12 runs', { exact: true })).toBeVisible();
  await page.reload();
  await page.getByText('One run was discarded: kept for 30 days').click();
  await page.getByRole('button', { name: /^Put .* back$/ }).click();
  await expect(page.getByText('300 runs', { exact: true })).toBeVisible();
  await expect(page.getByText('One run was discarded')).toHaveCount(0);
});

test('@face the due line takes one row, and nothing is wider than 320 px', async ({ page }) => {
  const line = page.getByLabel('Due line');
  const height = async () => (await line.boundingBox())?.height ?? 0;
  await page.goto(DEMO);
  await expect(page.getByRole('article')).toBeVisible();
  expect(await height()).toBeLessThanOrEqual(64);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await height()).toBeLessThanOrEqual(96);
  await page.setViewportSize({ width: 320, height: 700 });
  for (const path of Object.values(SCREENS)) {
    await page.goto(DEMO + path);
    await isReady(page);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(wide, path).toBeLessThanOrEqual(0);
  }
  // With type twice as large a dozen characters of the entry are still seen.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.evaluate(() => (document.documentElement.style.fontSize = '32px'));
  const field = page.getByRole('textbox', { name: /^Reading of/ });
  expect(await field.evaluate((input) => input.clientWidth / parseFloat(getComputedStyle(input).fontSize))).toBeGreaterThan(7);
});
