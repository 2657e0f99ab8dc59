import { ensureBuild, ensureChromium, ensurePackages, runPackage } from './setup.mjs';

/** `npm run benchmark [-- name…]`: builds the app and the pages it is measured beside, then measures. */
await ensurePackages();
const chromium = ensureChromium();
await ensureBuild();
for (const page of ['bare', 'ink', 'plan', 'files', 'draw']) {
  const made = await runPackage('vite', [
    'build',
    `benchmarks/pages/${page}`,
    '--config',
    'benchmarks/vite.config.ts',
    '--outDir',
    `../../../.cache/pages/${page}`,
    '--emptyOutDir',
    '--logLevel',
    'error',
  ]);
  if (made !== 0) process.exit(made);
}
process.exitCode = await runPackage('tsx', ['benchmarks/main.ts', ...process.argv.slice(2)], {
  env: { ...process.env, CHROMIUM: chromium },
});
