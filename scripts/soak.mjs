import { join } from 'node:path';
import { ROOT, run } from './setup.mjs';

/** `npm run soak [-- rounds [seed]]`: the torture test of the ink, two hundred rounds of it unless said otherwise. */
const [rounds = '200', seed = String(Date.now() % 1_000_000)] = process.argv.slice(2);
process.exitCode = await run(process.execPath, [join(ROOT, 'scripts', 'e2e.mjs'), 'soak'], {
  env: { ...process.env, SOAK: rounds, SEED: seed },
});
