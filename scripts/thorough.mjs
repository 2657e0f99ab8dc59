import { ensurePackages, runPackage } from './setup.mjs';

/**
 * `npm run thorough [-- charges]`: whole, what the tests draw a little of: the forecast's band over two hundred charges, or as many as it is told,
 * every case of the exact solver, and three times as many runs as wild as the schemas let in.
 */
const [charges = '200'] = process.argv.slice(2);
await ensurePackages();
const env = { ...process.env, CHARGES: charges, THOROUGH: 'yes' };
process.exitCode = await runPackage('vitest', ['run', 'core/run/forecast', 'core/plan/search', 'core/everyFigure'], { env });
