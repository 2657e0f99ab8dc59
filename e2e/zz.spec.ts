import { test } from '@playwright/test';
import { DEMO, isReady } from './person';
test('looks', async ({ page }) => {
  test.setTimeout(200_000);
  page.on('console', (m) => m.type() === 'error' && console.log('ERR', m.text()));
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/');
  await isReady(page);
  await page.waitForTimeout(1200);
  await page.screenshot({ path: '/tmp/shots/first-live.png' });
  await page.goto('/bench');
  await page.waitForTimeout(800);
  await page.screenshot({ path: '/tmp/shots/first-bench.png' });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/compare');
  await page.waitForTimeout(800);
  await page.screenshot({ path: '/tmp/shots/first-390.png', fullPage: true });
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(DEMO);
  await isReady(page);
  await page.waitForTimeout(2500);
  console.log(await page.title(), page.url());
  await page.screenshot({ path: '/tmp/shots/demo.png' });
  await page.getByRole('button', { name: 'Take the tour' }).click();
  for (const at of [1, 2, 3, 4, 5]) {
    await page.waitForTimeout(500);
    await page.screenshot({ path: `/tmp/shots/tour${at}.png` });
    await page.getByRole('button', { name: at < 5 ? 'Next' : 'Done' }).click();
  }
});
