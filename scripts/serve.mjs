import { ensureBuild, ensurePackages, runPackage } from './setup.mjs';

/** `npm run demo`, `npm start`: sets up, builds, serves. `HOST=0.0.0.0` lets other devices in. */
await ensurePackages();
await ensureBuild();
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => undefined);
process.exitCode = await runPackage('tsx', ['server/main.ts', process.argv[2] ?? 'own']);
