import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cacheFolder, ensurePackages, ROOT, run } from './setup.mjs';
import { testShare } from './testShare.mjs';

/**
 * `npm test`: lint, types, unit and real-browser tests, the share of tests, and one closing line over all of them. Browser tests that are marked @long
 * are left to `npm run thorough`: a test run may take a quarter of an hour.
 */
await ensurePackages();
const reports = { unit: join(cacheFolder(), 'unit.json'), e2e: join(cacheFolder(), 'e2e.json') };
const node = (script, ...args) =>
  run(process.execPath, [join(ROOT, 'scripts', script), ...args], { env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: reports.e2e } });

/** How long each part took, in seconds. */
const took = {};
const began = Date.now();
async function timed(part, work) {
  const start = Date.now();
  const code = await work;
  took[part] = Math.round((Date.now() - start) / 1000);
  return code;
}

/** The rest of the linters leaves a core free well before eslint is done: the unit tests begin there. */
async function restAndUnits() {
  const rest = await timed('the rest of lint', node('lint.mjs', 'rest'));
  return [rest, await timed('unit tests', node('unit.mjs', '--reporter=dot', '--reporter=json', `--outputFile.json=${reports.unit}`))];
}
const [code, [rest, units]] = await Promise.all([timed('eslint', node('lint.mjs', 'code')), restAndUnits()]);
// Alone: they keep both cores busy, and beside others they take half as long again.
const browsers = await timed('browser tests', node('e2e.mjs', '--reporter=line,json', '--grep-invert=@long'));
const isLinted = code === 0 && rest === 0;

function read(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return {};
  }
}
/** Unit tests that took over two seconds on this machine. */
function slowest({ testResults = [] }) {
  return testResults
    .flatMap(({ assertionResults = [] }) => assertionResults)
    .map(({ fullName, duration = 0 }) => ({ title: fullName, seconds: duration / 1000 }))
    .filter(({ seconds }) => seconds > 2)
    .sort((one, other) => other.seconds - one.seconds)
    .slice(0, 5);
}
/** The tests that failed, or passed only when they were run again: said at the end too, where a log that was cut still has them. */
function* failures(unit, { suites = [] }) {
  for (const { assertionResults = [], name, status } of unit.testResults ?? []) {
    const failed = assertionResults.filter((one) => one.status === 'failed');
    if (status === 'failed' && failed.length === 0) yield `${name} could not be run`;
    for (const { fullName, failureMessages = [] } of failed) yield `${fullName}: ${failureMessages[0]?.split('\n')[0] ?? ''}`;
  }
  const specs = ({ specs: own = [], suites: inner = [] }) => [...own, ...inner.flatMap(specs)];
  for (const { file, title, tests } of suites.flatMap(specs))
    for (const { status } of tests) if (status === 'unexpected' || status === 'flaky') yield `${file}: ${title} (${status})`;
}
const unit = read(reports.unit);
const browser = read(reports.e2e);
const { stats = {} } = browser;
const passed = (unit.numPassedTests ?? 0) + (stats.expected ?? 0);
const failed = (unit.numFailedTests ?? 0) + (stats.unexpected ?? 0) + (stats.flaky ?? 0) + (isLinted ? 0 : 1);

console.log(
  `It took: ${Object.entries(took)
    .map(([part, seconds]) => `${part} ${seconds} s`)
    .join(', ')}; all of it ${Math.round((Date.now() - began) / 1000)} s.`,
);
for (const { title, seconds } of slowest(unit)) console.log(`Slow unit test: ${title}, ${seconds.toFixed(1)} s.`);
const { tests, all } = testShare(ROOT);
console.log(`Tests are ${tests} of ${all} code lines: ${((100 * tests) / all).toFixed(1)} %.`);
if (!isLinted) console.log('Failed: lint, see above.');
for (const what of failures(unit, browser)) console.log(`Failed: ${what}`);
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = [code, rest, units, browsers].every((each) => each === 0) && failed === 0 && passed > 0 ? 0 : 1;
