import { join } from 'node:path';
import { ensurePackages, ROOT, run, runPackage } from './setup.mjs';

/**
 * `npm run thorough`: whole, what the tests draw a little of: every case of the exact solver, and three times as many runs as wild as the schemas let
 * in; every browser test, those marked @long among them; and fifty times as many schedules of what is done at once. What simulated studies and
 * forecasts come to is `npm run truth`.
 */
await ensurePackages();
const env = { ...process.env, THOROUGH: 'yes' };
// It takes as long as it takes: an hour at most for each.
const thoroughly = (files, more = {}) => runPackage('vitest', ['run', '--testTimeout=3600000', ...files], { env: { ...env, ...more } });
process.exitCode = await thoroughly(['core/plan/search', 'core/everyFigure', 'core/everyPage', 'app/exports/roundTrip']);
process.exitCode ||= await run(process.execPath, [join(ROOT, 'scripts', 'e2e.mjs'), '--reporter=line'], { env });
// In processes of their own, for each schedule leaves two tabs behind in memory.
for (let handful = 0; handful < 20 && !process.exitCode; handful += 1)
  process.exitCode = await thoroughly(['app/logbook/races'], { SCHEDULES: '5000' });
