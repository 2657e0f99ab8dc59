import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { ensurePackages, ROOT, runPackage } from './setup.mjs';

/**
 * `npm run mutants [-- room or file ...]`: makes small changes to the code of core, one at a time, and counts those that no unit test notices; a file at a
 * time, so that what was counted stands when it is stopped, and only what has changed since it was last run. Sentences are left as they are. Fails where
 * fewer than 80 % of a room (or of the files that were asked for) are noticed. By hand: a room takes from minutes to hours. The report of each file lies in
 * .cache/mutants.
 *
 * `npm run mutants -- --of 10 [--seed 2] [room ...]` takes one declaration of ten, drawn by the seed: a room in minutes, and another tenth with another seed.
 */
const ROOMS = ['margin', 'curve', 'compare', 'advise', 'exchange'];
/** So many of a hundred changes must be noticed. */
const NOTICED = 80;

await ensurePackages();
const { values: options, positionals: asked } = parseArgs({
  options: { of: { type: 'string', default: '1' }, seed: { type: 'string', default: '1' } },
  allowPositionals: true,
});
const of = Number(options.of);
if (!Number.isInteger(of) || of < 1) {
  console.error(`--of ${options.of} is no whole number of 1 or more: say --of 10 for one declaration of ten.`);
  process.exit(2);
}
const folder = join(ROOT, '.cache', 'mutants');
mkdirSync(folder, { recursive: true });

const filesOf = (room) => readdirSync(join(ROOT, 'core', room)).filter((name) => /(?<!\.test|\.d|^index)\.ts$/.test(name));

/** The declarations of a file that were drawn, as Stryker names a stretch of it. */
async function drawnOf(room, name) {
  const { default: ts } = await import('typescript');
  const path = `core/${room}/${name}`;
  const source = ts.createSourceFile(path, readFileSync(join(ROOT, path), 'utf8'), ts.ScriptTarget.Latest);
  const lineAt = (position) => source.getLineAndCharacterOfPosition(position).line + 1;
  return source.statements.flatMap((each, index) => {
    const drawn = createHash('sha256').update(`${options.seed} ${path} ${index}`).digest().readUInt32BE();
    return drawn % of === 0 ? [`${path}:${lineAt(each.getStart(source))}-${lineAt(each.end)}`] : [];
  });
}

/** Counts changes. @returns how many were made and how many of them noticed; nothing where they could not be counted */
async function counted(room, name, mutate) {
  const file = (ending) => `.cache/mutants/${room}.${name}${ending}`;
  const config = {
    testRunner: 'vitest',
    vitest: { configFile: 'scripts/mutants.config.ts', related: false },
    plugins: ['@stryker-mutator/vitest-runner'],
    mutate,
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
  const counts =
    of === 1
      ? files.map((name) => [name.replace(/\.ts$/, ''), [`core/${room}/${name}`]])
      : [[`one-of-${of}-by-${options.seed}`, (await Promise.all(files.map((name) => drawnOf(room, name)))).flat()]];
  for (const [name, mutate] of counts) {
    const found = mutate.length > 0 && (await counted(room, name, mutate));
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
