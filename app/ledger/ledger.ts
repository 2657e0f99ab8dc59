import { nanoid } from 'nanoid';
import {
  foldRun,
  joinInk,
  migrate,
  QUANTITIES,
  SCHEMA,
  summarise,
  type Draft,
  type Entry,
  type Header,
  type RunRecord,
  type Samples,
  type StoredRun,
  type Summary,
} from '@core';
import {
  allOf,
  catalogueBook,
  dropInk,
  inkOfRun,
  liveBook,
  runBook,
  runsWithInk,
  sampleBook,
  store,
  storeAll,
  takeAway,
} from './databases';
import { allInk, gather, keyOf, untie } from './ink';
import { exclusively } from './locks';
import { StorageTrouble } from './storageTrouble';

/**
 * The ledger keeps ink. While a run is live every entry has a key of its own in a database of the run's own; when the run stops
 * it is filed: packed as one value, read back and compared, and only then is the live database dropped. Filing again after a
 * crash at any point changes nothing. Later strikes and notes go the same way.
 */

/** A run as it is packed. */
interface Packed {
  schema: typeof SCHEMA;
  header: Header;
  entries: Entry[];
}

const CHUNK = 65_536;

/** Gives a draft its place in the order. */
export function entryOf(draft: Draft, seq: number): Entry {
  return { ...draft, seq, id: nanoid(12), written: Date.now() };
}

/** Stores one entry of a run's ink; it may be shown once this has resolved. @throws {StorageTrouble} */
export function append(runId: string, entry: Entry): Promise<void> {
  return store(inkOfRun(runId), keyOf(entry), entry);
}

/** Starts a run: its header, then what was seen at plug-in. Stores both or neither. @throws {StorageTrouble} */
export async function startRun(header: Header, entries: readonly Entry[]): Promise<void> {
  try {
    await Promise.all([
      store(liveBook, header.id, header),
      storeAll(
        inkOfRun(header.id),
        entries.map((entry) => [keyOf(entry), entry]),
      ),
    ]);
  } catch (trouble) {
    await takeAway(liveBook, header.id).catch(() => undefined);
    throw trouble;
  }
}

/** Runs that start at one instant: kept as one value until each of them is started, so that all of them are or none is. */
interface Together {
  runs: { header: Header; entries: Entry[] }[];
}

/** Starts several runs at one instant. Stores all of them or none. @throws {StorageTrouble} */
export async function startTogether(runs: Together['runs']): Promise<void> {
  const key = `together/${nanoid(12)}`;
  await store(liveBook, key, { runs } satisfies Together);
  try {
    await Promise.all(runs.map(({ header, entries }) => startRun(header, entries)));
  } catch (trouble) {
    await Promise.all(runs.map(({ header }) => forgetLive(header.id).catch(() => undefined)));
    throw trouble;
  } finally {
    await takeAway(liveBook, key).catch(() => undefined);
  }
}

/** Starts what a crash left begun: a run of the set that is live or filed already stays as it is. */
async function startTheRest({ runs }: Together): Promise<void> {
  for (const { header, entries } of runs) {
    const isThere = (await liveBook.getItem(header.id)) ?? (await runBook.getItem(header.id));
    if (!isThere) await startRun(header, entries);
  }
}

/** Moments that were marked and whose values are still to come, epoch milliseconds by run. Kept as one value: all of them or none. */
export type Marks = Record<string, number>;
const MARKS = 'marks';

/** Keeps what is marked. @throws {StorageTrouble} */
export const keepMarks = (marks: Marks): Promise<void> => store(liveBook, MARKS, { marks });
export const keptMarks = async (): Promise<Marks> => (await liveBook.getItem<{ marks: Marks }>(MARKS))?.marks ?? {};

/** How the board is laid: the order of its lanes, and the earlier run under each, by run. */
export interface Board {
  order: string[];
  ghosts: Record<string, string>;
}
const BOARD = 'board';
/** @throws {StorageTrouble} */
export const keepBoard = (board: Board): Promise<void> => store(liveBook, BOARD, board);
export const keptBoard = async (): Promise<Board> => (await liveBook.getItem<Board>(BOARD)) ?? { order: [], ghosts: {} };

const BEAT = 'here';
/** Keeps that the program is here at a moment, epoch milliseconds, while runs are live. @throws {StorageTrouble} */
export const beat = (at: number): Promise<void> => store(liveBook, BEAT, { at });
export const lastBeat = async (): Promise<number | undefined> => (await liveBook.getItem<{ at: number }>(BEAT))?.at;

/** The header of every live run; what a crash left half started is started first. */
export async function liveHeaders(): Promise<Header[]> {
  const isHeader = (kept: object): kept is Header => 'plugInAt' in kept;
  let kept = await allOf<object>(liveBook);
  // A set that a crash left half started.
  if (kept.some((each) => 'runs' in each)) {
    for (const key of (await liveBook.keys()).filter((each) => each.startsWith('together/'))) {
      const begun = await liveBook.getItem<Together>(key);
      if (begun) await startTheRest(begun);
      await takeAway(liveBook, key);
    }
    kept = await allOf<object>(liveBook);
  }
  return kept.filter(isHeader).map((each) => migrate(each, 'A live run') as unknown as Header);
}

/** Every live run with the ink it has so far. */
export async function liveRuns(): Promise<StoredRun[]> {
  return Promise.all((await liveHeaders()).map(async (header) => ({ header, entries: await allInk(header.id) })));
}

/** Makes the next start quick, however long the run. Nothing hangs on it. */
export const gatherInk = (runId: string): Promise<void> => exclusively(`file/${runId}`, () => gather(runId));

/**
 * Looks through the ink that a start has shown, against each entry as it is stored.
 *
 * @returns the ink with what had not been shown; `undefined` when nothing is missing
 */
export function missedInk(runId: string, shown: readonly Entry[]): Promise<Entry[] | undefined> {
  return exclusively(`file/${runId}`, async () => {
    const stored = await allInk(runId);
    const known = new Set(shown.map(({ id }) => id));
    if (stored.every(({ id }) => known.has(id))) return undefined;
    await untie(runId);
    return joinInk(shown, stored, 'this run');
  });
}

async function unpack(runId: string): Promise<Packed | undefined> {
  const packed = await runBook.getItem<Packed>(runId);
  return packed === null ? undefined : (migrate(packed, 'A filed run') as unknown as Packed);
}

/** A filed run with its ink and samples. @throws {StorageTrouble} when there is none of that id */
export async function filedRun(runId: string): Promise<StoredRun> {
  const packed = await unpack(runId);
  if (!packed)
    throw new StorageTrouble(
      'There is no such run in this logbook. It may be in the logbook of another address; look in the list of runs.',
    );
  return { header: packed.header, entries: packed.entries, samples: await samplesOf(runId) };
}

/**
 * Files a run: joins what is in the logbook with what is in its own database, packs it, reads it back, and drops the database.
 *
 * @returns its record
 * @throws {StorageTrouble} when what was read back differs; nothing is dropped then
 */
export function file(runId: string): Promise<RunRecord> {
  return exclusively(`file/${runId}`, () => fileLocked(runId));
}

async function fileLocked(runId: string): Promise<RunRecord> {
  const filed = await unpack(runId);
  const live = filed ? null : await liveBook.getItem<Header>(runId);
  const header = filed?.header ?? (live ? (migrate(live, 'A live run') as unknown as Header) : undefined);
  if (!header)
    throw new StorageTrouble('This run has lost its header, so it cannot be filed. Its ink is kept; export the logbook and report it.');
  const entries = joinInk(filed?.entries ?? [], await allInk(runId), 'this run');
  const record = foldRun(header, entries, await samplesOf(runId));
  await pack({ schema: SCHEMA, header, entries }, record);
  await takeAway(liveBook, runId);
  await dropInk(runId);
  return record;
}

async function pack(packed: Packed, record: RunRecord): Promise<void> {
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

/** Takes a filed run up again with all its ink: it leaves the list until it is filed anew. @throws {StorageTrouble} */
export async function reopen(header: Header, entries: readonly Entry[]): Promise<void> {
  await Promise.all(entries.map((entry) => append(header.id, entry)));
  await store(liveBook, header.id, header);
  await takeAway(catalogueBook, header.id);
}

/** Files what a crash left half filed. @returns how many runs that was */
export async function tidy(): Promise<number> {
  const live = new Set(await liveBook.keys());
  const orphans = (await runsWithInk()).filter((id) => !live.has(id));
  let filed = 0;
  for (const id of orphans) {
    if (!(await runBook.getItem(id))) continue;
    await file(id);
    filed += 1;
  }
  return filed;
}

/** Takes whole runs in, joined with copies already here. Checks every one before it stores any. @throws {ImportError | StorageTrouble} */
export async function takeIn(runs: readonly StoredRun[]): Promise<void> {
  const joined = await Promise.all(
    runs.map(async (run) => ({
      ...run,
      entries: joinInk((await unpack(run.header.id))?.entries ?? [], run.entries, `run ${run.header.id}`),
    })),
  );
  await Promise.all(
    joined.map(async ({ header, entries, samples }) => {
      if (samples) await storeSamples(header.id, samples);
      await pack({ schema: SCHEMA, header, entries }, foldRun(header, entries, samples));
    }),
  );
}

/** Every run's summary, newest first. Ten thousand list at once, for none is opened. */
export async function catalogue(): Promise<Summary[]> {
  return (await allOf<Summary>(catalogueBook)).sort((one, other) => other.plugInAt - one.plugInAt);
}

/** Forgets a live run. For the demo, which lays its own anew. */
export async function forgetLive(runId: string): Promise<void> {
  await takeAway(liveBook, runId);
  await dropInk(runId);
}

/** Every run, filed and live, for the export of the logbook. */
export async function everyRun(progress: (share: number) => void): Promise<StoredRun[]> {
  const live = await liveRuns();
  const ids = (await runBook.keys()).filter((id) => !live.some(({ header }) => header.id === id));
  const runs: StoredRun[] = [];
  for (const [index, id] of ids.entries()) {
    runs.push(await filedRun(id));
    progress((index + 1) / ids.length);
  }
  return [...runs, ...live];
}

async function storeSamples(runId: string, samples: Samples): Promise<void> {
  for (const quantity of QUANTITIES) {
    const column = samples[quantity];
    for (let from = 0; column && from < column.seconds.length; from += CHUNK) {
      const rows = [from, from + CHUNK] as const;
      const key = `${runId}/${quantity}/${String(from / CHUNK).padStart(6, '0')}`;
      await store(sampleBook, key, { seconds: column.seconds.slice(...rows), values: column.values.slice(...rows) });
    }
  }
}

/** A run's samples, its chunks joined. Most runs have none. */
async function samplesOf(runId: string): Promise<Samples | undefined> {
  const keys = (await sampleBook.keys()).filter((key) => key.startsWith(`${runId}/`)).sort();
  if (keys.length === 0) return undefined;
  const samples: Samples = {};
  for (const quantity of QUANTITIES) {
    const mine = keys.filter((key) => key.startsWith(`${runId}/${quantity}/`));
    if (mine.length === 0) continue;
    const chunks = await Promise.all(mine.map((key) => sampleBook.getItem<NonNullable<Samples['watts']>>(key)));
    const joined = (name: 'seconds' | 'values') => Float64Array.from(chunks.flatMap((chunk) => Array.from(chunk?.[name] ?? [])));
    samples[quantity] = { seconds: joined('seconds'), values: joined('values') };
  }
  return samples;
}
