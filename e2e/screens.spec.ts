import { expect, test, type Page } from '@playwright/test';
import { look } from './look';
import { DEMO, entry, isReady, SCREENS } from './person';
import { lasting, SIZES } from './troubles';

/**
 * Every screen is opened once, and looked at in all that must hold on each: its title, its words at every width, in larger type too, the entry line on a
 * phone, and what axe finds in both themes.
 */

/** Walks side by side. */
const HANDFULS = 3;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

async function lookAt(page: Page, name: string): Promise<string[]> {
  const found: string[] = [];
  const read = async (where: string) => {
    for (const each of await lasting(page)) found.push(`${name} ${where}: ${each}`);
  };
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    await read(`at ${width} × ${height}`);
    const line = await page.getByLabel('Due line', { exact: true }).boundingBox();
    if (height < 500 && (line?.height ?? 0) > 64) found.push(`${name} at ${width} × ${height}: the due line is ${line?.height} px high`);
    const strip = page.locator('.reader .paper, .lane .paper').first();
    const drawn = (await strip.count()) > 0 ? await strip.boundingBox() : undefined;
    if (drawn && drawn.height < 160) found.push(`${name} at ${width} × ${height}: the strip is ${drawn.height} px high`);
  }
  // What a person sets in the browser: type of 32 px where 16 px are usual.
  const session = await page.context().newCDPSession(page);
  await session.send('Page.enable');
  const typeOf = (standard: number) => session.send('Page.setFontSizes', { fontSizes: { standard, fixed: (standard * 13) / 16 } });
  await typeOf(32);
  for (const size of [DESK, PHONE]) {
    await page.setViewportSize(size);
    await read(`in type of 32 px at ${size.width} px`);
  }
  await typeOf(16);
  await session.detach();
  await expect(entry(page)).toBeInViewport();
  for (const theme of ['light', 'dark'] as const) {
    for (const size of [PHONE, DESK]) {
      await page.setViewportSize(size);
      await look(page, theme, `${name}, ${theme}, at ${size.width} px`);
    }
    await page.getByRole('button', { name: /^(Dark|Light) theme$/ }).click();
  }
  return found;
}

const all = Object.entries(SCREENS);
for (let handful = 0; handful < HANDFULS; handful += 1) {
  const some = all.filter((_screen, index) => index % HANDFULS === handful);
  test(`@screens @first nothing overlaps, is cut or is too wide, and axe finds nothing: ${some.map(([name]) => name).join(', ')}`, async ({
    page,
  }) => {
    test.setTimeout(600_000);
    const found: string[] = [];
    const titles = new Set<string>();
    for (const [name, path] of some) {
      await page.setViewportSize(DESK);
      await page.goto(DEMO + path);
      await isReady(page);
      await expect(page).toHaveTitle(/^.+ · Inkpath Log$/);
      titles.add((await page.title()).replace('● Reading due · ', ''));
      found.push(...(await lookAt(page, name)));
    }
    // Two comparisons may be of as many runs.
    expect(titles.size).toBeGreaterThanOrEqual(some.length - 1);
    expect(found).toEqual([]);
  });
}
