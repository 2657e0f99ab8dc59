import { wrap, type Remote } from 'comlink';
import { ImportError, requireReadable, type CsvOptions, type CsvRun, type Logbook } from '@core';
import type { Exchange } from '../workers/exchange';

/** What a file turned out to be. */
export type ReadFile = { kind: 'logbook'; logbook: Logbook } | { kind: 'csv'; csv: CsvRun };

let worker: Remote<Exchange> | undefined;

function exchange(): Remote<Exchange> {
  worker ??= wrap<Exchange>(new Worker(new URL('../workers/exchange.ts', import.meta.url), { type: 'module' }));
  return worker;
}

/**
 * Reads a file in a worker: JSON as a logbook, anything else as CSV. Stores nothing.
 *
 * @throws {ImportError} saying what, where and the way out
 */
export async function readFile(chosen: File, options: CsvOptions): Promise<ReadFile> {
  requireReadable(chosen);
  const text = await chosen.text();
  try {
    if (/\.json$/i.test(chosen.name) || /^\s*[{[]/.test(text))
      return { kind: 'logbook', logbook: await exchange().readLogbook(text, chosen.name) };
    return { kind: 'csv', csv: await exchange().readCsv(text, chosen.name, options) };
  } catch (error) {
    // An error keeps its message but not its class on the way out of a worker.
    if (error instanceof Error && error.name === 'ImportError') throw new ImportError(error.message);
    throw error;
  }
}
