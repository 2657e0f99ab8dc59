import { execFileSync } from 'node:child_process';
import { copyFileSync, readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import MarkdownIt from 'markdown-it';
import { bookOf, DEMO, doMore, exportBy, finished, importFile, isReady } from './person';

/** What is published of runs: written up at once, moved and changed by hand, out in every form, and corrected when its ink changes. */

const block = (page: Page, id: string) => page.locator(`#block-${id}`);
const isWritten = (page: Page) => expect(page.getByRole('button', { name: 'Export', exact: true })).toBeEnabled();
/** Rows of a table as they stand: names, figures and their margins, without blanks. */
const cellsOf = async (page: Page, part: string): Promise<string[]> =>
  (await page.locator(`${part} table tbody tr :is(th, td)`).allInnerTexts()).map((text) => text.replace(/\s+/g, ''));

test('@piece a study is written up at once, and says the same as a page, as Markdown, on paper and aloud', async ({ page, browser }) => {
  await page.goto(`${DEMO}/plan/saltmarsh-chargers`);
  await page.getByRole('button', { name: 'Write it up' }).click();
  await expect(page).toHaveURL(/\/pieces\//);
  await isWritten(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Van chargers, round one');
  await expect(block(page, 'short')).toContainText('Fastest to full: Cobble 20, Quern 30 or Quern 65');
  const times = await cellsOf(page, '#block-times');
  const costs = await cellsOf(page, '#block-cost');
  expect(times.length).toBeGreaterThan(20);
  expect(times).toContain('57min±4min,meanof3');

  // A web page in one file: with the network off, nothing asked for from outside, nothing wrong with it.
  const html = await exportBy(page, 'Export', 'Web page');
  expect(html.name).toBe('van-chargers-round-one.html');
  const away = await browser.newContext({ offline: true });
  const read = await away.newPage();
  const asked: string[] = [];
  read.on('request', (request) => asked.push(request.url()));
  const saved = test.info().outputPath(html.name);
  copyFileSync(html.path, saved);
  await read.goto(pathToFileURL(saved).href);
  await expect(read).toHaveTitle('Van chargers, round one');
  expect(await cellsOf(read, 'section:has(> h2:text-is("Times and gains"))')).toEqual(times);
  expect(await cellsOf(read, 'section:has(> h2:text-is("What each costs"))')).toEqual(costs);
  await expect(read.locator('svg:visible')).toHaveCount(3);
  expect(asked.filter((url) => !/^(file|data):/.test(url))).toEqual([]);
  const fonts = await read.evaluate(async () => {
    await document.fonts.ready;
    return [...document.fonts].filter(({ status }) => status === 'loaded').length;
  });
  expect(fonts).toBeGreaterThanOrEqual(2);
  for (const scheme of ['light', 'dark'] as const) {
    await read.emulateMedia({ colorScheme: scheme });
    const { violations } = await new AxeBuilder({ page: read }).setLegacyMode().analyze();
    expect(violations.map(({ id, nodes }) => `${scheme}: ${id} ${nodes[0]?.html ?? ''}`)).toEqual([]);
  }
  await away.close();

  // Markdown parses to the same tables; its pictures lie beside it.
  const files = unzipSync(readFileSync((await exportBy(page, 'Export', 'Markdown')).path));
  await page.evaluate(() => undefined);
  const reader = await browser.newPage();
  await reader.setContent(new MarkdownIt().render(strFromU8(files['piece.md'] ?? new Uint8Array())));
  const told = (await reader.locator('h2:text-is("Times and gains") + table tbody tr :is(th, td)').allInnerTexts()).map((text) =>
    text.replace(/\s+/g, '').replace('·', ''),
  );
  expect(told).toEqual(times);
  for (const address of await reader.locator('img').evaluateAll((all) => all.map((each) => each.getAttribute('src') ?? '')))
    expect(strFromU8(files[address] ?? new Uint8Array())).toMatch(/^<svg/);
  await reader.close();
  const pictures = unzipSync(readFileSync((await exportBy(page, 'Export', 'Pictures')).path));
  expect(Object.keys(pictures).sort()).toEqual(['bars', 'curves', 'watts'].flatMap((id) => [`pictures/${id}.png`, `pictures/${id}.svg`]));
  expect(Buffer.from(pictures['pictures/curves.png'] ?? []).toString('latin1', 1, 4)).toBe('PNG');

  // On paper: the same figures, selectable, with pages that are numbered; and nothing that only acts.
  await expect
    .poll(() => page.evaluate(() => (window.dispatchEvent(new Event('beforeprint')), document.querySelectorAll('.print-page').length)))
    .toBe(1);
  const path = test.info().outputPath('piece.pdf');
  await page.pdf({ path, format: 'A4', preferCSSPageSize: true, tagged: true });
  const paper = execFileSync(process.env.PDF_TEXT || 'pdftotext', [path, '-'], { encoding: 'utf8' });
  const squeezed = paper.replace(/\s+/g, '');
  // A cell has its figure over its margin, so that the two are lines of their own.
  const parts = (await page.locator(':is(#block-times, #block-cost) table tbody :is(th, td span, td small)').allInnerTexts()).map((text) =>
    text.replace(/\s+/g, ''),
  );
  expect(parts.length).toBeGreaterThan(times.length);
  for (const part of parts) expect(squeezed).toContain(part);
  expect(paper).toMatch(/\b1 of \d/);
  expect(paper).not.toMatch(/Hide|Write it up|Nothing was corrected/);
  expect(execFileSync(process.env.PDF_TEXT?.replace(/pdftotext$/, 'pdfinfo') || 'pdfinfo', [path], { encoding: 'utf8' })).toMatch(
    /Tagged:\s+yes/,
  );
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));

  // Aloud.
  await page.getByRole('button', { name: 'Script' }).click();
  await expect(page.getByRole('article', { name: 'Script' })).toContainText('about 57 minutes, give or take 4 minutes');
  const script = readFileSync((await exportBy(page, 'Export', 'Script')).path, 'utf8');
  expect(script).toContain('[0:0');
  expect(script).toContain('Quern 30: gained in 15 minutes');
});

test('@long @piece blocks are moved and hidden by keys, by buttons and by drag, and tables show what is chosen', async ({ page }) => {
  await page.goto(`${DEMO}/pieces`);
  await page.getByRole('link', { name: 'Five chargers for the vans' }).click();
  await isWritten(page);
  const list = page.getByRole('navigation', { name: 'Blocks' });
  const order = () => list.locator('li').evaluateAll((all) => all.map((each) => (each as HTMLElement).dataset.block));
  await list.getByRole('button', { name: /^Curves/ }).focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(async () => (await order()).indexOf('curves')).toBe(3);
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(async () => (await order()).indexOf('curves')).toBe(2);
  await expect(list.getByRole('button', { name: /^Curves/ })).toBeFocused();
  await page.keyboard.press('h');
  await expect(list.getByRole('button', { name: /^Curves/ })).toContainText('hidden');
  await list.getByRole('button', { name: 'Move Cautions up' }).click();
  await expect.poll(async () => (await order()).indexOf('cautions')).toBe(10);
  // By drag: the last to the top.
  const [grip, first] = [list.locator('[data-block="repeat"] .grip'), list.locator('[data-block="short"]')];
  const to = await first.boundingBox();
  await grip.hover();
  await page.mouse.down();
  await page.mouse.move((to?.x ?? 0) + 20, (to?.y ?? 0) + 30, { steps: 8 });
  await page.mouse.move((to?.x ?? 0) + 20, (to?.y ?? 0) + 3, { steps: 8 });
  await page.mouse.up();
  await expect.poll(async () => (await order()).indexOf('repeat')).toBeLessThan(2);

  // Which figures, which setups, a heading and what stands beneath.
  await page.getByRole('button', { name: 'What Times and gains shows' }).click();
  await block(page, 'times').getByLabel('Heading').fill('How long');
  await block(page, 'times').getByLabel('What stands beneath it').fill('By hand, each five minutes.');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('heading', { name: 'How long' })).toBeVisible();
  await expect(block(page, 'times')).toContainText('By hand, each five minutes.');
  await page.reload();
  await isWritten(page);
  await expect(block(page, 'curves')).toHaveClass(/hidden/);
  await expect(page.getByRole('heading', { name: 'How long' })).toBeVisible();
});

test('@long @piece an edit is kept through new data, the figure in it is marked, and what was published is corrected', async ({ page }) => {
  const [fast, slow] = [
    [2, 30, 45, 55, 60, 66, 72, 78, 81, 86, 90, 94, 97, 100],
    [2, 12, 22, 32, 42, 52, 62, 72, 82, 92, 96, 98, 99, 99, 100],
  ];
  await page.goto('/');
  await importFile(page, 'book.json', bookOf([finished('quick', fast), finished('slow', slow)]));
  await page.goto('/compare?runs=quick.slow&level=80');
  await page.getByRole('button', { name: 'Write it up' }).click();
  await isWritten(page);
  const address = page.url();
  const short = block(page, 'short');
  const before = (await short.locator('.figure').first().innerText()).trim();
  const drawn = await block(page, 'curves').locator('table').textContent();

  // One's own words around a figure; the figure stays one.
  await page.getByRole('button', { name: 'Edit The short answer' }).click();
  const editor = page.getByRole('textbox', { name: 'The short answer, in your own words' });
  await expect(editor).toBeFocused();
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('Hear, hear. <b>');
  await page.keyboard.press('Control+Enter');
  await expect(short).toContainText('Hear, hear. <b>');
  await expect(short.locator('b')).toHaveCount(0);
  await page.reload();
  await isWritten(page);
  await expect(short).toContainText('Hear, hear. <b>');
  await expect(page.getByText('has changed')).toHaveCount(0);
  await doMore(page, 'Mark as published');
  await expect(page.getByText(/^published /)).toBeVisible();

  // A reading is struck: the words stay, what changed in them is marked, and readers are told.
  await page.goto('/runs/quick');
  await page
    .getByRole('region', { name: 'Ink' })
    .getByRole('button', { name: /Strike the reading at 40 min/ })
    .click();
  await page.getByLabel('Why?').fill('read beside it');
  await page.getByRole('button', { name: 'Strike it' }).click();
  await expect(page.getByText('struck: read beside it')).toBeVisible();
  await page.goto(address);
  await isWritten(page);
  await expect(short).toContainText('Hear, hear. <b>');
  await expect(short.locator('.figure').first()).toHaveText(before);
  expect(await block(page, 'curves').locator('table').textContent()).not.toBe(drawn);
  await expect(page.getByRole('navigation', { name: 'Blocks' }).getByRole('button', { name: /^The short answer/ })).toContainText(
    'look again',
  );
  await short.locator('.figure.changed').first().click();
  await expect(short.getByRole('button', { name: 'Show working' })).toBeVisible();
  await short.getByRole('button', { name: 'Show working' }).click();
  await expect(short.getByRole('link', { name: 'run 1' })).toBeVisible();
  const use = short.getByRole('button', { name: /^Use / });
  const now = (await use.innerText()).replace('Use ', '');
  expect(now).not.toBe(before);
  await use.click();
  await expect(short.locator('.figure').first()).toHaveText(now);
  const corrections = block(page, 'corrections');
  await expect(corrections).toContainText(/time to 80 % of Charger quick was given as .*; a reading was struck; it is /);
  // The line is one's own to word; it is never silent.
  await expect(page.getByRole('button', { name: 'Hide Corrections' })).toHaveCount(0);
  const line = page.locator('.corrections').getByRole('textbox').first();
  await line.fill('We misread one level; the time to 80 % was a little off.');
  await page.keyboard.press('Tab');
  await expect(corrections).toContainText('We misread one level');
  const count = await corrections.locator('li').count();
  await page.reload();
  await isWritten(page);
  await expect(corrections.locator('li')).toHaveCount(count);
  const { path } = await exportBy(page, 'Export', 'Script');
  expect(readFileSync(path, 'utf8')).toContain('We misread one level');

  // A run that is discarded: the block says so, the rest stands, and nothing is corrected unasked.
  await page.goto('/runs/slow');
  await doMore(page, 'Discard');
  await expect(page.getByText(/This run was discarded on/)).toBeVisible();
  await page.goto(address);
  await expect(page.getByRole('alert')).toContainText('One of its runs is not in this logbook any more');
  await expect(short).toContainText('Hear, hear. <b>');
  await expect(corrections.locator('li')).toHaveCount(count);
  await page.getByRole('button', { name: 'Write it without' }).click();
  await expect(corrections).toContainText('told no more');

  // It is in the list, and in the logbook.
  await page.goto('/pieces');
  await expect(page.getByRole('listitem').filter({ hasText: 'corrected' })).toHaveCount(1);
  await page.goto('/runs');
  await isReady(page);
  const book = JSON.parse(readFileSync((await exportBy(page, 'Export the logbook', 'Logbook')).path, 'utf8')) as {
    pieces: { name: string }[];
  };
  expect(book.pieces).toHaveLength(1);
});
