import { ensureBuild, ensureChromium, ensurePackages, ensureWholeChromium, runPackage } from './setup.mjs';

/** `npm run e2e -- --grep @slice` runs a part. */
await ensurePackages();
const [chromium, whole] = [ensureChromium(), ensureWholeChromium()];
await ensureBuild();
process.exitCode = await runPackage('@playwright/test', ['test', ...process.argv.slice(2)], {
  env: { ...process.env, CHROMIUM: chromium, CHROMIUM_WHOLE: whole },
});
