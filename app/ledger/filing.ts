import { presentSummary, summarise, type Summary } from '@core/curve';
import { foldStored, joinInk, migrate, type StoredRun } from '@core/exchange';
import { foldRun, SCHEMA, type Draft, type Entry, type Header, type RunRecord } from '@core/ink';
import {
  allOf,
  catalogueBook,
  dropInk,
  liveBook,
  runBook,
  removeValue,
  runsWithInk,
  sampleBook,
  store,
  valuesOf,
  workedBook,
} from './databases';
import { allInk, keyOf, removeInk } from './ink';
import { append, asideOf, entryOf, liveRuns, type Begun, type SetAside } from './ledger';
import { exclusively, ifFree } from './locks';
import { readNow, type Reading } from './readAhead';
import { sampleKeys, streamsOf, streamsOfAll } from './samples';
import { copyDown } from './secondCopy';
import { StorageTrouble } from './storageTrouble';
import { INK } from './transactions';

/** Runs that are over lie packed, one value each, with a summary for the list. */

/** A run as it is packed. */
export interface Packed {
  schema: typeof SCHEMA;
  header: Header;
  entries: Entry[];
}

export async function unpack(runId: string): Promise<Packed | undefined> {
  const packed = await runBook.getItem<Packed>(runId);
  return packed === null ? undefined : asNow(packed);
}

/** A packed run by the schema of today. */
const asNow = (packed: Packed): Packed => migrate(packed, 'A filed run') as unknown as Packed;

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
  const [packed, streams] = await Promise.all([valuesOf<Packed>(runBook, runIds), streamsOfAll(runIds)]);
  return packed.map((one, index) => {
    try {
      if (!one) return undefined;
      const { header, entries } = asNow(one);
      return work({ header, entries, ...streams[index] });
    } catch {
      return undefined;
    }
  });
}

/** The ink of a filed run, without what a meter streamed. @throws {StorageTrouble} when there is none of that id */
export async function filedInk(runId: string): Promise<Omit<StoredRun, 'samples' | 'logs'>> {
  const packed = await unpack(runId);
  if (!packed)
    throw new StorageTrouble(
      'There is no such run in this logbook. It may be in the logbook of another address; look in the list of runs.',
    );
  return { header: packed.header, entries: packed.entries };
}

/**
 * Files a run: joins what is in the logbook with what is in its own database, packs it, reads it back, and takes away exactly what it read.
 * The database that is left empty is dropped at the next start (`tidy`): somebody may be about to store in it.
 *
 * @returns its record
 * @throws {StorageTrouble} when what was read back differs; nothing is dropped then
 */
export function file(runId: string): Promise<RunRecord> {
  return exclusively(`file/${runId}`, () => fileLocked(runId));
}

async function fileLocked(runId: string): Promise<RunRecord> {
  const filed = await unpack(runId);
  const live = filed ? null : await liveBook.getItem<Begun>(runId);
  const { begun = [], ...lived } = live ? (migrate(live, 'A live run') as unknown as Begun) : {};
  const header = filed?.header ?? (live ? (lived as Header) : undefined);
  if (!header)
    throw new StorageTrouble('This run has lost its header, so it cannot be filed. Its ink is kept; export the logbook and report it.');
  const ink = await allInk(runId);
  const entries = joinInk(filed?.entries ?? begun, ink, 'this run');
  const { samples, logs } = await streamsOf(runId);
  const record = foldRun(header, entries, samples, logs);
  await pack({ schema: SCHEMA, header, entries }, record);
  await removeValue(liveBook, runId);
  const isMore = await removeInk(runId, ink);
  for (const entry of ink) copyDown({ book: INK + runId, key: keyOf(entry) });
  // What was stored meanwhile is filed too.
  return isMore ? fileLocked(runId) : record;
}

export async function pack(packed: Packed, record: RunRecord): Promise<void> {
  const { id } = packed.header;
  await store(runBook, id, packed);
  const back = await runBook.getItem<Packed>(id);
  if (JSON.stringify(back) !== JSON.stringify(packed)) {
    throw new StorageTrouble('What was filed does not read back the same. The run stays as it was; save it as a file before you go on.');
  }
  await store(catalogueBook, id, summarise(record));
}

/** Adds an entry to a filed run, as safely as to a live one. @throws {StorageTrouble} */
export function amend(runId: string, entry: Entry): Promise<RunRecord> {
  return exclusively(`file/${runId}`, async () => {
    await append(runId, entry);
    return fileLocked(runId);
  });
}

/** Adds to a filed run what needs nothing of it but its next place. @throws {StorageTrouble} */
export async function amendNext(runId: string, draft: Draft): Promise<void> {
  const packed = await unpack(runId);
  await amend(runId, entryOf(draft, (packed?.entries.at(-1)?.seq ?? 0) + 1));
}

/** Takes a filed run up again with all its ink: it leaves the list until it is filed anew. @throws {StorageTrouble} */
export async function unfile(header: Header, entries: readonly Entry[]): Promise<void> {
  await Promise.all(entries.map((entry) => append(header.id, entry)));
  await store(liveBook, header.id, header);
  await removeValue(catalogueBook, header.id);
}

/** Files what a crash left half filed. @returns how many runs that was, and those that could not be */
export async function tidy(): Promise<{ filed: number; aside: SetAside[] }> {
  const live = new Set(await liveBook.keys());
  const aside: SetAside[] = [];
  let filed = 0;
  for (const id of (await runsWithInk()).filter((each) => !live.has(each))) {
    const packed = await runBook.getItem<Packed>(id);
    if (!packed) continue;
    try {
      await file(id);
      filed += 1;
    } catch (error) {
      aside.push(asideOf(id, packed.header, error));
    }
  }
  await dropEmptied();
  return { filed, aside };
}

/** Drops databases of ink that hold nothing, of runs that no tab has. */
async function dropEmptied(): Promise<void> {
  for (const id of await runsWithInk())
    await ifFree(`run/${id}`, async () => {
      if ((await liveBook.getItem(id)) === null && (await allInk(id)).length === 0) await dropInk(id);
    });
}

/**
 * Looks whether every filed run is listed, and lists those that are not: a crash or a lost database can come between the two.
 *
 * @returns how many that was, and the runs that cannot be read
 */
export async function listAll(): Promise<{ listed: number; aside: SetAside[] }> {
  const [runs, known, live] = await Promise.all([runBook.keys(), catalogueBook.keys(), liveBook.keys()]);
  const [isFiled, isListed] = [new Set(runs), new Set([...known, ...live])];
  const aside: SetAside[] = [];
  let listed = 0;
  for (const id of runs.filter((each) => !isListed.has(each))) {
    try {
      await exclusively(`file/${id}`, async () => {
        await store(catalogueBook, id, summarise(foldStored(await filedRun(id))));
      });
      listed += 1;
    } catch (error) {
      aside.push(asideOf(id, (await runBook.getItem<Packed>(id))?.header, error));
    }
  }
  for (const id of known.filter((each) => !isFiled.has(each))) await removeValue(catalogueBook, id);
  return { listed, aside };
}

/** Every run's summary, newest first. Ten thousand list at once, for none is opened. */
export async function catalogue({ rows }: Pick<Reading, 'rows'> = readNow): Promise<Summary[]> {
  return (await allOf(catalogueBook, rows<Summary>(catalogueBook))).map(presentSummary).sort((one, other) => other.plugInAt - one.plugInAt);
}

/**
 * Every run that can be read, filed and live, one after another, for a file of the whole logbook; those that cannot be are named.
 *
 * @param only ids of those that are wanted, if not all are
 */
export async function* everyRun(
  aside: SetAside[],
  progress: (share: number) => void,
  only?: ReadonlySet<string>,
): AsyncGenerator<StoredRun> {
  const isWanted = (id: string) => only === undefined || only.has(id);
  const live = await liveRuns();
  yield* live.filter(({ header }) => isWanted(header.id));
  const ids = (await runBook.keys()).filter((id) => isWanted(id) && !live.some(({ header }) => header.id === id));
  for (const [index, id] of ids.entries()) {
    try {
      yield await filedRun(id);
    } catch (error) {
      aside.push(asideOf(id, (await runBook.getItem<Packed>(id))?.header, error));
    }
    progress((index + 1) / ids.length);
  }
}

/** All that is stored of a run, as it is stored: of one that cannot be read, for a file that somebody may mend. */
export async function rawRun(id: string): Promise<object> {
  const [live, packed, ink, streams] = await Promise.all([liveBook.getItem(id), runBook.getItem(id), allInk(id), streamsOf(id)]);
  return { id, live, packed, ink, ...streams };
}

/** Removes all that is stored of a run. For one that cannot be read, once a person says so. */
export async function removeRun(id: string): Promise<void> {
  await exclusively(`file/${id}`, async () => {
    for (const book of [liveBook, catalogueBook, runBook, workedBook]) await removeValue(book, id);
    for (const key of await sampleKeys(id)) await removeValue(sampleBook, key);
    await dropInk(id);
  });
}
