import { ensurePackages, runPackage } from './setup.mjs';

/** `npm run truth [-- studies devices]`: simulated studies with known truth, and forecasts; prints its table and writes docs/truth.md. */
await ensurePackages();
process.exitCode = await runPackage('tsx', ['truth/main.ts', ...process.argv.slice(2)]);
