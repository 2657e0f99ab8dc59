import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuild, ensureChromium, ensurePackages, ROOT } from './setup.mjs';

/** `npm run screenshots`: one current picture of each main view, made from the demo. */
await ensurePackages();
await ensureBuild();
const executablePath = ensureChromium();
const { chromium } = await import('@playwright/test');

/** Runs of two devices. */
const BOTH = [1, 2, 3, 4, 5, 6, 7, 8].map((number) => `saltmarsh-${number}`).join('.');

const VIEWS = [
  ['plan', '/plan/saltmarsh-chargers'],
  ['calendar', '/plan/saltmarsh-chargers/calendar', {}, (page) => page.getByRole('heading', { name: /^Finishes/ }).waitFor()],
  ['run', '/live', {}, board],
  ['spot', '/live/spot', {}, sitting],
  ['bench', '/bench'],
  ['expect', '/bench/expect?device=sedge-5&charger=quern-30'],
  ['paper', '/live/paper', {}, notebook],
  ['runs', '/runs'],
  ['curve', '/runs/saltmarsh-9', {}, pointed],
  ['mapping', '/runs', {}, mapping],
  ['compare-bars', '/compare?show=bars&runs=saltmarsh-1.saltmarsh-2.saltmarsh-3.saltmarsh-4.saltmarsh-5.saltmarsh-6'],
  ['compare-matrix', `/compare?show=matrix&runs=${BOTH}`],
  ['compare', '/compare?runs=saltmarsh-1.saltmarsh-2.saltmarsh-3.saltmarsh-4.saltmarsh-5'],
  ['run-phone', '/live', { viewport: { width: 390, height: 844 } }],
  ['verdict', '/compare?show=verdict&runs=saltmarsh-1.saltmarsh-2.saltmarsh-3.saltmarsh-4.saltmarsh-5.saltmarsh-6'],
  ['one-for-all', `/compare?show=verdict&runs=${BOTH}`, { colorScheme: 'dark' }, shared],
  ['piece', '/pieces/saltmarsh-vans'],
  ['piece-print', '/pieces/saltmarsh-vans', { viewport: { width: 900, height: 1270 } }, onPaper],
  ['sums', '/sums?sum=time-to-level&run=saltmarsh-3'],
];

/** Two more start beside the run that is live, from one strip. */
async function board(page) {
  const choose = async (label, name) => {
    await page.getByRole('combobox', { name: label }).press('ArrowDown');
    await page.getByRole('option', { name, exact: true }).click();
  };
  await page.goto(new URL('/live/new', address).href);
  for (const [device, charger, level] of [
    ['Sedge 5', 'Quern 65', '34'],
    ['Teasel 14', 'Quern 30', '61'],
  ]) {
    await choose('Device', device);
    await choose('Charger', charger);
    await page.getByLabel('Level at plug-in').fill(level);
    if (device === 'Sedge 5') await page.getByRole('button', { name: 'Start another with it' }).click();
  }
  await page.getByRole('button', { name: 'Ready' }).click();
  await page.getByRole('button', { name: 'Switch the strip on now' }).press('Space');
  await page.getByRole('article').nth(2).waitFor();
  await page.waitForTimeout(1000);
}

/** What one charger costs each device. */
async function shared(page) {
  await page.getByRole('table', { name: /^One for all/ }).scrollIntoViewIfNeeded();
  return 'placed';
}

/** Some chargers were tried, one is in hand. */
async function sitting(page) {
  await page.getByRole('combobox', { name: 'Device' }).press('ArrowDown');
  await page.getByRole('option', { name: 'Sedge 5', exact: true }).click();
  await page.getByRole('button', { name: 'All Chargers', exact: true }).click();
  await page.getByRole('button', { name: /^Try/ }).click();
  const line = page.getByLabel(/^Volts, amps or watts/);
  for (const [name, keys, said] of [
    ['Cobble 12', 'kim', '9v 1.2a 47'],
    ['Cobble 20', 'kim', '9v 2.1a 47'],
    ['Drumlin', 'i', '4.9v 0.4a 48'],
  ]) {
    await page.getByRole('form', { name: `Trial of ${name}` }).waitFor();
    for (const key of keys) await line.press(key);
    await line.fill(said);
    await line.press('Enter');
  }
  await page.getByRole('form', { name: 'Trial of Haversack' }).waitFor();
  await line.press('Space');
}

/** Three phones in a notebook, pasted in. */
async function notebook(page) {
  const grid = [
    '\tSedge 5 on Cobble 12\tSedge 5 on Cobble 20\tHeron 3 on Sluice 40',
    'Plugged in\t2026-11-21 09:05\t2026-11-21 09:05\t2026-11-21 09:05',
    'Cable\tShort cable\tShort cable\tShort cable',
    '0\tdead\t0\t0',
    '5\t5\t8\t11',
    '10\t8\t16\t33',
    '14:25\t13\t24\t50',
    '20\t18\t33\t67',
    '30\t28\t50\t93',
  ];
  await page.getByLabel('Time of row 1').focus();
  await page.evaluate((text) => {
    const { ClipboardEvent, DataTransfer } = document.defaultView;
    const data = new DataTransfer();
    data.setData('text', text);
    document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, grid.join('\n'));
  await page.getByLabel('Heron 3 on Sluice 40 at 30').waitFor();
}

/** A moment of the charge is pointed at. */
async function pointed(page) {
  const box = await page.getByRole('slider', { name: /^Moment on the strip/ }).boundingBox();
  await page.mouse.move(box.x + box.width * 0.34, box.y + 120);
}

/** A piece as it is printed. */
async function onPaper(page) {
  await page.getByRole('button', { name: 'Picture of Curves' }).waitFor();
  await page.waitForTimeout(1500);
  await page.evaluate("dispatchEvent(new Event('beforeprint'))");
  await page.emulateMedia({ media: 'print' });
  return 'placed';
}

/** A log of an invented meter, before it is read. */
async function mapping(page) {
  const rows = Array.from({ length: 600 }, (_, second) => `${second};${40 + Math.floor(second / 60)};${9000 + (second % 5)};2,1;CC`);
  const text = ['Tidepole log 12, range auto', 'Time;Battery %;Voltage (mV);I load;Mode', ...rows].join('\n');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page
    .getByLabel('File', { exact: true })
    .setInputFiles({ name: 'tidepole-12.txt', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await page.getByText('600 rows over 10 min').waitFor();
  await page.getByText('What its columns hold').scrollIntoViewIfNeeded();
}

const server = spawn(process.execPath, [join(ROOT, 'node_modules/tsx/dist/cli.mjs'), 'server/main.ts', 'testDemo'], { cwd: ROOT });
const address = await new Promise((resolve) => server.stdout.on('data', (said) => resolve(/http:\S+/.exec(String(said))?.[0])));
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
for (const [name, path, options, act] of VIEWS) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    serviceWorkers: 'block',
    locale: 'en-GB',
    ...options,
  });
  const page = await context.newPage();
  await page.goto(new URL('/runs', address).href);
  await page.locator('[aria-rowcount="13"]').waitFor();
  await page.goto(new URL(path, address).href);
  await page.getByRole('heading', { level: 1 }).waitFor();
  // What the demo says once has been read.
  const welcome = page.locator('.welcome').getByRole('button', { name: 'Close' });
  if (path.startsWith('/compare')) await welcome.click();
  const isPlaced = (await act?.(page)) === 'placed';
  await page.evaluate(() => document.fonts.ready);
  await page.waitForLoadState('networkidle');
  if (!isPlaced) await page.evaluate(() => document.querySelector('main')?.scrollTo(0, 0));
  await page.screenshot({ path: join(ROOT, 'docs', 'screenshots', `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
  await context.close();
}
await browser.close();
server.kill();
