import { ensurePackages, runPackage } from './setup.mjs';

/** One-way imports, types, code, layout of code, unused code. `npm run lint -- code` is the slowest of them alone, `-- rest` the others. */
await ensurePackages();
/** Side by side, so that two cores are both at work. */
const LANES = {
  code: [['eslint', ['.', '--max-warnings', '0']]],
  rest: [
    ['dependency-cruiser', ['core', 'app', 'server', 'demo', '--config', 'dependency-cruiser.config.mjs']],
    ['vue-tsc', ['--noEmit']],
    ['prettier', ['--check', '--log-level', 'warn', '.']],
    ['knip', []],
  ],
};

async function worked(steps) {
  for (const [name, args] of steps) {
    console.log(`· ${name}`);
    if ((await runPackage(name, args)) === 0) continue;
    console.error(`${name} found something: see above.`);
    return false;
  }
  return true;
}
const asked = process.argv.slice(2);
const unknown = asked.filter((lane) => !(lane in LANES));
if (unknown.length > 0) {
  console.error(`There is nothing called ${unknown.join(', ')} to lint. Say ${Object.keys(LANES).join(' or ')}, or nothing for both.`);
  process.exit(2);
}
const lanes = asked.length > 0 ? asked : Object.keys(LANES);
const done = await Promise.all(lanes.map((lane) => worked(LANES[lane])));
process.exitCode = done.every(Boolean) ? 0 : 1;
