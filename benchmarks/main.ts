import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { appOf, type ServedLogbook } from '../server/serve';
import { draw } from './draw';
import { exportFigures } from './export';
import type { Figure } from './harness';
import { importFigures, logbookFigures } from './import';
import { ink } from './ink';
import { compare, memory, open } from './opened';
import { planFigure } from './plan';
import { readFigure } from './read';
import { readersFigure } from './readers';
import { recover } from './recover';
import { simulateFigure } from './simulate';
import { start } from './start';
import { study } from './study';
import { weight } from './weight';

/** `npm run benchmark [-- name…]`: each figure as one JSON line. Fails when one misses its bar. */
type Addresses = Record<'demo' | 'own' | 'bare' | 'ink' | 'plan' | 'files' | 'draw', string>;
const FIGURES: Readonly<Record<string, (addresses: Addresses) => Promise<Figure[]>>> = {
  start,
  weight,
  ink,
  recover,
  simulate: simulateFigure,
  plan: planFigure,
  import: importFigures,
  logbook: logbookFigures,
  read: readFigure,
  draw,
  memory,
  open,
  compare,
  study,
  readers: readersFigure,
  export: exportFigures,
};

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in FIGURES));
if (unknown.length > 0) {
  console.error(`There is no benchmark called ${unknown.join(', ')}. Say some of ${Object.keys(FIGURES).join(', ')}.`);
  process.exit(2);
}

/** Serves a build on any free port: nothing here is a logbook to come back to. */
function served(folder: string, logbook: ServedLogbook): Promise<string> {
  const server = createServer(appOf(fileURLToPath(new URL(folder, import.meta.url)), logbook));
  return new Promise((resolve) => {
    server.listen(0, '127.0.0.1', () => {
      resolve(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    });
  });
}

const addresses: Addresses = {
  demo: await served('../dist', 'testDemo'),
  own: await served('../dist', 'test'),
  bare: await served('../.cache/pages/bare', 'test'),
  ink: await served('../.cache/pages/ink', 'test'),
  plan: await served('../.cache/pages/plan', 'test'),
  files: await served('../.cache/pages/files', 'test'),
  draw: await served('../.cache/pages/draw', 'test'),
};
let missed = 0;
for (const name of asked.length > 0 ? asked : Object.keys(FIGURES)) {
  for (const figure of (await FIGURES[name]?.(addresses)) ?? []) {
    console.log(JSON.stringify(figure));
    missed += figure.ok ? 0 : 1;
  }
}
process.exit(missed > 0 ? 1 : 0);
