import { expect, test, type Page } from '@playwright/test';
import { bookOf, DEMO, importFile, isReady, runOf, SCREENS } from './person';
import { exampleHeader } from '../core/ink/example';

/** First minutes, small screens and large text: what a person sees who has never been here, or sees little at once. */

/**
 * What is wrong with the words on the screen as they lie: two that overlap, what is cut off without a way to read it, what is wider than the page or lies
 * under the due line.
 */
function troubles(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    const isSeen = (element: Element) => element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
    const root = document.documentElement;
    if (root.scrollWidth > root.clientWidth) {
      const widest = [...document.querySelectorAll('#place *')].find(
        (each) => each.getBoundingClientRect().right > root.clientWidth + 1 && isSeen(each),
      );
      found.push(`the page is ${root.scrollWidth - root.clientWidth} px too wide, by ${widest?.outerHTML.slice(0, 60) ?? ''}`);
    }
    const line = document.querySelector('[aria-label="Due line"]')?.getBoundingClientRect();
    const place = document.getElementById('place');
    const at = place?.getBoundingClientRect();
    if (line && at && at.bottom > line.top + 1) found.push('the place reaches under the due line');
    const boxes: { text: string; of: Element; left: number; right: number; top: number; bottom: number }[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const of = node.parentElement;
      const text = node.textContent?.trim() ?? '';
      if (!of || text === '' || !isSeen(of) || of.closest('.unseen-text, .skip, svg, script, style, noscript')) continue;
      // Words that are only read aloud or copied are clipped to nothing.
      const clip = getComputedStyle(of).clipPath;
      if (clip !== 'none') continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      const size = Number.parseFloat(getComputedStyle(of).fontSize);
      for (const { left, right, top: high, bottom: low } of range.getClientRects()) {
        if (right - left < 2 || low - high < 2) continue;
        // The box of a line is higher than its letters are.
        const more = Math.max(0, (low - high - size * 0.95) / 2);
        const [top, bottom] = [high + more, low - more];
        const box = { text: text.slice(0, 30), of, left, right, top, bottom };
        // What is scrolled away, or cut by what scrolls, is not seen here.
        let isCut = false;
        for (let around: Element | null = of; around; around = around.parentElement) {
          const { overflowX, overflowY } = getComputedStyle(around);
          if (overflowX === 'visible' && overflowY === 'visible') continue;
          const frame = around.getBoundingClientRect();
          box.left = Math.max(box.left, frame.left);
          box.right = Math.min(box.right, frame.right);
          box.top = Math.max(box.top, frame.top);
          box.bottom = Math.min(box.bottom, frame.bottom);
          if (box.right - box.left < 2 || box.bottom - box.top < 2) isCut = true;
        }
        if (!isCut) boxes.push(box);
      }
    }
    for (const [index, one] of boxes.entries())
      for (const other of boxes.slice(index + 1)) {
        if (one.of === other.of || one.of.contains(other.of) || other.of.contains(one.of)) continue;
        const wide = Math.min(one.right, other.right) - Math.max(one.left, other.left);
        const high = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top);
        // Line boxes of large type reach a little over the next.
        if (wide > 2 && high > Math.min(one.bottom - one.top, other.bottom - other.top) * 0.35) {
          const isLayered = (element: Element) => element.closest('.head, .mended, .rest, [role="dialog"], thead, .stuck, .v-overlay');
          if (isLayered(one.of) !== isLayered(other.of)) continue;
          found.push(`“${one.text}” lies on “${other.text}”`);
        }
      }
    for (const button of document.querySelectorAll<HTMLElement>('.v-btn, h1, h2, .chosen-of button')) {
      if (!isSeen(button) || button.scrollWidth <= button.clientWidth + 1) continue;
      found.push(`“${button.textContent?.trim().slice(0, 40)}” is cut off`);
    }
    return [...new Set(found)].slice(0, 6);
  });
}

const SIZES = [
  [320, 700],
  [390, 844],
  [1280, 800],
  [1920, 1080],
  // A window of 1280 × 800 and a phone, enlarged to twice their size.
  [640, 400],
  [195, 422],
] as const;

test('@first no two words overlap and nothing is cut, at any width, enlarged too', async ({ page }) => {
  test.setTimeout(600_000);
  const found: string[] = [];
  for (const [name, path] of Object.entries(SCREENS)) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(DEMO + path);
    await isReady(page);
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await page.waitForTimeout(120);
      for (const each of await troubles(page)) found.push(`${name} at ${width} × ${height}: ${each}`);
      const line = await page.getByLabel('Due line', { exact: true }).boundingBox();
      if (height < 500 && (line?.height ?? 0) > 64) found.push(`${name} at ${width} × ${height}: the due line is ${line?.height} px high`);
      const strip = page.locator('.reader .paper, .lane .paper').first();
      const drawn = (await strip.count()) > 0 ? await strip.boundingBox() : undefined;
      if (drawn && drawn.height < 160 && name !== 'apart') found.push(`${name} at ${width} × ${height}: the strip is ${drawn.height} px high`);
    }
  }
  expect(found).toEqual([]);
});

test('@first every place, the theme and the settings are reached on the narrowest screen, and typing goes on', async ({ page }) => {
  await page.setViewportSize({ width: 195, height: 422 });
  await page.goto(`${DEMO}/live`);
  await isReady(page);
  for (const place of ['Bench', 'Plan', 'Runs', 'Compare', 'Sums', 'Help', 'Settings', 'Live']) {
    await page.getByRole('button', { name: /, all places$/ }).click();
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place }).click();
    await expect(page.getByRole('button', { name: `${place}, all places` })).toHaveAttribute('aria-expanded', 'false');
  }
  await page.getByRole('button', { name: /, all places$/ }).click();
  await page.getByRole('button', { name: /Dark theme|Light theme/ }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More keys' }).click();
  await page.getByRole('button', { name: 'mark', exact: false }).first().click();
  await page.getByRole('textbox', { name: /Reading of/ }).fill('50');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Due line', { exact: true })).toContainText('Logged at');
});

/** Names from right to left, in another script, and as long as may be, on runs of one device that is charged anew by each. */
const NAMES = [
  'شاحن سريع جدا للهاتف المحمول',
  '急速充電器の名前はとても長い',
  'Donaudampfschifffahrtsgesellschaftskapitaen charger of sixty ch',
  'W'.repeat(60),
];

test('@first names from right to left, in other scripts and of sixty letters tear nothing apart', async ({ page }) => {
  test.setTimeout(600_000);
  const device = { ...exampleHeader().device, name: 'هاتف تجريبي باسم طويل' };
  const runs = NAMES.map((name, index) =>
    runOf(
      `run-${index}`,
      { id: `c-${index}`, name: name.slice(0, 60), kind: 'adapter', watts: 20 },
      [0, 10, 20, 40, 80].map((minutes) => ({ minutes, percent: Math.min(100, 2 + minutes * (1 + index / 4)), watts: 18 })),
      [],
      { device, plugInAt: Date.UTC(2026, 9, 5 + index, 9) },
    ),
  );
  await page.goto('/settings');
  await isReady(page);
  await importFile(page, 'runs.json', bookOf(runs));
  const found: string[] = [];
  const ids = runs.map(({ header }) => header.id).join('.');
  for (const path of [
    '/runs',
    '/runs/run-0',
    `/compare?runs=${ids}`,
    `/compare?show=bars&runs=${ids}`,
    `/compare?show=matrix&runs=${ids}`,
    `/compare?show=verdict&runs=${ids}`,
  ]) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(path);
    await isReady(page);
    await expect(page.getByText('Opening')).toHaveCount(0);
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await page.waitForTimeout(120);
      for (const each of await troubles(page)) found.push(`${path} at ${width} × ${height}: ${each}`);
    }
  }
  expect(found).toEqual([]);
});
