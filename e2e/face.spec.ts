import { expect, test, type Page } from '@playwright/test';
import type { StoredRun } from '../core/exchange';
import { bookOf, bringShelf, choose, DEMO, doMore, finished, importFile, isReady, log, SCREENS, stopRun } from './person';

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

test('@long @face three hundred runs are sorted, filtered, tagged, discarded and put back', async ({ page }) => {
  await importFile(page, 'runs.json', bookOf(many()));
  await page.goto('/runs');
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

test('@face the due line takes one row, and leaves the entry room for a dozen characters in larger type', async ({ page }) => {
  const line = page.getByLabel('Due line');
  const height = async () => (await line.boundingBox())?.height ?? 0;
  await page.goto(`${DEMO}/live`);
  await expect(page.getByRole('article')).toBeVisible();
  expect(await height()).toBeLessThanOrEqual(64);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await height()).toBeLessThanOrEqual(96);
  // With type twice as large a dozen characters of the entry are still seen.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.evaluate(() => (document.documentElement.style.fontSize = '32px'));
  const field = page.getByRole('textbox', { name: /^Reading of/ });
  expect(await field.evaluate((input) => input.clientWidth / parseFloat(getComputedStyle(input).fontSize))).toBeGreaterThan(7);
});

test('@long @face eighty chargers are searched, picked all, none or as found, and nothing is ticked at first', async ({ page }) => {
  const chargers = Array.from({ length: 80 }, (_, index) => `${index % 2 ? 'Cobble' : 'Quern'} ${index + 1}`);
  await bringShelf(page, ['Sedge 5'], chargers);
  await page.goto('/plan');
  await page.getByRole('button', { name: 'Begin a study' }).click();
  const group = page.getByRole('group', { name: 'Chargers', exact: true });
  await expect(group.getByRole('checkbox', { checked: true })).toHaveCount(0);
  await group.getByLabel('Find in Chargers').fill('cobble 1');
  await page.getByRole('button', { name: 'All Chargers found' }).click();
  // 10, 12, 14, 16 and 18: those with odd numbers are Querns.
  await expect(group.getByText('5 of 80', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'None of Chargers' }).click();
  await group.getByLabel('Find in Chargers').fill('');
  await page.getByRole('button', { name: 'All Chargers', exact: true }).click();
  await expect(group.getByText('80 of 80', { exact: true })).toBeVisible();

  await page.goto('/live/spot');
  await expect(page.getByRole('checkbox', { checked: true })).toHaveCount(0);
  await page.getByLabel('Find in Chargers').fill('Quern 7');
  await page.getByLabel('Quern 79', { exact: true }).check();
  await page.getByLabel('Quern 7', { exact: true }).check();
  await page.getByRole('button', { name: 'Try 2 chargers' }).click();
  // In the order in which they were picked.
  await expect(page.getByRole('list', { name: 'Sources to try' }).getByRole('listitem').first()).toContainText('Quern 79');
});

test('@long @face two names typed in place start a run, and it is run again from its page', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-10-05T12:00:00Z') });
  await page.goto('/live');
  await page.getByRole('link', { name: 'Start a run' }).first().click();
  for (const [label, name] of [
    ['Device', 'Plover 2 of the boat'],
    ['Charger', 'the old brick'],
  ] as const) {
    await page.getByRole('combobox', { name: label }).fill(name);
    await page.getByRole('option', { name: `Add “${name}” as a new ${label.toLowerCase()}` }).click();
  }
  await page.getByLabel('Level at plug-in').fill('20');
  await page.getByRole('button', { name: 'Ready' }).click();
  await expect(page.getByRole('button', { name: 'Plug in now' })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('article', { name: 'Plover 2 of the boat on the old brick' })).toBeVisible();
  await page.clock.fastForward('05:00');
  await log(page, '24');
  await stopRun(page, 'Full');
  await page.getByRole('link', { name: 'Runs' }).click();
  await rows(page).getByRole('link').first().click();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('link', { name: 'Run this again' }).click();
  await expect(page.getByRole('combobox', { name: 'Device' })).toHaveValue('Plover 2 of the boat');
  await expect(page.getByRole('combobox', { name: 'Charger' })).toHaveValue('the old brick');
  await expect(page.getByRole('heading', { name: /^As in Plover 2/ })).toBeVisible();
  // Discarded from its page, it says so there, and comes back from there.
  await page.goBack();
  await doMore(page, 'Discard');
  await expect(page.getByText(/This run was discarded on/)).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(page.getByText(/This run was discarded on/)).toHaveCount(0);
});

test('@long @face °F, a comma and dates as chosen are everywhere', async ({ page }) => {
  await page.goto(`${DEMO}/live`);
  await expect(page.getByRole('article')).toContainText('35.8');
  await page.getByRole('link', { name: 'Settings' }).click();
  await choose(page, 'Temperatures in', '°F');
  await choose(page, 'Decimals after', 'a comma: 26,1');
  await choose(page, 'Dates', 'year first: 2026-11-26');
  await page.getByLabel('Sign of your currency').fill('€');
  await expect(page.getByText('26,1 W · 98,6 °F · €19,50 · 2026-11-26, 14:05')).toBeVisible();
  await page.goto(`${DEMO}/live`);
  await expect(page.getByRole('article')).toContainText('96,4');
  await page.goto(`${DEMO}/bench?shelf=charger`);
  await expect(page.getByRole('row', { name: /Cobble 12/ })).toContainText(/€\d/);
  await page.goto(`${DEMO}/live/footage`);
  await expect(page.getByLabel('Plugged in at')).toHaveAttribute('placeholder', 'e.g. 2026-11-26 14:05');
  const labels = /[\d.-]*V|⎓[\d.]+A|BC 1\.2|USB [23]\.\d/g;
  for (const [name, path] of Object.entries({ ...SCREENS, spot: '/runs/saltmarsh-12' })) {
    if (name === 'help') continue;
    await page.goto(DEMO + path);
    await isReady(page);
    // Labels stay as they were printed.
    const text = (await page.locator('main').innerText()).replace(labels, '');
    expect(text.match(/.{0,30}(\d\.\d|°C).{0,20}/g) ?? [], name).toEqual([]);
  }
});

test('@face with forced colours the chosen tab and the focus are seen; the entry is one key away', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await page.goto(`${DEMO}/runs`);
  await isReady(page);
  const outline = (of: ReturnType<Page['locator']>) => of.evaluate((element) => getComputedStyle(element).outlineStyle);
  expect(await outline(page.getByRole('link', { name: 'Runs', exact: false }).and(page.locator('[aria-current=page]')))).toBe('solid');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to content' })).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  const entry = page.getByRole('textbox', { name: /^Reading of/ });
  await expect(entry).toBeFocused();
  // Bars and shading are seen by what the system draws with, and lines by pens that stand out from its ground.
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await page.getByRole('button', { name: 'Van chargers, round one', exact: true }).click();
  const ground = await page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  await page.getByRole('button', { name: 'Bars', exact: true }).click();
  expect(
    await page
      .locator('.bar')
      .first()
      .evaluate((bar) => getComputedStyle(bar).backgroundColor),
  ).not.toBe(ground);
  await page.getByRole('button', { name: 'Matrix', exact: true }).click();
  const edges = page.locator('.matrix td:not(.open)');
  const wide = await edges.evaluateAll((all) => all.map((cell) => Number.parseFloat(getComputedStyle(cell).borderInlineStartWidth)));
  expect(new Set(wide).size).toBeGreaterThan(2);
  await page.goto(`${DEMO}/runs`);
  await isReady(page);
  await page.getByRole('link', { name: 'Skip to the entry line' }).press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Shift+E');
  await expect(entry).toBeFocused();
});
