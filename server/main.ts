import { fileURLToPath } from 'node:url';
import { PORTS, serve, type Logbook } from './serve';

/** `tsx server/main.ts own|demo|test`: serves the build at that logbook's address until it is told to stop. */
const logbook = (process.argv[2] ?? 'own') as Logbook;
if (!(logbook in PORTS)) {
  console.error(`There is no logbook called ${logbook}. Say one of ${Object.keys(PORTS).join(', ')}.`);
  process.exit(2);
}

const outcome = await serve(
  fileURLToPath(new URL('../dist', import.meta.url)),
  logbook,
  process.env.HOST,
  (process.env.NAMES ?? '').split(/[\s,]+/).filter(Boolean),
);
const NAMES: Readonly<Record<string, string>> = { own: 'Inkpath Log', demo: 'Inkpath Log, Saltmarsh demo' };
const name = NAMES[logbook] ?? `Inkpath Log (${logbook})`;
if (outcome.state === 'refused') {
  console.error(outcome.why);
  process.exit(1);
} else if (outcome.state === 'already there') {
  console.log(`${name} already answers at ${outcome.address}`);
} else {
  console.log(`${name}: open ${outcome.address}   (Ctrl C stops it)`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      void outcome.close().then(() => process.exit(0));
    });
  }
}
