import { ensurePackages, runPackage } from './setup.mjs';

/** One-way imports, types, code, layout of code, unused code. */
await ensurePackages();
const STEPS = [
  ['dependency-cruiser', ['core', 'app', 'server', 'demo', '--config', 'dependency-cruiser.config.mjs']],
  ['vue-tsc', ['--noEmit']],
  ['eslint', ['.', '--max-warnings', '0']],
  ['prettier', ['--check', '--log-level', 'warn', '.']],
  ['knip', []],
];
for (const [name, args] of STEPS) {
  console.log(`· ${name}`);
  const code = await runPackage(name, args);
  if (code !== 0) {
    console.error(`${name} found something: see above.`);
    process.exit(code);
  }
}
