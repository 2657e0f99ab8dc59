import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { bookOf, bringShelf, choose, DEMO, finished, importFile, isReady, log, runOf, SCREENS, startRun, stopRun } from './person';
import { exampleHeader } from '../core/ink/example';

/** Out by hand: what is copied is what stands on the screen, figure by figure. */

test.beforeEach(async ({ context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
});

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** What lies on the clipboard, as a spreadsheet and as an editor take it. */
async function clipboard(page: Page): Promise<{ text: string; html: string }> {
  return page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const read = async (type: string) => (item?.types.includes(type) ? (await item.getType(type)).text() : '');
    return { text: await read('text/plain'), html: await read('text/html') };
  });
}
const cellsIn = (text: string) => text.split('\n').map((line) => line.split('\t'));

test('@hand a comparison is copied with ranks, bounds and units in columns of their own, and says what the screen says', async ({
  page,
}) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  const table = page.getByRole('region', { name: 'Figures side by side' });
  await expect(table.getByRole('row').nth(1)).toBeVisible();
  await press(page, 'Copy the figures');
  await expect(page.getByRole('status').filter({ hasText: 'Copied' })).toBeVisible();
  const { text, html } = await clipboard(page);
  const [heads = [], ...rows] = cellsIn(text);
  expect(rows.length).toBe((await table.getByRole('row').count()) - 1);
  // Each cell of the screen is told in its column, and its rank stands alone.
  const figures = heads.flatMap((head) => (head.endsWith(': unit') ? [head.slice(0, -': unit'.length)] : []));
  for (const [at, row] of rows.entries()) {
    const shown = table.getByRole('row').nth(at + 1);
    await expect(shown.getByRole('rowheader')).toContainText(row[0] ?? '?');
    for (const [column, figure] of figures.entries()) {
      const cell = await shown
        .getByRole('cell')
        .nth(column + 1)
        .innerText();
      const of = (what: string) => row[heads.indexOf(`${figure}: ${what}`)] ?? '';
      const told = of('as told').split(', ')[0] ?? '';
      if (told !== '') expect(cell.replaceAll('\n', ' ')).toContain(told);
      if (of('rank')) expect(cell).toMatch(new RegExp(`^rank ${of('rank')}: `));
      const [value, lower, upper] = [row[heads.indexOf(figure)] ?? '', of('lower'), of('upper')];
      if (value !== '')
        expect([lower, value, upper].map(Number)).toEqual([lower, value, upper].map(Number).sort((one, other) => one - other));
    }
  }
  // The same as HTML, parsed by the browser.
  const parsed = await page.evaluate((markup) => {
    const found = new DOMParser().parseFromString(markup, 'text/html');
    return [...found.querySelectorAll('tr')].map((row) => [...row.children].map((cell) => cell.textContent));
  }, html);
  expect(parsed).toEqual(cellsIn(text));
  // What a hand selects and copies reads as a rank too, never as 321 %.
  const selected = await table
    .getByRole('row')
    .nth(1)
    .evaluate((row) => {
      const selection = getSelection();
      selection?.selectAllChildren(row);
      return selection?.toString() ?? '';
    });
  expect(selected).toMatch(/rank \d=?: \d/);
});

test('@hand the answer, a sentence, the whole verdict, a matrix and bars are copied as they stand, by one key too', async ({ page }) => {
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  await press(page, 'Copy the answer in short');
  const answer = page.getByRole('region', { name: 'In short' });
  for (const line of (await clipboard(page)).text.split('\n')) await expect(answer).toContainText(line);
  await press(page, 'Bars');
  await press(page, 'Copy the bars as a table');
  expect(cellsIn((await clipboard(page)).text)[0]?.slice(0, 2)).toEqual(['Setup', expect.stringMatching(/: rank$/)]);
  await press(page, 'Matrix');
  await press(page, 'Copy the matrix');
  expect(cellsIn((await clipboard(page)).text)[0]?.slice(0, 2)).toEqual(['Device', 'Charger']);
  await press(page, 'Verdict');
  await press(page, 'Copy the whole verdict');
  const { text } = await clipboard(page);
  for (const title of await page.getByRole('region', { name: 'Verdict in full' }).getByRole('heading', { level: 2 }).allInnerTexts())
    expect(text).toContain(`\n${title}: `);
  // By one key: what is pointed at, else the first that is seen.
  await page.getByRole('listitem').filter({ hasText: 'Overnight' }).hover();
  await page.keyboard.press('Shift+C');
  await expect(page.getByRole('status').filter({ hasText: 'Copied' }).first()).toBeVisible();
  expect((await clipboard(page)).text).toMatch(/^Overnight: /);
});

test('@hand tables of a run, its figures, the list, a shelf and a plan are copied without their buttons', async ({ page }) => {
  await bringShelf(page, ['Sedge 5'], ['Cobble 20', 'Quern 30']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '10');
  await log(page, '20 18.2w');
  await stopRun(page, 'Window over');
  await press(page, 'Copy the ink');
  const ink = cellsIn((await clipboard(page)).text);
  expect(ink[0]?.[0]).toContain('Seen at');
  expect(ink.flat().join(' ')).not.toMatch(/Strike|Correct/);
  await press(page, 'Copy all figures');
  expect(cellsIn((await clipboard(page)).text)[0]).toEqual(['Group', 'Figure', 'Value', 'What is to be known of it']);
  await page.goto('/runs');
  await press(page, 'Copy the list');
  expect(cellsIn((await clipboard(page)).text)[1]?.slice(0, 2)).toEqual(['Sedge 5', 'Cobble 20']);
  await page.goto('/bench?shelf=charger');
  await press(page, 'Copy the shelf');
  const shelf = cellsIn((await clipboard(page)).text);
  expect(shelf[0]?.[0]).toBe('Name');
  expect(shelf[0]).not.toContain('Actions');
  expect(shelf.slice(1).map(([name]) => name)).toEqual(['Cobble 20; adapter', 'Quern 30; adapter']);
});

/** Fills the page that is printed. What fills it is fetched soon after the start. */
const fillPaper = (page: Page) =>
  expect
    .poll(() => page.evaluate(() => (window.dispatchEvent(new Event('beforeprint')), document.querySelectorAll('.print-page').length)))
    .toBe(1);

/** A screen as it is printed: its text, page after page. */
async function printed(page: Page, name: string): Promise<string[]> {
  await fillPaper(page);
  const path = test.info().outputPath(`${name}.pdf`);
  await page.pdf({ path, format: 'A4', preferCSSPageSize: true });
  const text = execFileSync(process.env.PDF_TEXT || 'pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
  return text.split('\f').slice(0, -1);
}

test('@hand each screen is printed whole, light, with its date and page numbers, and without its keys', async ({ page }) => {
  test.setTimeout(300_000);
  const runs = Array.from({ length: 300 }, (_, index) =>
    finished(`run-${index}`, [5, 40, 80, 100], Date.UTC(2026, 9, 1 + (index % 28), index % 24)),
  );
  await page.goto('/settings');
  await isReady(page);
  await page.emulateMedia({ colorScheme: 'dark' });
  await importFile(page, 'runs.json', bookOf(runs));
  await page.goto('/runs');
  await isReady(page);
  await expect(page.getByText('300 runs')).toBeVisible();
  const list = await printed(page, 'list');
  expect(list.length).toBeGreaterThan(4);
  expect(list.join('\n').match(/Finished runs|Device +Charger/g)?.length).toBeGreaterThanOrEqual(list.length - 1);
  expect(list.join('\n').match(/Sedge 5/g)?.length).toBe(300);
  expect(list[0]).toContain('Inkpath Log, printed ');
  expect(list[1]).toContain(`2 of ${list.length}`);
  expect(list.join('\n')).not.toMatch(/Import a file|Pick all found|Export the logbook/);
  await page.getByRole('link').filter({ hasText: 'Sedge 5' }).first().click();
  await expect(page.getByRole('button', { name: 'Copy the ink' })).toBeVisible();
  const run = (await printed(page, 'run')).join('\n');
  for (const said of ['Ink, as it was seen', 'When it reached', 'since plug-in', 'charge']) expect(run).toContain(said);
  expect(run).not.toMatch(/Strike|Compare\n|Log\n/);
});

test('@long @hand names of 60 letters are printed whole, in a comparison, a run and the list', async ({ page }) => {
  const name = (from: string) => `${from} ${'with a name that goes on for as long as names may be '.repeat(2)}`.slice(0, 60).trim();
  const chargers = ['Aster', 'Birch', 'Clover'].map((from, index) => ({
    id: `c-${index}`,
    name: name(from),
    kind: 'adapter' as const,
    watts: 20 + index,
  }));
  const device = { ...exampleHeader().device, name: name('Sedge') };
  const rows = (speed: number) => [0, 10, 20, 30].map((minutes) => ({ minutes, percent: 2 + minutes * speed, watts: 20 }));
  const runs = chargers.flatMap((charger, index) => [runOf(`run-${index}`, charger, rows(1 + index / 2), [], { device })]);
  await page.goto('/settings');
  await isReady(page);
  await importFile(page, 'runs.json', bookOf(runs));
  await page.goto('/runs');
  await isReady(page);
  const isWhole = (paper: string, said: string) => {
    // A name that is wrapped stands on several lines, beside what stands in other cells.
    const words = said.split(' ').filter((word) => word.length > 2);
    for (const word of words) expect(paper).toContain(word);
  };
  const list = (await printed(page, 'long-list')).join('\n');
  for (const { name: each } of chargers) isWhole(list, each);
  await page.goto(`/compare?runs=${runs.map(({ header }) => header.id).join('.')}`);
  await isReady(page);
  await expect(page.getByRole('region', { name: 'Figures side by side' })).toBeVisible();
  // On the screen a long name leaves the title its room; so does all that can be done, in a window half as wide.
  for (const [width, room] of [
    [780, 150],
    [1280, 200],
  ] as const) {
    await page.setViewportSize({ width, height: 800 });
    const title = page.getByRole('heading', { level: 1 });
    await expect.poll(() => title.evaluate(({ clientWidth }) => clientWidth)).toBeGreaterThan(room);
  }
  const pages = await printed(page, 'long-compare');
  for (const { name: each } of chargers) isWhole(pages.join('\n'), each);
  // What is cut off at the edge of a page is in its text, but not on it: every word of a row lies between its edges.
  const cut = await page.evaluate(() => {
    window.dispatchEvent(new Event('beforeprint'));
    const wide = [...document.querySelectorAll('.print-page td, .print-page th, .print-page p')].filter(
      (each) => each.scrollWidth > each.clientWidth + 1 && getComputedStyle(each).overflow === 'hidden',
    );
    window.dispatchEvent(new Event('afterprint'));
    return wide.map((each) => each.textContent);
  });
  expect(cut).toEqual([]);
  await page.goto(`/runs/${runs[0]?.header.id ?? ''}`);
  await expect(page.getByRole('button', { name: 'Copy the ink' })).toBeVisible();
  isWhole((await printed(page, 'long-run')).join('\n'), device.name);
});

test('@long @hand a comparison with its verdict, a study, its calendar, a shelf and a spot check are printed with what stands on them', async ({
  page,
}) => {
  test.setTimeout(300_000);
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  const answer = (await page.getByRole('region', { name: 'In short' }).locator('p').first().innerText()).split(' ').slice(0, 4).join(' ');
  const figures = await page.getByRole('region', { name: 'Figures side by side' }).locator('.figure > span:last-child').allInnerTexts();
  const compared = (await printed(page, 'compare')).join('\n');
  // Every figure of the screen stands on paper.
  expect(figures.length).toBeGreaterThan(10);
  for (const figure of figures) expect(compared.replace(/\s+/g, '')).toContain(figure.replace(/\s+/g, ''));
  for (const said of [answer, 'Gained in', 'rank 1', 'Quern 30', 'since plug-in']) expect(compared.replace(/\s+/g, ' ')).toContain(said);
  await press(page, 'Verdict');
  const verdict = (await printed(page, 'verdict')).join('\n').replace(/\s+/g, ' ');
  for (const said of [answer, 'Overnight', 'Worth', 'on the line nothing is both cheaper']) expect(verdict).toContain(said);
  await page.goto(`${DEMO}/plan`);
  await page.getByRole('link', { name: 'Van chargers, round one' }).first().click();
  await expect(page.getByRole('button', { name: 'Copy the matrix' })).toBeVisible();
  const study = (await printed(page, 'study')).join('\n');
  for (const said of ['The matrix', 'Coarse then fine good for', 'untested 0 of 2']) expect(study).toContain(said);
  expect(study).not.toContain('leave out the rest');
  await page.goto(`${page.url()}/calendar`);
  await expect(page.getByRole('heading', { name: /^Calendar of/ })).toBeVisible();
  expect((await printed(page, 'calendar')).join('\n')).toContain('Calendar of Van chargers, round one');
  await page.goto(`${DEMO}/runs/saltmarsh-12`);
  await expect(page.getByRole('region', { name: 'Compatibility' })).toBeVisible();
  const spot = (await printed(page, 'spot')).join('\n');
  for (const said of ['What works with Sedge 5', 'Sluice 40', 'Puddle']) expect(spot).toContain(said);
  await page.goto(`${DEMO}/bench?shelf=charger`);
  await isReady(page);
  const shelf = (await printed(page, 'shelf')).join('\n');
  for (const name of ['Cobble 12', 'Quern 65', 'Puddle']) expect(shelf).toContain(name);
  expect(shelf).not.toContain('Duplicate');
});

test('@hand what a figure gives its width and its pen its colour has both on paper, and a lane lies clear of its strip', async ({
  page,
}) => {
  const heard: string[] = [];
  page.on('console', (message) => message.type() === 'error' && heard.push(message.text()));
  const bars = (under: string) =>
    page.locator(`${under} .track > .bar`).evaluateAll((all) =>
      all.map((bar) => ({
        share: Math.round((100 * bar.clientWidth) / (bar.parentElement?.clientWidth ?? 0)),
        colour: getComputedStyle(bar).color,
      })),
    );
  await page.goto(DEMO + SCREENS.bars);
  await isReady(page);
  await expect.poll(async () => (await bars('#place')).length).toBeGreaterThan(5);
  const seen = await bars('#place');
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await expect.poll(() => bars('#place')).not.toEqual(seen);
  await fillPaper(page);
  await page.emulateMedia({ media: 'print' });
  const onPaper = await bars('.print-page');
  expect(onPaper.map(({ colour }) => colour)).toEqual(seen.map(({ colour }) => colour));
  for (const [index, { share }] of onPaper.entries()) expect(Math.abs(share - (seen[index]?.share ?? 0))).toBeLessThanOrEqual(2);

  await page.emulateMedia({ media: 'screen' });
  await page.goto(DEMO + SCREENS.run);
  await isReady(page);
  await fillPaper(page);
  await page.emulateMedia({ media: 'print' });
  const [strip, when] = [page.locator('.print-page .lane .strip'), page.locator('.print-page .lane .when')];
  const [drawn, beneath] = [await strip.boundingBox(), await when.boundingBox()];
  expect(drawn?.height).toBeGreaterThan(100);
  expect(beneath?.y).toBeGreaterThanOrEqual((drawn?.y ?? 0) + (drawn?.height ?? 0));
  expect(heard).toEqual([]);
});

/** What the picture in hand is as SVG. */
async function savedSvg(page: Page): Promise<string> {
  const saved = page.waitForEvent('download');
  await page.getByRole('dialog').getByRole('button', { name: 'Save as SVG' }).click();
  return readFileSync(await (await saved).path(), 'utf8');
}

/** By how much two SVGs differ as Chromium draws them, with the type of the page: the mean over all pixels, as a share of black to white. */
const differenceOf = (page: Page, one: string, other: string) =>
  page.evaluate(
    async ([first = '', second = '']) => {
      // An image knows no type of the page: what it needs is within it.
      const faces = await Promise.all(
        [...document.styleSheets]
          .flatMap((sheet) => [...sheet.cssRules])
          .filter((rule) => rule instanceof CSSFontFaceRule && rule.cssText.includes('latin-wght-normal'))
          .map(async (rule) => {
            const [, url = ''] = /url\("([^"]+)"\)/.exec(rule.cssText) ?? [];
            const bytes = new Uint8Array(await (await fetch(new URL(url, location.href))).arrayBuffer());
            return rule.cssText.replace(/url\("[^"]+"\)/g, `url("data:font/woff2;base64,${btoa(String.fromCharCode(...bytes))}")`);
          }),
      );
      const pixelsOf = async (markup: string) => {
        const image = new Image();
        const styled = markup.replace('<title>', `<style>${faces.join('')}</style><title>`);
        image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(styled)}`;
        await image.decode();
        const canvas = document.createElement('canvas');
        [canvas.width, canvas.height] = [960, 540];
        const ctx = canvas.getContext('2d');
        ctx?.drawImage(image, 0, 0, 960, 540);
        return ctx?.getImageData(0, 0, 960, 540).data ?? new Uint8ClampedArray();
      };
      const [left, right] = [await pixelsOf(first), await pixelsOf(second)];
      let sum = 0;
      for (const [index, value] of left.entries()) sum += Math.abs(value - (right[index] ?? 0));
      return sum / Math.max(1, left.length) / 255;
    },
    [one, other],
  );

test('@hand a strip and bars are saved as pictures, in each shape, as they stand', async ({ page }) => {
  test.setTimeout(240_000);
  await page.goto(`${DEMO}/compare`);
  await isReady(page);
  await press(page, 'Van chargers, round one');
  for (const picture of ['Curves', 'Bars']) {
    await press(page, picture);
    await press(page, picture === 'Bars' ? 'Picture of the bars' : 'Picture');
    const sheet = page.getByRole('dialog');
    for (const [shape, width, height] of [
      ['square, 1080 × 1080', 1080, 1080],
      ['16:9, 1920 × 1080', 1920, 1080],
      ['16:9, 3840 × 2160', 3840, 2160],
      ['9:16, 1080 × 1920', 1080, 1920],
    ] as const) {
      await choose(page, 'Shape', shape);
      const png = page.waitForEvent('download');
      await sheet.getByRole('button', { name: 'Save as PNG' }).click();
      const bytes = readFileSync(await (await png).path());
      // The size stands in the head of a PNG (ISO/IEC 15948, 11.2.2).
      expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([width, height]);
    }
    await sheet.getByLabel('dark').check();
    const svg = page.waitForEvent('download');
    await sheet.getByRole('button', { name: 'Save as SVG' }).click();
    const markup = readFileSync(await (await svg).path(), 'utf8');
    const found = await page.evaluate((text) => {
      const parsed = new DOMParser().parseFromString(text, 'image/svg+xml');
      const image = document.createElement('div');
      image.innerHTML = text;
      document.body.append(image);
      const texts = [...image.querySelectorAll('text')];
      const box = image.querySelector('svg')?.getBoundingClientRect();
      const isWithin = texts.every((each) => {
        const at = each.getBoundingClientRect();
        return (
          box !== undefined && at.left >= box.left - 1 && at.right <= box.right + 1 && at.top >= box.top - 1 && at.bottom <= box.bottom + 1
        );
      });
      const words = texts.map((each) => each.textContent);
      image.remove();
      return { error: parsed.querySelector('parsererror')?.textContent, words, isWithin };
    }, markup);
    expect(found.error).toBeUndefined();
    expect(found.isWithin).toBe(true);
    expect(found.words.join(' ')).toContain('7 runs of Sedge 5');
    expect(found.words.join(' ')).toContain('Quern 30');
    await sheet.getByRole('button', { name: 'Close' }).click();
  }
  // A table, a matrix and a scatter leave as pictures, too.
  for (const [picture, of, said] of [
    ['Curves', 'Picture of the figures', 'Time to 80 %'],
    ['Matrix', 'Picture of the matrix', 'Quern 65'],
    ['Verdict', /^Picture of price against/, 'price of what is not at home yet'],
  ] as const) {
    await press(page, picture);
    await page.getByRole('button', { name: of }).first().click();
    const svg = page.waitForEvent('download');
    await page.getByRole('dialog').getByRole('button', { name: 'Save as SVG' }).click();
    expect(readFileSync(await (await svg).path(), 'utf8')).toContain(said);
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  }
  // So do curves by level, and what each is ahead; no word is left out of them that the screen names.
  await press(page, 'Curves');
  for (const [view, of, said] of [
    ['By level', /by level$/, 'watts at the cable'],
    ['Ahead of the baseline', /what each is ahead$/, '% ahead of'],
  ] as const) {
    await press(page, view);
    await page.getByRole('button', { name: of }).click();
    const markup = await savedSvg(page);
    for (const word of [said, 'Quern 30', 'Cobble 20']) expect(markup).toContain(word);
    // As outlines it is the same picture, without text.
    await page.getByRole('dialog').getByLabel('outlines').check();
    const outlined = await savedSvg(page);
    expect(outlined).not.toContain('<text');
    expect(await differenceOf(page, markup, outlined)).toBeLessThan(0.02);
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  }
  // The picture itself is copied, too.
  await press(page, 'Over each other');
  await press(page, 'Curves');
  await press(page, 'Picture');
  await press(page, 'Copy the picture');
  await expect(page.getByRole('status').filter({ hasText: 'Copied' })).toBeVisible();
  expect(await page.evaluate(async () => (await navigator.clipboard.read())[0]?.types)).toEqual(['image/png']);
});
