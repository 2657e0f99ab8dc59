import { ensurePackages, runPackage } from './setup.mjs';

/** `npm run fleet [-- reviewers]`: made-up logbooks as Parquet, and the questions of docs/analysis.md asked of them; prints answers and times. */
await ensurePackages();
process.exitCode = await runPackage('tsx', ['fleet/main.ts', ...process.argv.slice(2)]);
