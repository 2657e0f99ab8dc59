import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cacheFolder, ensurePackages, ROOT, run } from './setup.mjs';
import { testShare } from './testShare.mjs';

/** `npm test`: lint, types, unit and real-browser tests, the share of tests, and one closing line over all of them. */
await ensurePackages();
const reports = { unit: join(cacheFolder(), 'unit.json'), e2e: join(cacheFolder(), 'e2e.json') };
const node = (script, ...args) =>
  run(process.execPath, [join(ROOT, 'scripts', script), ...args], { env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: reports.e2e } });

// Lint leaves a core idle now and then; what the browsers do wants both.
const codes = await Promise.all([
  node('lint.mjs'),
  node('unit.mjs', '--reporter=dot', '--reporter=json', `--outputFile.json=${reports.unit}`),
]);
codes.push(await node('e2e.mjs', '--reporter=line,json'));

function read(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return {};
  }
}
const unit = read(reports.unit);
const { stats = {} } = read(reports.e2e);
const passed = (unit.numPassedTests ?? 0) + (stats.expected ?? 0);
const failed = (unit.numFailedTests ?? 0) + (stats.unexpected ?? 0) + (stats.flaky ?? 0) + (codes[0] === 0 ? 0 : 1);

const { tests, all } = testShare(ROOT);
console.log(`Tests are ${tests} of ${all} code lines: ${((100 * tests) / all).toFixed(1)} %.`);
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = codes.every((code) => code === 0) && failed === 0 && passed > 0 ? 0 : 1;
