import { test } from '@playwright/test';
import { DEMO } from './person';
test('zz', async ({ page }) => {
  await page.goto(`${DEMO}/runs`);
  await page.getByRole('checkbox').nth(0).check();
  await page.getByRole('checkbox').nth(1).check();
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: '/tmp/shots/exp1.png' });
  await page.getByRole('dialog').getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByText(/^Saved/).waitFor();
  await page.setViewportSize({ width: 390, height: 800 });
  await page.waitForTimeout(500);
  await page.screenshot({ path: '/tmp/shots/exp2.png' });
});
