import type { Alignment, SpanFigures } from '@core/curve';
import { foldStored, type StoredRun } from '@core/exchange';
import type { LaidLog } from '@core/ink';
import { askedNow, assumedNow, mannerNow } from '@core/quantity';
import { proxy, type Remote } from 'comlink';
import { least as minBy } from 'd3-array';
import { eachFiled, filedInk } from '../ledger/filed';
import { sampleKeys, shortStreams } from '../ledger/samples';
import type { Dots } from '../strip/trace';
import { besideStored, openedOf, type Beside, type Glimpse, type Opened } from './opened';
import type { Apart, Opener, OpenerWays } from './opener';
import { fromWire } from './wire';
import { wrappedWorker } from './wrapped';

/** A worker that opens runs. */
interface Opening {
  worker: Worker;
  opener: Remote<Opener>;
  /** How much it has in hand. */
  tasks: number;
  /** The streamed run whose columns it holds, so that a closer look costs no reading. */
  holds?: string | undefined;
  /** While it has nothing to do: when it ends. */
  ends?: ReturnType<typeof setTimeout> | undefined;
}

/**
 * Workers at once. One core is left to the page; and each worker has to learn its work anew, which on two cores costs more than two of them gain.
 */
const MOST_OPENERS = Math.max(1, Math.min(4, navigator.hardwareConcurrency - 1));
/**
 * What a worker may have in hand, with it: of runs to be laid beside each other it reads one handful while it works another out, one that is opened
 * by itself waits for none of those that are still to come, and what nobody waits for yet is done while there is nothing else to do.
 */
const IN_HAND = { open: 4, beside: 3, ahead: 1 };
/** Runs that are read at once. */
const RUNS_AT_ONCE = 6;
const handfulsOf = (ids: readonly string[]): string[][] =>
  Array.from({ length: Math.ceil(ids.length / RUNS_AT_ONCE) }, (_, each) => ids.slice(each * RUNS_AT_ONCE, (each + 1) * RUNS_AT_ONCE));
/** How long a worker with nothing to do stays, in milliseconds: what it worked out is stored in that time (worked.ts). */
const REST = 5000;

const openings: Opening[] = [];
const waiting: { max: number; take: (free: Opening) => void }[] = [];

function begun(): Opening {
  const worker = new Worker(new URL('./opener.ts', import.meta.url), { type: 'module' });
  const one: Opening = { worker, opener: wrappedWorker<Opener>(worker, () => end(one)), tasks: 0 };
  openings.push(one);
  return one;
}

/** Ends a worker, or one that has died: who waits for it takes another. */
function end(one: Opening): void {
  one.worker.terminate();
  const place = openings.indexOf(one);
  if (place >= 0) openings.splice(place, 1);
  for (const { max, take } of waiting.splice(0)) void free(max).then(take);
}

/** A worker that has less in hand than it may: the one with the least, or a new one while all are busy and there may be more. */
function free(max: number): Promise<Opening> {
  const least = minBy(openings, ({ tasks }) => tasks);
  const next = least?.tasks === 0 || openings.length === MOST_OPENERS ? least : begun();
  if (!next || next.tasks >= max) return new Promise((take) => waiting.push({ max, take }));
  clearTimeout(next.ends);
  next.tasks += 1;
  return Promise.resolve(next);
}

/** Hands a worker on to who waits for one. Of those that have nothing to do for a while, the last stays. */
function done(one: Opening): void {
  one.tasks -= 1;
  if (!openings.includes(one)) return;
  const next = waiting.findIndex(({ max }) => one.tasks < max);
  if (next >= 0) {
    one.tasks += 1;
    waiting.splice(next, 1)[0]?.take(one);
  } else if (one.tasks === 0)
    one.ends = setTimeout(() => {
      if (openings.length > 1) end(one);
    }, REST);
}

/** Has a worker begin, for a run that is stored just now and opened next. */
export const readyOpener = (): Promise<void> => free(IN_HAND.open).then(done);

/** Opens a run in the next worker that is free. */
async function apartIn<Result>(max: number, work: (one: Opening, ways: OpenerWays) => Promise<Result>): Promise<Result> {
  const one = await free(max);
  try {
    return await work(one, { manner: mannerNow(), assumed: assumedNow(), asked: askedNow() });
  } finally {
    done(one);
  }
}

const openApart = (id: string, first?: (glimpse: Glimpse) => void): Promise<Opened> =>
  apartIn(IN_HAND.open, async (one, ways) => {
    one.holds = undefined;
    const opened = await one.opener.open(id, ways, first && proxy(first));
    one.holds = id;
    return opened;
  });

/** Entries of a run that is opened in the page, for that takes no longer than a worker takes to begin. */
const MOST_HERE = 1000;

const isStreamed = async (id: string): Promise<boolean> => (await sampleKeys(id)).length > 0;
const isLong = ({ entries }: Pick<StoredRun, 'entries'>): boolean => entries.length > MOST_HERE;

/**
 * Opens a filed run: apart where a meter streamed or much was read by hand, so that the page goes on.
 *
 * @param first is told what can be drawn of a streamed run, before its figures are worked out
 * @throws {StorageTrouble} when there is none of that id
 */
export async function openRun(id: string, first?: (glimpse: Glimpse) => void): Promise<Opened> {
  if (await isStreamed(id)) return openApart(id, first);
  const run = await filedInk(id);
  return isLong(run) ? openApart(id, first) : openedOf(foldStored(run));
}

/**
 * Opens filed runs to be laid beside each other. Where they are many, all are opened apart, in handfuls, so that the page goes on; of few, those that
 * are small are opened here.
 *
 * @param max rows that a strip of them draws of one track
 * @param tell how many are there
 * @returns those that are in this logbook
 */
export async function openBeside(ids: readonly string[], max: number, tell: (done: number) => void): Promise<Map<string, Beside>> {
  const found = new Map<string, Beside>();
  const apart = (handful: readonly string[]) =>
    apartIn(IN_HAND.beside, async ({ opener }, ways) => {
      for (const [index, wire] of (await opener.beside(handful, ways, max)).entries())
        if (wire) found.set(handful[index] ?? '', fromWire(wire));
    });
  const one = async (id: string) => {
    const [run] = (await isStreamed(id)) ? [] : await eachFiled([id], (stored) => (isLong(stored) ? undefined : besideStored(stored, max)));
    if (run) found.set(id, run);
    else await apart([id]);
  };
  const works = ids.length > RUNS_AT_ONCE ? handfulsOf(ids).map(apart) : ids.map(one);
  await Promise.all(
    works.map((work) =>
      work.then(() => {
        tell(found.size);
      }),
    ),
  );
  return found;
}

/**
 * Works streamed runs out as they are laid beside many others, while nobody waits for anything: a comparison finds them so. Long ones are left, for who
 * comes meanwhile would wait.
 *
 * @param max rows that a strip of them draws of one track
 */
export async function workAhead(ids: readonly string[], max: number): Promise<void> {
  for (const handful of handfulsOf(await shortStreams(ids)))
    await apartIn(IN_HAND.ahead, ({ opener }, ways) => opener.ahead(handful, ways, max));
}

/** Does one piece of work on a stored run in a worker of its own. */
async function apartFrom<Result>(work: (opener: Remote<Opener>) => Promise<Result>): Promise<Result> {
  const worker = new Worker(new URL('./opener.ts', import.meta.url), { type: 'module' });
  try {
    return await work(wrappedWorker<Opener>(worker));
  } finally {
    worker.terminate();
  }
}

/** Where a log of a run lies in it; `undefined` where nothing of both rises and falls. */
export const alignAgain = (id: string, log: string | undefined): Promise<Alignment | undefined> =>
  apartFrom((opener) => opener.alignAgain(id, log));

/** A run and one of its logs apart, as a strip draws them. */
export const runApart = (id: string, { log, zero, drift }: LaidLog): Promise<Apart> =>
  apartFrom((opener) => opener.apart(id, log, zero, drift));

/** The worker that holds the columns of a run. */
async function holderOf(id: string): Promise<Remote<Opener> | undefined> {
  const holder = () => openings.find(({ holds }) => holds === id)?.opener;
  if (!holder()) await openApart(id);
  return holder();
}

/** Least, mean and most of a streamed run within a stretch. */
export const spanWithin = async (id: string, from: number, to: number): Promise<SpanFigures[]> =>
  (await (await holderOf(id))?.span(id, from, to)) ?? [];

/** What is to be drawn of a streamed run between two moments, as fine as it was streamed. */
export const drawnWithin = async (id: string, from: number, to: number): Promise<Dots> =>
  (await (await holderOf(id))?.within(id, from, to)) ?? {};
