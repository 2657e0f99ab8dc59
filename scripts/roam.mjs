import { join } from 'node:path';
import { ROOT, run } from './setup.mjs';

/** `npm run roam [-- steps [seed]]`: a walk at random through the interface, five hundred steps unless said otherwise. */
const [steps = '500', seed = String(Date.now() % 1_000_000)] = process.argv.slice(2);
process.exitCode = await run(process.execPath, [join(ROOT, 'scripts', 'e2e.mjs'), 'roam.spec'], {
  env: { ...process.env, ROAM: steps, SEED: seed },
});
