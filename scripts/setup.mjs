import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Everything a fresh machine with Node and npm lacks, brought here when it is first needed. Nothing but Node is used in this file. */
export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));

/** Runs a command in the project and gives back its exit code. */
export function run(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    child.on('error', () => resolve(127));
    child.on('close', (code) => resolve(code ?? 1));
  });
}

/** Runs a package's program, as `npx` would, without its start-up. */
export const runPackage = (name, args, options) =>
  run(process.execPath, [join(ROOT, 'node_modules', ...programOf(name)), ...args], options);

function programOf(name) {
  const { bin } = JSON.parse(readFileSync(join(ROOT, 'node_modules', name, 'package.json'), 'utf8'));
  const file = typeof bin === 'string' ? bin : (bin[name.split('/').at(-1)] ?? Object.values(bin)[0]);
  return [name, file];
}

function stop(sentence) {
  console.error(sentence);
  process.exit(1);
}

const LEAST_NODE = [20, 19];
const [major, minor] = process.versions.node.split('.').map(Number);
if (major < LEAST_NODE[0] || (major === LEAST_NODE[0] && minor < LEAST_NODE[1]))
  stop(`This needs Node ${LEAST_NODE.join('.')} or newer, and runs on ${process.versions.node}: install a newer one, then run it again.`);

/** Before anything is written beside the sources. */
function requireWritable() {
  try {
    accessSync(ROOT, constants.W_OK);
  } catch {
    stop(`Nothing can be written to ${ROOT}: copy the folder to where you may write, then run it again there.`);
  }
}

/** Remembers by its fingerprint what something was last made from. */
function isCurrent(stamp, fingerprint) {
  return existsSync(stamp) && readFileSync(stamp, 'utf8') === fingerprint;
}

const fingerprintOf = (text) => createHash('sha256').update(text).digest('hex');

/** Installs the packages of the lock file, unless those are the ones installed. */
export async function ensurePackages() {
  const stamp = join(ROOT, 'node_modules', '.inkpath');
  const fingerprint = fingerprintOf(readFileSync(join(ROOT, 'package-lock.json')) + process.version);
  if (isCurrent(stamp, fingerprint)) return;
  requireWritable();
  console.log('Installing packages (npm ci) …');
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  if ((await run(npm, ['ci', '--no-audit', '--no-fund'])) !== 0)
    stop('npm ci failed: see above. Check that the npm registry can be reached, then run this again.');
  writeFileSync(stamp, fingerprint);
}

const SOURCES = ['app', 'core', 'demo', 'public', 'index.html', 'vite.config.ts', 'package-lock.json'];

function* filesIn(path) {
  if (!statSync(path).isDirectory()) yield path;
  else for (const name of readdirSync(path).sort()) yield* filesIn(join(path, name));
}

/** Builds the app, unless the build is of these very sources. */
export async function ensureBuild() {
  const stamp = join(ROOT, 'dist', '.built');
  const files = SOURCES.flatMap((source) => [...filesIn(join(ROOT, source))]).filter((file) => !file.endsWith('.test.ts'));
  const fingerprint = fingerprintOf(files.map((file) => file + fingerprintOf(readFileSync(file))).join('\n'));
  if (isCurrent(stamp, fingerprint)) return;
  requireWritable();
  console.log('Building …');
  if ((await runPackage('vite', ['build', '--logLevel', 'warn'])) !== 0) stop('The build failed: see above.');
  writeFileSync(stamp, fingerprint);
}

function install(name) {
  console.log(`Installing ${name} (apt-get) …`);
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  spawnSync('apt-get', ['update', '-q'], quiet);
  spawnSync('apt-get', ['install', '-q', '-y', '--no-install-recommends', name], quiet);
}

/** The path of the first of these programs that is there; the first is installed by apt where that is allowed and it is missing. */
function ensureProgram(...names) {
  const found = () => names.map((name) => join('/usr/bin', name)).find((path) => existsSync(path));
  const mayInstall = existsSync('/usr/bin/apt-get') && process.getuid?.() === 0;
  if (mayInstall && found() !== join('/usr/bin', names[0])) install(names[0]);
  return found();
}

const NONE = 'The browser tests need Chromium, and it cannot be installed here: install Debian’s chromium, or name one in CHROMIUM=/path.';

/** The path of a Chromium. The headless shell, where there is one: it starts and loads pages in half the time. */
export const ensureChromium = () =>
  process.env.CHROMIUM ?? ensureProgram('chromium-headless-shell', 'chromium', 'chromium-browser', 'google-chrome') ?? stop(NONE);

/** The path of the whole browser, as people run it: for tests that kill it. */
export const ensureWholeChromium = () =>
  process.env.CHROMIUM ?? ensureProgram('chromium', 'chromium-browser', 'google-chrome') ?? stop(NONE);

/** The program that reads a PDF as text; its package has another name. `undefined` where it cannot be installed. */
export function ensurePdfText() {
  const path = '/usr/bin/pdftotext';
  if (!existsSync(path) && existsSync('/usr/bin/apt-get') && process.getuid?.() === 0) install('poppler-utils');
  return existsSync(path) ? path : undefined;
}

/** The Python that reads a workbook with Debian’s openpyxl: an outside reader for tests. `undefined` where it cannot be installed. */
export function ensureSheetReader() {
  const python = '/usr/bin/python3';
  const reads = () => existsSync(python) && spawnSync(python, ['-c', 'import openpyxl'], { stdio: 'ignore' }).status === 0;
  if (!reads() && existsSync('/usr/bin/apt-get') && process.getuid?.() === 0) install('python3-openpyxl');
  return reads() ? python : undefined;
}

/** A folder for what tests and benchmarks leave behind; git ignores it. */
export function cacheFolder() {
  const folder = join(ROOT, '.cache');
  mkdirSync(folder, { recursive: true });
  return folder;
}
