import { ensurePackages, runPackage } from './setup.mjs';

await ensurePackages();
process.exitCode = await runPackage('vitest', ['run', ...process.argv.slice(2)]);
