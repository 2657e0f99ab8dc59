import { proxy, type Remote } from 'comlink';
import { ImportError, type CsvOptions, type Peek } from '@core/exchange';
import type { Progress } from '../kit/work';
import type { Incoming } from '../ledger/incoming';
import type { Exchange, ReadFile } from './exchange';
import { wrappedWorker } from './wrapped';

/** A worker that reads and writes files, for one piece of work. */
export interface ExchangeWorker {
  remote: Remote<Exchange>;
  /** Ends it: nothing more comes of what it was doing. */
  end: () => void;
}

export function exchangeWorker(): ExchangeWorker {
  const worker = new Worker(new URL('./exchange.ts', import.meta.url), { type: 'module' });
  return {
    remote: wrappedWorker<Exchange>(worker),
    end: () => {
      worker.terminate();
    },
  };
}

/** A file that was read. What was read of it is at hand in a worker until it is put away. */
export type FileAtHand = ReadFile & Pick<ExchangeWorker, 'remote'>;

/**
 * Reads a file in a worker: JSON as a logbook, anything else as CSV. Stores nothing.
 *
 * @param progress how much of it was read, in bytes
 * @param signal   calls it off, or puts it away: what is asked of it then never resolves
 * @throws {ImportError} saying what, where and the way out
 */
export async function readFile(chosen: File, options: CsvOptions, progress: Progress, signal: AbortSignal): Promise<FileAtHand> {
  const { remote, end } = exchangeWorker();
  signal.addEventListener('abort', end);
  try {
    return { ...(await remote.read(chosen, chosen.name, options, proxy(progress))), remote };
  } catch (error) {
    end();
    throw unreadable(error, chosen.name);
  }
}

/** What comes in of a file that was read, once it was said as what it is taken. */
export const incomingFrom = ({ look, storeApart, next, join }: Remote<Exchange>): Incoming => ({
  look,
  storeApart: (step) => storeApart(proxy(step)),
  next,
  join,
});

/** A file that the browser itself could not read: moved, renamed or changed since it was chosen. */
function unreadable(error: unknown, name: string): unknown {
  const isGone = error instanceof Error && ['NotReadableError', 'NotFoundError', 'SecurityError'].includes(error.name);
  return isGone ? new ImportError(`${name} can no longer be read: it was moved or changed since. Choose it again.`) : error;
}

/** Looks at the head of a log before it is read. */
export async function peekFile(chosen: File): Promise<Peek> {
  const { remote, end } = exchangeWorker();
  try {
    return await remote.peek(chosen);
  } finally {
    end();
  }
}
