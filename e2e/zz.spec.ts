import { test } from '@playwright/test';
import { DEMO } from './person';
test('looks', async ({ page }) => {
  test.setTimeout(200_000);
  const session = await page.context().newCDPSession(page);
  await session.send('Page.enable');
  await session.send('Page.setFontSizes', { fontSizes: { standard: 32, fixed: 26 } });
  for (const [n, w, h] of [
    ['a', 1280, 800],
    ['b', 390, 844],
  ] as const) {
    await page.setViewportSize({ width: w, height: h });
    for (const [i, p] of [
      '/live',
      '/runs/saltmarsh-9',
      '/compare?runs=saltmarsh-1.saltmarsh-3.saltmarsh-5.saltmarsh-7',
      '/runs',
    ].entries()) {
      await page.goto(DEMO + p);
      await page.waitForTimeout(1500);
      await page.screenshot({ path: `/tmp/shots/t${n}${i}.png` });
    }
  }
});
