import { ensurePackages, runPackage } from './setup.mjs';

/**
 * `npm run thorough`: whole, what the tests draw a little of: every case of the exact solver, and three times as many runs as wild as the schemas let
 * in; and fifty times as many schedules of what is done at once. What simulated studies and forecasts come to is `npm run truth`.
 */
await ensurePackages();
const env = { ...process.env, THOROUGH: 'yes' };
const drawn = ['core/plan/search', 'core/everyFigure', 'core/everyPage', 'app/logbook/races'];
// It takes as long as it takes: an hour at most for each.
process.exitCode = await runPackage('vitest', ['run', '--testTimeout=3600000', ...drawn], { env });
