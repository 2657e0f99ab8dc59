import type { Alignment, SpanFigures } from '@core/curve';
import type { LaidLog } from '@core/ink';
import { askedNow, assumedNow, mannerNow } from '@core/quantity';
import type { Samples } from '@core/samples';
import { proxy, type Remote } from 'comlink';
import { sampleKeys } from '../ledger/samples';
import type { Dots } from '../strip/trace';
import { besideFiled, openFiled, type Beside, type Glimpse, type Opened } from './opened';
import type { Apart, Opener, Ways } from './opener';
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

/** Opens a streamed run in the next worker that is free. */
async function streamed<Result>(id: string, work: (opener: Remote<Opener>, ways: Ways) => Promise<Result>): Promise<Result> {
  const one = await free();
  try {
    const result = await work(one.opener, { manner: mannerNow(), assumed: assumedNow(), asked: askedNow() });
    done(one, id);
    return result;
  } catch (error) {
    one.worker.terminate();
    const next = waiting.shift();
    if (next) next(begun());
    else working -= 1;
    throw error;
  }
}

const openStreamed = (id: string, first?: (glimpse: Glimpse) => void): Promise<Opened> =>
  streamed(id, (opener, ways) => opener.open(id, ways, first && proxy(first)));

const isStreamed = async (id: string): Promise<boolean> => (await sampleKeys(id)).length > 0;

/**
 * Opens a filed run: one that was read by hand here, for that takes no longer than a worker takes to begin.
 *
 * @param first is told what can be drawn of a streamed run, before its figures are worked out
 * @throws {StorageTrouble} when there is none of that id
 */
export const openRun = async (id: string, first?: (glimpse: Glimpse) => void): Promise<Opened> =>
  (await isStreamed(id)) ? openStreamed(id, first) : openFiled(id);

/** Opens a filed run to be laid beside others. @param most rows that a strip of it draws of one track @throws {StorageTrouble} when there is none of that id */
export const openBeside = async (id: string, most: number): Promise<Beside> =>
  (await isStreamed(id)) ? streamed(id, (opener, ways) => opener.beside(id, ways, most)) : besideFiled(id);

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
