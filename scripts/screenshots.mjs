import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuild, ensureChromium, ensurePackages, ROOT } from './setup.mjs';

/** `npm run screenshots`: one current picture of each main view, made from the demo. */
await ensurePackages();
await ensureBuild();
const executablePath = ensureChromium();
const { chromium } = await import('@playwright/test');

const VIEWS = [
  ['plan', '/plan/saltmarsh-chargers'],
  ['plan-dark', '/plan/saltmarsh-chargers', { colorScheme: 'dark' }],
  ['calendar', '/plan/saltmarsh-chargers/calendar', {}, (page) => page.getByRole('heading', { name: /^Done/ }).waitFor()],
  ['run', '/run'],
  ['run-dark', '/run', { colorScheme: 'dark' }],
  ['event', '/run', {}, (page) => page.getByRole('button', { name: 'event' }).click()],
  ['start', '/run/new'],
  ['bench', '/bench'],
  ['charger', '/bench?shelf=charger', {}, (page) => page.getByRole('button', { name: 'Quern 30 adapter' }).click()],
  ['expect', '/bench/expect?device=sedge-5&charger=quern-30'],
  ['expect-dark', '/bench/expect?device=teasel-14&charger=quern-65', { colorScheme: 'dark' }],
  ['expect-phone', '/bench/expect?device=sedge-5&charger=quern-30', { viewport: { width: 390, height: 844 } }],
  ['runs', '/curve'],
  ['curve', '/curve/saltmarsh-3', {}, (page) => page.getByRole('button', { name: 'Show working of 80 %' }).click()],
  ['curve-dark', '/curve/saltmarsh-6', { colorScheme: 'dark' }],
  ['compare', '/compare?runs=saltmarsh-1.saltmarsh-2.saltmarsh-3.saltmarsh-4.saltmarsh-5'],
  ['help', '/help'],
  ['run-phone', '/run', { viewport: { width: 390, height: 844 } }],
  ['compare-phone', '/compare?runs=saltmarsh-1.saltmarsh-3.saltmarsh-5', { viewport: { width: 390, height: 844 } }],
];

const server = spawn(process.execPath, [join(ROOT, 'node_modules/tsx/dist/cli.mjs'), 'server/main.ts', 'testDemo'], { cwd: ROOT });
const address = await new Promise((resolve) => server.stdout.on('data', (said) => resolve(/http:\S+/.exec(String(said))?.[0])));
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
for (const [name, path, options, act] of VIEWS) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    locale: 'en-GB',
    ...options,
  });
  const page = await context.newPage();
  await page.goto(new URL('/curve', address).href);
  await page.getByRole('row').nth(9).waitFor();
  await page.goto(new URL(path, address).href);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await act?.(page);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => document.querySelector('main')?.scrollTo(0, 0));
  await page.screenshot({ path: join(ROOT, 'docs', 'screenshots', `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
  await context.close();
}
await browser.close();
server.kill();
