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

/** The streamed run that was opened last: its worker holds the columns, so that a closer look costs no reading. */
let last: { id: string; worker: Worker; opener: Remote<Opener> } | undefined;

/** Each run has a worker of its own, for several may be opened at once; the one that is done last stays. */
async function openStreamed(id: string, first: (glimpse: Glimpse) => void = () => undefined): Promise<Opened> {
  const worker = new Worker(new URL('./opener.ts', import.meta.url), { type: 'module' });
  const opener = wrapped<Opener>(worker);
  try {
    const opened = await opener.open(id, { manner: mannerNow(), assumed: assumedNow(), asked: askedNow() }, proxy(first));
    last?.worker.terminate();
    last = { id, worker, opener };
    return opened;
  } catch (error) {
    worker.terminate();
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
