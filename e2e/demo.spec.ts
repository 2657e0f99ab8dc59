import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { DEMO, entry, log } from './person';

const SCREENS = {
  run: '/run',
  start: '/run/new',
  bench: '/bench?shelf=charger',
  expect: '/bench/expect?device=teasel-14&charger=cobble-20',
  runs: '/curve',
  curve: '/curve/saltmarsh-6',
  compare: '/compare?runs=saltmarsh-1.saltmarsh-3.saltmarsh-5.saltmarsh-7',
  help: '/help',
};

async function isReady(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.evaluate(() => document.fonts.ready);
}

test('@slice the demo opens with finished runs, one that stalled, and one live', async ({ page }) => {
  const troubles: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') troubles.push(message.text());
  });
  await page.goto(DEMO);
  await expect(page.getByRole('article', { name: 'Bittern Slate on Quern 30' })).toContainText('38:');
  await expect(page.getByLabel('Due line')).toContainText(/1:\d\d/);
  await log(page, '54 28.7w');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('54%');
  await page.getByRole('link', { name: 'Curve' }).click();
  await expect(page.getByRole('table', { name: 'Finished runs' }).getByRole('row')).toHaveCount(10);
  await page
    .getByRole('row', { name: /Puddle/ })
    .getByRole('link')
    .click();
  await expect(page.getByText(/No gain for .* from .* on/)).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'First, put a device and a charger on the shelf' })).toBeVisible();
  expect(troubles).toEqual([]);
});

test('@slice a stale live run of the demo is laid anew', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-11-02T09:00:00Z') });
  await page.goto(DEMO);
  await expect(page.getByRole('article')).toContainText('38:');
  await page.clock.setFixedTime(new Date('2026-11-03T09:00:00Z'));
  await page.reload();
  await expect(page.getByRole('article')).toContainText('38:');
  await expect(page.getByRole('article')).toHaveCount(1);
});

for (const theme of ['light', 'dark'] as const) {
  test(`@slice axe finds nothing on any screen, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    for (const [name, path] of Object.entries(SCREENS)) {
      await page.goto(DEMO + path);
      await isReady(page);
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
        .analyze();
      expect(violations.map(({ id, nodes }) => `${name}: ${id} at ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`)).toEqual([]);
    }
  });

  test(`@slice axe finds nothing in any sheet or empty screen, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    const look = async (name: string, part = 'html') => {
      const { violations } = await new AxeBuilder({ page }).include(part).analyze();
      expect(violations.map(({ id, nodes }) => `${name}: ${id} at ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`)).toEqual([]);
    };
    for (const path of ['/run', '/run/new', '/bench', '/bench/expect', '/curve', '/compare', '/nowhere', '/curve/nothing']) {
      await page.goto(path);
      await isReady(page);
      await look(`empty ${path}`);
    }
    const sheets: [string, string][] = [
      ['/bench', 'Add a device'],
      ['/bench?shelf=charger', 'Quern 65 adapter'],
      ['/bench?shelf=cable', 'Add a cable'],
      ['/bench?shelf=meter', 'Tidepole'],
      ['/bench', 'Bring gear in'],
      ['/curve', 'Bring a file in'],
      ['/run', 'stop'],
      ['/run', 'Shortcuts'],
      ['/curve/saltmarsh-2', 'Strike the reading at 5 min'],
    ];
    for (const [path, button] of sheets) {
      await page.goto(DEMO + path);
      await isReady(page);
      await page.getByRole('button', { name: button }).first().click();
      await expect(page.getByRole('dialog')).toBeVisible();
      await look(button, '[role=dialog]');
    }
  });
}

test('@slice nothing is lost off a narrow screen', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const path of Object.values(SCREENS)) {
    await page.goto(DEMO + path);
    await isReady(page);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(wide, path).toBeLessThanOrEqual(0);
    await expect(entry(page)).toBeInViewport();
  }
});
