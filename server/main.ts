import { fileURLToPath } from 'node:url';
import { PORTS, serve, type ServedLogbook } from './serve';

/** `tsx server/main.ts own|demo|test`: serves the build at that logbook's address until it is told to stop. */
const logbook = (process.argv[2] ?? 'own') as ServedLogbook;
if (!(logbook in PORTS)) {
  console.error(`There is no logbook called ${logbook}. Say one of ${Object.keys(PORTS).join(', ')}.`);
  process.exit(2);
}

const folder = fileURLToPath(new URL('../dist', import.meta.url));
const names = (process.env.NAMES ?? '').split(/[\s,]+/).filter(Boolean);
const about = { host: process.env.HOST, names };

/** A logbook of one’s own has the demo beside it, where its address is free. */
const BESIDE: Partial<Record<ServedLogbook, ServedLogbook>> = { own: 'demo', test: 'testDemo' };
const beside = BESIDE[logbook];
const demo = beside && (await serve(folder, beside, about));
const demoPort = beside && demo?.state !== 'refused' ? PORTS[beside] : undefined;
const outcome = await serve(folder, logbook, { ...about, demoPort });
const NAMES: Readonly<Record<string, string>> = { own: 'Inkpath Log', demo: 'Inkpath Log, Saltmarsh demo' };
const nameOf = (of: ServedLogbook) => NAMES[of] ?? `Inkpath Log (${of})`;

if (outcome.state === 'refused') {
  console.error(outcome.why);
  process.exit(1);
}
console.log(
  outcome.state === 'already there'
    ? `${nameOf(logbook)} already answers at ${outcome.address}`
    : `${nameOf(logbook)}: open ${outcome.address}   (Ctrl C stops it)`,
);
if (beside && demo && demo.state !== 'refused') console.log(`${nameOf(beside)}: ${demo.address}`);
const ours = [outcome, demo].flatMap((each) => (each?.state === 'listening' ? [each] : []));
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    void Promise.all(ours.map(({ close }) => close())).then(() => process.exit(0));
  });
}
