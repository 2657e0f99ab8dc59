import { presentSummary, type Summary } from '@core/curve';
import { migrate, type StoredRun } from '@core/exchange';
import type { Entry, Header, SCHEMA } from '@core/ink';
import type { Progress } from '../kit/work';
import { idIn, keyOf, keysOf, LOGBOOK } from './keys';
import { asideOf, liveRuns, type SetAside } from './live';
import { readNow, type RowsReader } from './readAhead';
import { sampleKeysOf, streamsOf, streamsOfAll } from './samples';
import { StorageTrouble } from './storageTrouble';
import { reading, valuesIn } from './transactions';
import type { Unnamed } from './unnamed';

/** Runs that are over lie packed, one value each, with a summary for the list. */

/** A run as it is packed. */
export interface Packed {
  schema: typeof SCHEMA;
  header: Header;
  entries: Entry[];
}

/** A packed run by the schema of today. */
export const migrated = (packed: Packed): Packed => migrate(packed, 'A filed run') as unknown as Packed;

export const packedRuns = (runIds: readonly string[]): Promise<(Packed | undefined)[]> =>
  valuesIn<Packed>(
    LOGBOOK,
    runIds.map((id) => keyOf('run', id)),
  );

const missing = () =>
  new StorageTrouble('There is no such run in this logbook. It may be in the logbook of another address; look in the list of runs.');

/** The ink of a filed run, without what a meter streamed. @throws {StorageTrouble} when there is none of that id */
export async function filedInk(runId: string): Promise<Omit<StoredRun, 'samples' | 'logs'>> {
  const [stored] = await packedRuns([runId]);
  if (!stored) throw missing();
  const { header, entries } = migrated(stored);
  return { header, entries };
}

/** A filed run with its ink and samples. @throws {StorageTrouble} when there is none of that id */
export async function filedRun(runId: string): Promise<StoredRun> {
  const [ink, streams] = await Promise.all([filedInk(runId), streamsOf(runId)]);
  return { ...ink, ...streams };
}

/**
 * Does something with each of several filed runs, read at once; in the order of their ids. `undefined` where there is none of an id, or one that cannot
 * be read, for that is no reason to do without the others.
 */
export async function eachFiled<Result>(runIds: readonly string[], work: (run: StoredRun) => Result): Promise<(Result | undefined)[]> {
  const [packed, streams] = await Promise.all([packedRuns(runIds), streamsOfAll(runIds)]);
  return packed.map((one, index) => {
    try {
      if (!one) return undefined;
      const { header, entries } = migrated(one);
      return work({ header, entries, ...streams[index] });
    } catch {
      return undefined;
    }
  });
}

/** Every run's summary, newest first. Ten thousand list at once, for none is opened. */
export async function catalogue({ rows }: Pick<RowsReader, 'rows'> = readNow): Promise<Summary[]> {
  return (await rows<Summary>('listed')).map(([, summary]) => presentSummary(summary)).sort((one, other) => other.plugInAt - one.plugInAt);
}

/** Runs whose ink is read at once for a file. */
const AT_ONCE = 50;

/**
 * Every run that can be read, filed and live, one after another, for a file of the whole logbook; those that cannot be are named.
 *
 * @param only ids of those that are wanted, if not all are
 */
export async function* everyRun(aside: SetAside[], progress: Progress, only?: ReadonlySet<string>): AsyncGenerator<StoredRun> {
  const isWanted = (id: string) => only === undefined || only.has(id);
  const live = await liveRuns();
  yield* live.filter(({ header }) => isWanted(header.id));
  const isLive = new Set(live.map(({ header }) => header.id));
  const ids = (await catalogue()).map(({ id }) => id).filter((id) => isWanted(id) && !isLive.has(id));
  const keys = await sampleKeysOf(ids);
  const isStreamed = new Set(ids.filter((_, index) => (keys[index] ?? []).length > 0));
  const read = (from: number) => packedRuns(ids.slice(from, from + AT_ONCE));
  let coming = read(0);
  for (let from = 0; from < ids.length; from += AT_ONCE) {
    const packed = await coming;
    // The next are read while these are written.
    coming = read(from + AT_ONCE);
    coming.catch(() => undefined);
    for (const [index, id] of ids.slice(from, from + AT_ONCE).entries()) {
      const stored = packed[index];
      try {
        if (!stored) throw missing();
        const { header, entries } = migrated(stored);
        // Columns may be large: those of one run at a time.
        yield { header, entries, ...(isStreamed.has(id) && (await streamsOf(id))) };
      } catch (error) {
        aside.push(asideOf(id, stored?.header, error));
      }
      progress(from + index + 1, ids.length);
    }
  }
}

/** Runs that are packed and that no list shows: they could not be read when they were moved here. An import lists its own when it is done. */
export async function runsNotListed(): Promise<SetAside[]> {
  const [packed, listed, unnamed] = await reading(LOGBOOK, (store) =>
    Promise.all([
      store.getAllKeys(keysOf('run')) as Promise<string[]>,
      store.getAllKeys(keysOf('listed')) as Promise<string[]>,
      store.getAll(keysOf('unnamed')) as Promise<Unnamed[]>,
    ]),
  );
  const known = new Set([...listed.map(idIn), ...unnamed.flatMap(({ runs = [] }) => runs)]);
  const lost = packed.map(idIn).filter((id) => !known.has(id));
  const values = await packedRuns(lost);
  return lost.map((id, index) => asideOf(id, values[index]?.header, new Error('It could not be read, and is in no list.')));
}

/** All that is stored of a run, as it is stored: of one that cannot be read, for a file that somebody may mend. */
export async function rawRun(id: string): Promise<object> {
  const [[live, packed], ink, streams] = await Promise.all([
    valuesIn(LOGBOOK, [keyOf('live', id), keyOf('run', id)]),
    readNow.ink(id),
    streamsOf(id),
  ]);
  return { id, live, packed, ink, ...streams };
}
