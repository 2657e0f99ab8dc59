import { ensurePackages, runPackage } from './setup.mjs';

/** One-way imports, types, code, layout of code, unused code. */
await ensurePackages();
/** The slowest step has a lane of its own, so that two cores are both at work. */
const LANES = [
  [['eslint', ['.', '--max-warnings', '0']]],
  [
    ['dependency-cruiser', ['core', 'app', 'server', 'demo', '--config', 'dependency-cruiser.config.mjs']],
    ['vue-tsc', ['--noEmit']],
    ['prettier', ['--check', '--log-level', 'warn', '.']],
    ['knip', []],
  ],
];

async function worked(steps) {
  for (const [name, args] of steps) {
    console.log(`· ${name}`);
    if ((await runPackage(name, args)) === 0) continue;
    console.error(`${name} found something: see above.`);
    return false;
  }
  return true;
}
const done = await Promise.all(LANES.map(worked));
process.exitCode = done.every(Boolean) ? 0 : 1;
