import { nanoid } from 'nanoid';
import type { Entry } from '@core/ink';
import { seldom, type Progress } from '../kit/work';
import { act, type Undo } from './act';
import { isAsPrepared, isSame, putFiled, type Filing, type Prepared } from './acts';
import type { Incoming, Look } from './incoming';
import { inkKey, keyOf } from './keys';
import { exclusively } from './locks';
import { StorageTrouble, troubleFrom, whyOf } from './storageTrouble';
import { IMPORTING, sweepForImport } from './sweep';
import type { StoredRow } from './transactions';
import type { Unnamed } from './unnamed';

/**
 * An import is an act like the others (acts.ts). What is large is stored before it and shown by nothing; then one transaction lists all of it. It has
 * a file of its own, for it is fetched when it is wanted.
 */
export interface ImportWays {
  /** Values of the logbook that come with it, each unless its key is taken. */
  rows?: readonly StoredRow[];
  /** How much of it has been stored: of its runs, streams and pictures. */
  progress?: Progress;
  /** Calls it off: nothing of it stays. */
  signal?: AbortSignal;
}

/**
 * Imports runs, joined with copies already here, live ones too, and whatever comes with them: all of it or nothing.
 *
 * @returns the ids of the runs
 * @throws {ImportError | StorageTrouble} saying so, with nothing stored; what the signal was called off by
 */
export const importAll = (incoming: Incoming, ways: ImportWays = {}): Promise<{ ids: string[]; undo: Undo }> =>
  exclusively(IMPORTING, async () => {
    try {
      await sweepForImport();
      return await importNow(incoming, ways);
    } catch (cause) {
      await sweepForImport().catch(() => undefined);
      if (ways.signal?.aborted || (cause instanceof Error && !(cause instanceof StorageTrouble))) throw cause;
      const trouble = cause instanceof StorageTrouble ? cause : troubleFrom(cause);
      throw new StorageTrouble(whyOf(trouble), 'Nothing was imported.', { cause });
    }
  });

async function importNow(incoming: Incoming, { rows = [], progress = () => undefined, signal }: ImportWays) {
  const calledOff = signal && abortOf(signal);
  /** What is awaited of a worker that was ended would never come. */
  const unlessCalledOff = async <Result>(work: Promise<Result>): Promise<Result> => {
    signal?.throwIfAborted();
    const found = await (calledOff ? Promise.race([work, calledOff]) : work);
    signal?.throwIfAborted();
    return found;
  };
  const look = await unlessCalledOff(incoming.look());
  const steps = look.pictures.length + look.samples.length + look.fresh.length + look.here.length;
  const tell = seldom(progress);
  let done = 0;
  const step = (of = 1) => {
    done += of;
    tell(done, steps);
  };
  const mark = keyOf('unnamed', 'import', nanoid(10));
  const unnamed: Unnamed = { runs: look.fresh, samples: look.samples, pictures: look.pictures };
  await addAll([[mark, unnamed]]);
  await unlessCalledOff(incoming.storeApart(step));
  const listed: StoredRow[] = [];
  for (let coming = incoming.next(); ;) {
    const filings = await unlessCalledOff(coming);
    if (!filings) break;
    // The next is worked out while these are stored.
    coming = incoming.next();
    coming.catch(() => undefined);
    await addAll(filings.map(({ packed }) => [keyOf('run', packed.header.id), packed]));
    listed.push(...filings.map(({ summary }: Filing): StoredRow => [keyOf('listed', summary.id), summary]));
    step(filings.length);
  }
  const undo = await listAll(look, listed, rows, mark, async (id) => {
    const joined = await unlessCalledOff(incoming.join(id));
    step();
    return joined;
  });
  return { ids: [...look.fresh, ...look.here], undo };
}

/** Fails once a signal is given. */
function abortOf(signal: AbortSignal): Promise<never> {
  const given = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => {
      reject(signal.reason as Error);
    });
  });
  given.catch(() => undefined);
  return given;
}

/** Stores values under keys that are free. */
const addAll = (rows: readonly StoredRow[]): Promise<unknown> =>
  act((changes) => {
    for (const [key, value] of rows) changes.add(key, value);
    return Promise.resolve();
  });

/** How often an import begins anew where its runs are changed meanwhile. */
const MOST_TRIES = 20;
/** Values that are put at once: no more than an instant of the page’s time. */
const AT_ONCE = 100;

/** Lists what was stored before, and joins what is here already: the act of an import. */
async function listAll(
  { here, streamed }: Look,
  listed: readonly StoredRow[],
  rows: readonly StoredRow[],
  mark: string,
  join: (id: string) => Promise<Prepared | Entry[]>,
): Promise<Undo> {
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const filed = new Map<string, Prepared>();
    const live = new Map<string, Entry[]>();
    for (const id of here) {
      const joined = await join(id);
      if (Array.isArray(joined)) live.set(id, joined);
      else filed.set(id, joined);
    }
    const { result, undo } = await act(async (changes) => {
      for (const id of here) if (!(await isAsPrepared(changes, id, filed.get(id)))) return false;
      for (const [id, prepared] of filed) if (streamed.includes(id) || !isSame(prepared.was, prepared.packed)) putFiled(changes, prepared);
      for (const [id, entries] of live)
        for (const entry of entries) if (!(await changes.has(inkKey(id, entry)))) changes.add(inkKey(id, entry), entry);
      for (const [index, [key, summary]] of listed.entries()) {
        changes.add(key, summary);
        // Whatever is asked: the page goes on meanwhile.
        if (index % AT_ONCE === AT_ONCE - 1) await changes.has(key);
      }
      for (const [key, value] of rows) if (!(await changes.has(key))) changes.add(key, value);
      changes.remove(mark);
      return true;
    });
    if (result) return undo;
  }
  throw new StorageTrouble('Its runs were changed or removed meanwhile, again and again. Import it once more.');
}
