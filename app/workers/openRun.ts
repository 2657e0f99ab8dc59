import type { Alignment, SpanFigures } from '@core/curve';
import type { LaidLog } from '@core/ink';
import { askedNow, assumedNow, mannerNow } from '@core/quantity';
import type { Samples } from '@core/samples';
import { proxy, type Remote } from 'comlink';
import { sampleKeys } from '../ledger/samples';
import type { Dots } from '../strip/trace';
import { openFiled, type Glimpse, type Opened } from './opened';
import type { Apart, Opener } from './opener';
import { wrapped } from './wrapped';

interface Opening {
  worker: Worker;
  opener: Remote<Opener>;
}

/** The streamed run that was opened last: its worker holds the columns, so that a closer look costs no reading. */
let last: (Opening & { id: string }) | undefined;

/** Runs that are opened at once, each in a worker of its own; sixty that are compared take turns. */
const MOST = Math.max(2, Math.min(4, navigator.hardwareConcurrency));
let working = 0;
const waiting: ((free: Opening) => void)[] = [];

function begun(): Opening {
  const worker = new Worker(new URL('./opener.ts', import.meta.url), { type: 'module' });
  return { worker, opener: wrapped<Opener>(worker) };
}

/** A worker that has nothing to do: the one that was last done, a new one, or the next that is done. */
function free(): Promise<Opening> | Opening {
  if (working >= MOST) return new Promise((resolve) => waiting.push(resolve));
  working += 1;
  const kept = last;
  last = undefined;
  return kept ?? begun();
}

/** Hands a worker on to who waits for one; the one that is done last of all stays. */
function done(one: Opening, id: string): void {
  const next = waiting.shift();
  if (next) {
    next(one);
    return;
  }
  working -= 1;
  last?.worker.terminate();
  last = { ...one, id };
}

async function openStreamed(id: string, first?: (glimpse: Glimpse) => void): Promise<Opened> {
  const one = await free();
  try {
    const opened = await one.opener.open(id, { manner: mannerNow(), assumed: assumedNow(), asked: askedNow() }, first && proxy(first));
    done(one, id);
    return opened;
  } catch (error) {
    one.worker.terminate();
    const next = waiting.shift();
    if (next) next(begun());
    else working -= 1;
    throw error;
  }
}

/**
 * Opens a filed run: one that was read by hand here, for that takes no longer than a worker takes to begin.
 *
 * @param first is told what can be drawn of a streamed run, before its figures are worked out
 * @throws {StorageTrouble} when there is none of that id
 */
export const openRun = async (id: string, first?: (glimpse: Glimpse) => void): Promise<Opened> =>
  (await sampleKeys(id)).length === 0 ? openFiled(id) : openStreamed(id, first);

/** Does one piece of work on a stored run in a worker of its own. */
async function apartFrom<Result>(work: (opener: Remote<Opener>) => Promise<Result>): Promise<Result> {
  const worker = new Worker(new URL('./opener.ts', import.meta.url), { type: 'module' });
  try {
    return await work(wrapped<Opener>(worker));
  } finally {
    worker.terminate();
  }
}

/** Where a log that is not in a run yet lies in it; `undefined` where nothing of both rises and falls. */
export const alignNew = (id: string, samples: Samples): Promise<Alignment | undefined> =>
  apartFrom((opener) => opener.alignNew(id, samples));

/** Where a log of a run lies in it. */
export const alignAgain = (id: string, log: string | undefined): Promise<Alignment | undefined> =>
  apartFrom((opener) => opener.alignAgain(id, log));

/** A run and one of its logs apart, as a strip draws them. */
export const runApart = (id: string, { log, zero, drift }: LaidLog): Promise<Apart> =>
  apartFrom((opener) => opener.apart(id, log, zero, drift));

/** Least, mean and most of a streamed run within a stretch. */
export async function spanWithin(id: string, from: number, to: number): Promise<SpanFigures[]> {
  if (last?.id !== id) await openStreamed(id);
  return last?.id === id ? last.opener.span(from, to) : [];
}

/** What is to be drawn of a streamed run between two moments, as fine as it was streamed. */
export async function drawnWithin(id: string, from: number, to: number): Promise<Dots> {
  if (last?.id !== id) await openStreamed(id);
  return last?.id === id ? last.opener.within(from, to) : {};
}
