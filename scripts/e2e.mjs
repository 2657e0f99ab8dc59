import { ensureBuild, ensureChromium, ensurePackages, runPackage } from './setup.mjs';

/** `npm run e2e -- --grep @slice` runs a part. */
await ensurePackages();
const chromium = ensureChromium();
await ensureBuild();
process.exitCode = await runPackage('@playwright/test', ['test', ...process.argv.slice(2)], {
  env: { ...process.env, CHROMIUM: chromium },
});
