import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, ROOT, runPackage } from './setup.mjs';

/**
 * `npm run mutants [-- room ...]`: makes small changes to the code of core, one at a time, and counts those that no unit test notices; a room at a time,
 * and only what has changed since it was last run. Sentences are left as they are. Fails where a room has fewer than 80 % noticed. By hand: a room takes
 * from minutes to hours. The report of each lies in .cache/mutants.
 */
const ROOMS = ['margin', 'curve', 'compare', 'advise', 'exchange'];
/** So many of a hundred changes must be noticed. */
const NOTICED = 80;

await ensurePackages();
const asked = process.argv.slice(2);
const rooms = asked.length > 0 ? asked : ROOMS;
const folder = join(ROOT, '.cache', 'mutants');
mkdirSync(folder, { recursive: true });
for (const room of rooms) {
  const file = (name) => `.cache/mutants/${room}${name}`;
  const config = {
    testRunner: 'vitest',
    vitest: { configFile: 'scripts/mutants.config.ts', related: false },
    plugins: ['@stryker-mutator/vitest-runner'],
    mutate: [`core/${room}/**/*.ts`, `!core/${room}/**/*.test.ts`],
    mutator: { excludedMutations: ['StringLiteral', 'Regex'] },
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    incremental: true,
    incrementalFile: file('.incremental.json'),
    tempDirName: '.mutants',
    cleanTempDir: 'always',
    ignorePatterns: ['.cache', '.mutants', 'dist', 'docs', 'e2e', 'benchmarks'],
    reporters: ['clear-text', 'json'],
    clearTextReporter: { allowColor: false, reportTests: false, logTests: false },
    jsonReporter: { fileName: file('.json') },
    concurrency: 2,
    timeoutMS: 20_000,
    // The first run of all tests, watched for what they cover.
    dryRunTimeoutMinutes: 30,
    thresholds: { high: 90, low: NOTICED, break: NOTICED },
  };
  writeFileSync(join(folder, `${room}.config.json`), JSON.stringify(config, null, 2));
  const env = { ...process.env, ROOM: room };
  process.exitCode = (await runPackage('@stryker-mutator/core', ['run', file('.config.json')], { env })) || process.exitCode;
}
