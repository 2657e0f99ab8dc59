import { ensurePackages, ensureSheetReader, runPackage } from './setup.mjs';

await ensurePackages();
const env = { ...process.env, SHEET_READER: ensureSheetReader() ?? '' };
process.exitCode = await runPackage('vitest', ['run', ...process.argv.slice(2)], { env });
