import { ensurePackages, runPackage } from './setup.mjs';

/** `npm run forecast [-- charges]`: the test of the forecast's band over two hundred charges, or as many as it is told. */
const [charges = '200'] = process.argv.slice(2);
await ensurePackages();
process.exitCode = await runPackage('vitest', ['run', 'core/run/forecast'], { env: { ...process.env, CHARGES: charges } });
