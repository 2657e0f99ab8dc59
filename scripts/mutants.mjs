import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, ROOT, runPackage } from './setup.mjs';

/**
 * `npm run mutants [-- room or file ...]`: makes small changes to the code of core, one at a time, and counts those that no unit test notices; a file at a
 * time, so that what was counted stands when it is stopped, and only what has changed since it was last run. Sentences are left as they are. Fails where
 * fewer than 80 % of a room (or of the files that were asked for) are noticed. By hand: a room takes from minutes to hours. The report of each file lies in
 * .cache/mutants.
 */
const ROOMS = ['margin', 'curve', 'compare', 'advise', 'exchange'];
/** So many of a hundred changes must be noticed. */
const NOTICED = 80;

await ensurePackages();
const asked = process.argv.slice(2);
const folder = join(ROOT, '.cache', 'mutants');
mkdirSync(folder, { recursive: true });

const filesOf = (room) => readdirSync(join(ROOT, 'core', room)).filter((name) => /(?<!\.test|\.d|^index)\.ts$/.test(name));

/** Counts the changes to one file. @returns how many were made and how many of them noticed; nothing where it could not be counted */
async function counted(room, name) {
  const file = (ending) => `.cache/mutants/${room}.${name.replace(/\.ts$/, '')}${ending}`;
  const config = {
    testRunner: 'vitest',
    vitest: { configFile: 'scripts/mutants.config.ts', related: false },
    plugins: ['@stryker-mutator/vitest-runner'],
    mutate: [`core/${room}/${name}`],
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
  };
  writeFileSync(join(ROOT, file('.config.json')), JSON.stringify(config, null, 2));
  if ((await runPackage('@stryker-mutator/core', ['run', file('.config.json')], { env: { ...process.env, ROOM: room } })) !== 0)
    return undefined;
  const { files } = JSON.parse(readFileSync(join(ROOT, file('.json')), 'utf8'));
  const states = Object.values(files).flatMap(({ mutants }) => mutants.map(({ status }) => status));
  const made = states.filter((state) => !['Ignored', 'CompileError', 'RuntimeError'].includes(state)).length;
  return { made, noticed: states.filter((state) => state === 'Killed' || state === 'Timeout').length };
}

const unknown = asked.filter((each) => !ROOMS.some((room) => each === room || filesOf(room).some((name) => each === `${room}/${name}`)));
if (unknown.length > 0) {
  console.error(`There is nothing called ${unknown.join(', ')}. Say some of ${ROOMS.join(', ')}, or a file: margin/bounds.ts.`);
  process.exit(2);
}
const rooms = ROOMS.filter((room) => asked.length === 0 || asked.some((each) => each === room || each.startsWith(`${room}/`)));
const sums = [];
for (const room of rooms) {
  const files = filesOf(room).filter((name) => asked.length === 0 || asked.includes(room) || asked.includes(`${room}/${name}`));
  const sum = { made: 0, noticed: 0, failed: [] };
  for (const name of files) {
    const found = await counted(room, name);
    if (!found) sum.failed.push(name);
    sum.made += found?.made ?? 0;
    sum.noticed += found?.noticed ?? 0;
  }
  sums.push([room, sum]);
}
for (const [room, { made, noticed, failed }] of sums) {
  const share = made === 0 ? 100 : (100 * noticed) / made;
  console.log(
    `${room}: ${noticed} of ${made} changes noticed, ${share.toFixed(1)} %${failed.length > 0 ? `; not counted: ${failed.join(', ')}` : ''}.`,
  );
  if (share < NOTICED || failed.length > 0) process.exitCode = 1;
}
