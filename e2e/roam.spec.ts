import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { readLogbook } from '../core/exchange';
import { seeded } from '../core/simulate';
import { PORTS } from '../server/serve';
import { browse, newProfile } from './browse';
import { bookOf, bringShelf, exportBy, finished, importFile, startRun } from './person';

/**
 * A walk at random: whatever a person can reach is pressed, filled in, pasted into, left and come back to, in two tabs, while the clock jumps and the
 * browser is killed. Sixty steps with every test run, and the seeds that found something; `npm run roam` goes further.
 */
const STEPS = Number(process.env.ROAM ?? 60);
const SEEDS = process.env.SEED ? [Number(process.env.SEED)] : [7];

const HERE = `http://127.0.0.1:${PORTS.test}`;

/** What nobody thought of. */
const ODD = [
  ...['', ' ', '0', '-1', '00012', '1e9', '99999999999999', '4,5', '12.5', '80', '100', '1h 20', '25:61', '2026-02-31', '٣٤', '½'],
  ...[
    '<b>bold</b>',
    '=1+1',
    '"quoted; and\tcut"',
    'Quern 30',
    'שלום עולם',
    '💡🔋',
    'a'.repeat(300),
    'Donaudampfschifffahrtsgesellschaft',
    "O'Brien",
  ],
];
const KEYS = [
  ...'abcdefghijklmnopqrstuvwxyz0123456789?/.,-+'.split(''),
  ...['Enter', 'Enter', 'Escape', 'Escape', 'Tab', 'Shift+Tab', 'Space', 'ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'],
  ...['Home', 'End', 'PageDown', 'Delete', 'Backspace', 'Control+z', 'Control+a', 'Shift+ArrowRight'],
];
const PASTED = ['12\t5,0\n15\t8,4\n', 'time,percent\n0,5\n300,12\n', 'x'.repeat(5000), '\ufeff', 'Sedge 5\tCobble 20\t57 min\n'];
const FILES = [
  { name: 'empty.csv', text: '' },
  { name: 'meter.csv', text: 'time (s),watts,percent\n0,5,10\n60,18,11\n120,19,13\n' },
  { name: 'cut.json', text: '{"format":"inkpath-logbook","schema":3,"runs":[{' },
  { name: 'picture.png', text: '\u0089PNG\r\n\u001a\n\0\0\0' },
  { name: 'words.txt', text: 'nothing, that; could\tbe read\n'.repeat(40) },
];
const PLACES = [
  '/',
  '/live',
  '/live/new',
  '/live/spot',
  '/live/footage',
  '/live/paper',
  '/plan',
  '/bench',
  '/runs',
  '/compare',
  '/sums',
  '/settings',
  '/help',
  '/no/such/place',
];

const PRESSABLE =
  'button:not([disabled]), a[href]:not([download]), summary, [role="option"], [role="tab"], input[type="checkbox"], input[type="radio"], tbody tr[tabindex]';
const FILLABLE =
  'input:not([type="checkbox"]):not([type="radio"]):not([type="file"]):not([disabled]), textarea:not([disabled]), [contenteditable="true"]';
/** Words that no page should show. */
const SLIPS = /\bNaN\b|\bInfinity\b|\bundefined\b|\[object |This page failed/;
/** How long a step may take that comes to nothing, in milliseconds. */
const BRIEFLY = 1500;

class Walk {
  readonly steps: string[] = [];
  readonly logged = new Set<number>();
  private readonly noise: () => number;
  private readonly profile = newProfile();
  private browser!: Awaited<ReturnType<typeof browse>>;
  private tabs: Page[] = [];
  private at = 0;
  private readings = 0;
  private readonly heard: string[] = [];
  kills = 0;

  constructor(readonly seed: number) {
    this.noise = seeded(seed);
  }

  private get page(): Page {
    return this.tabs[this.at] as Page;
  }
  private pick<Item>(items: readonly Item[]): Item {
    return items[Math.floor(this.noise() * items.length)] as Item;
  }

  async begin(): Promise<void> {
    await this.open();
    await bringShelf(
      this.page,
      ['Sedge 5', 'Bittern Slate', { id: 'long', name: 'A phone whose name is rather longer than anybody would have thought' }],
      ['Cobble 20', 'Quern 65', 'Puddle'],
    );
    await importFile(
      this.page,
      'runs.json',
      bookOf([finished('one', [2, 30, 60, 81]), finished('two', [4, 26, 49, 70]), finished('three', [2, 99, 100])]),
    );
    await startRun(this.page, 'Sedge 5', 'Cobble 20', '5');
  }

  private async open(): Promise<void> {
    this.browser = await browse(this.profile);
    [this.tabs, this.at] = [[], 0];
    this.listen(this.browser.page);
    await this.page.goto('/');
    await this.stands();
  }

  private listen(page: Page): void {
    this.tabs.push(page);
    page.on('pageerror', (error) => this.heard.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' || message.type() === 'warning') this.heard.push(message.text());
    });
    page.on('dialog', (dialog) => void dialog.accept().catch(() => undefined));
  }

  /** A page is there, and none of it failed. */
  async stands(): Promise<void> {
    await expect(this.page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    expect(this.heard).toEqual([]);
    const text = await this.page.locator('body').innerText();
    expect(SLIPS.exec(text)?.[0]).toBeUndefined();
  }

  async step(): Promise<void> {
    const turn = this.noise();
    if (turn < 0.42) await this.press();
    else if (turn < 0.6) await this.fill();
    else if (turn < 0.72) await this.key();
    else if (turn < 0.82) await this.log();
    else if (turn < 0.85) await this.paste();
    else if (turn < 0.88) await this.giveFile();
    else if (turn < 0.92) await this.turnBack();
    else if (turn < 0.95) await this.go();
    else if (turn < 0.965) await this.otherTab();
    else if (turn < 0.98) await this.jump();
    else if (turn < 0.99) await this.resize();
    else await this.kill();
    await this.page.waitForTimeout(60);
    await this.stands();
  }

  private note(what: string): void {
    this.steps.push(`${this.page.url().replace(/^https?:\/\/[^/]+/, '')} ${what}`);
  }

  private async oneOf(selector: string): Promise<Locator | undefined> {
    // What a sheet covers cannot be reached.
    const sheet = this.page.getByRole('dialog').last();
    const within = (await sheet.count()) > 0 ? sheet : this.page.locator('body');
    const all = within.locator(selector).filter({ visible: true });
    const count = await all.count();
    return count === 0 ? undefined : all.nth(Math.floor(this.noise() * count));
  }
  private static named = (element: Locator): Promise<string> =>
    element
      .evaluate((each) =>
        (each.getAttribute('aria-label') ?? (each.textContent || each.getAttribute('name')) ?? each.tagName).trim().slice(0, 60),
      )
      .catch(() => 'something');

  private async press(): Promise<void> {
    const element = await this.oneOf(PRESSABLE);
    if (!element) return;
    this.note(`press ${await Walk.named(element)}`);
    // What another lies over, or what is gone meanwhile, is no step.
    await element.click({ timeout: BRIEFLY }).catch(() => undefined);
  }
  private async fill(): Promise<void> {
    const element = await this.oneOf(FILLABLE);
    if (!element) return;
    const value = this.pick(ODD);
    const type = await element.getAttribute('type', { timeout: BRIEFLY }).catch(() => null);
    const fitting = { date: '2026-11-30', time: '14:02', 'datetime-local': '2026-11-30T14:02', number: '-1', range: '3', color: '#336699' }[
      type ?? ''
    ];
    this.note(`fill ${await Walk.named(element)} with ${value.slice(0, 40)}`);
    await element.fill(fitting ?? value, { timeout: BRIEFLY }).catch(() => undefined);
    const after = this.noise();
    if (after < 0.3) await this.page.keyboard.press('Enter');
    else if (after < 0.4) await this.page.keyboard.press('ArrowDown');
  }
  private async key(): Promise<void> {
    const key = this.pick(KEYS);
    this.note(`key ${key}`);
    await this.page.keyboard.press(key);
  }
  private async paste(): Promise<void> {
    const text = this.pick(PASTED);
    this.note(`paste ${text.slice(0, 30)}`);
    await this.page.evaluate((pasted) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', pasted);
      (document.activeElement ?? document.body).dispatchEvent(
        new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
      );
    }, text);
  }
  private async giveFile(): Promise<void> {
    const field = this.page.locator('input[type="file"]').first();
    if ((await field.count()) === 0) return this.press();
    const { name, text } = this.pick(FILES);
    this.note(`file ${name}`);
    await field
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(text) }, { timeout: BRIEFLY })
      .catch(() => undefined);
  }
  private async turnBack(): Promise<void> {
    const way = this.pick(['goBack', 'goBack', 'goForward', 'reload'] as const);
    this.note(way);
    await this.page[way]({ timeout: 15_000 }).catch(() => undefined);
    if (!this.page.url().startsWith('http')) await this.page.goto(`${HERE}/`);
  }
  private async go(): Promise<void> {
    const path = this.pick(PLACES);
    this.note(`go to ${path}`);
    await this.page.goto(`${HERE}${path}`);
  }
  private async otherTab(): Promise<void> {
    this.note(`another tab of ${this.tabs.length}`);
    if (this.tabs.length > 1) {
      this.at = 1 - this.at;
      await this.page.bringToFront();
      return;
    }
    const tab = await this.page.context().newPage();
    this.listen(tab);
    await tab.goto(`${HERE}/`);
    this.at = 1;
  }
  private async jump(): Promise<void> {
    const hours = this.pick([-30, -3, -0.5, 0.2, 1, 5, 26]);
    this.note(`the clock jumps by ${hours} h`);
    await this.page.clock.setSystemTime(Date.now() + hours * 3_600_000);
  }
  private async resize(): Promise<void> {
    const size = this.pick([
      { width: 390, height: 844 },
      { width: 1280, height: 800 },
      { width: 640, height: 400 },
      { width: 1920, height: 1080 },
    ]);
    this.note(`as wide as ${size.width}`);
    await this.page.setViewportSize(size);
  }

  /** A reading by the due line, where there is one. What the program calls logged must never be lost. */
  private async log(): Promise<void> {
    await this.page.keyboard.press('Escape');
    const field = this.page.getByRole('textbox', { name: /Reading of/ });
    if ((await field.count()) !== 1 || !(await field.isEnabled().catch(() => false))) return this.key();
    this.readings += 1;
    const line = `${(5 + this.readings / 10).toFixed(1)}w # r${this.readings}r`;
    this.note(`log ${line}`);
    try {
      await field.fill(line, { timeout: BRIEFLY });
      await field.press('Enter', { timeout: BRIEFLY });
      await expect(this.page.getByLabel('Due line').locator('.answer')).toContainText(/Logged at/, { timeout: 3000 });
      await expect(field).toHaveValue('', { timeout: 3000 });
    } catch {
      return;
    }
    this.logged.add(this.readings);
  }

  private async kill(): Promise<void> {
    this.note('kill');
    this.kills += 1;
    await this.page.keyboard.press('Enter');
    await this.browser.kill();
    this.heard.length = 0;
    await this.open();
    await this.nothingIsLost();
  }

  /** Whatever was called logged is in the ink, of a live run or a filed one. */
  async nothingIsLost(): Promise<void> {
    const missing = await this.page.evaluate(
      (wanted) =>
        new Promise<number[]>((resolve, reject) => {
          const opening = indexedDB.open('inkpath');
          opening.onerror = () => reject(new Error('The logbook cannot be opened.'));
          opening.onsuccess = () => {
            const asked = opening.result.transaction('kept').objectStore('kept').getAll();
            asked.onsuccess = () => {
              const text = JSON.stringify(asked.result);
              opening.result.close();
              resolve(wanted.filter((each) => !text.includes(`r${each}r`)));
            };
          };
        }),
      [...this.logged],
    );
    expect(missing).toEqual([]);
  }

  async look(): Promise<void> {
    const { violations } = await new AxeBuilder({ page: this.page })
      .options({ resultTypes: ['violations'] })
      .setLegacyMode()
      .analyze();
    expect(violations.map(({ id, nodes }) => `${id} at ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`)).toEqual([]);
  }

  /** The logbook that grew goes out as a file that can be read. */
  async end(): Promise<void> {
    await this.nothingIsLost();
    await this.page.setViewportSize({ width: 1280, height: 800 });
    await this.page.goto(`${HERE}/runs`);
    const text = readFileSync((await exportBy(this.page, 'Export the logbook')).path, 'utf8');
    readLogbook(text, 'the file');
    expect([...this.logged].filter((each) => !text.includes(`r${each}r`))).toEqual([]);
    await this.browser.kill();
  }
}

for (const seed of SEEDS)
  test(`@carried a walk at random finds nothing that fails, and loses nothing (${STEPS} steps, seed ${seed})`, async () => {
    test.setTimeout(240_000 + STEPS * 10_000);
    const walk = new Walk(seed);
    await walk.begin();
    try {
      for (let step = 1; step <= STEPS; step += 1) {
        await walk.step();
        if (step % 50 === 0) await walk.look();
      }
      await walk.end();
    } catch (error) {
      console.log(`Step ${walk.steps.length} of seed ${seed}:\n${walk.steps.slice(-25).join('\n')}`);
      throw error;
    }
    console.log(`Roam: ${walk.steps.length} steps, ${walk.logged.size} readings, ${walk.kills} kills; nothing failed, nothing was lost.`);
  });

/** What walks found, each with its seed. */
test('@carried a reading that falls due on a page nobody has touched yet is called without a complaint (seed 21, step 164)', async ({
  page,
}) => {
  await page.clock.install({ time: new Date('2026-11-30T14:00:00') });
  await bringShelf(page, ['Sedge 5'], ['Cobble 20']);
  await startRun(page, 'Sedge 5', 'Cobble 20', '5');
  await page.reload();
  await expect(page.getByRole('article')).toBeVisible();
  const heard: string[] = [];
  page.on('console', (message) => heard.push(...(/vibrate/.exec(message.text()) ?? [])));
  await page.clock.fastForward('05:10');
  await expect(page.getByLabel('Due line')).toContainText(/late|now|due/i);
  await page.clock.runFor(2000);
  expect(heard).toEqual([]);
});
