import { nanoid } from 'nanoid';
import { summarise } from '@core/curve';
import { joinInk, splitRun, type StoredRun } from '@core/exchange';
import { foldRun, SCHEMA, type Entry } from '@core/ink';
import { act, type Undo } from './act';
import { isAsPrepared, isSame, prepare, putFiled, type Prepared } from './acts';
import { entryOf } from './entries';
import { filedRun, migrated, packedRuns, type Packed } from './filed';
import { inkKey, keyOf, LOGBOOK, PICTURES } from './keys';
import { liveRun } from './live';
import { exclusively } from './locks';
import { sampleKeys, sampleRoot, sampleRows, SAMPLES, spanOfStream, type KeySpan } from './samples';
import { StorageTrouble, troubleFrom, whyOf } from './storageTrouble';
import { IMPORTING, sweepForImport } from './sweep';
import { reading, storeMissing, type Row } from './transactions';
import type { Unnamed } from './unnamed';

/**
 * An import is an act like the others (acts.ts). What is large is stored before it and shown by nothing; then one transaction lists all of it. It has
 * a file of its own, for it is fetched when it is wanted.
 */

/** What comes in beside runs: values of the logbook, each unless its key is taken, and pictures. */
export interface Others {
  rows?: readonly Row[];
  pictures?: readonly Row<Blob>[];
}

/**
 * Imports runs, joined with copies already here, live ones too, and whatever else: all of it or nothing.
 *
 * @param progress how much of it has been stored, as a share
 * @throws {ImportError | StorageTrouble} saying so, with nothing stored
 */
export async function importAll(
  runs: readonly StoredRun[],
  others: Others = {},
  progress: (share: number) => void = () => undefined,
): Promise<{ undo: Undo }> {
  const { requireRun } = await import('./entryCheck');
  for (const run of runs) {
    requireRun(run);
    // What contradicts what is here is refused before anything is stored.
    joinInk(await inkHere(run.header.id), run.entries, `run ${run.header.id}`);
  }
  return importUnchecked(runs, others, progress);
}

async function inkHere(runId: string): Promise<Entry[]> {
  const [packed] = await packedRuns([runId]);
  return packed ? migrated(packed).entries : ((await liveRun(runId))?.entries ?? []);
}

/** The same, of runs that the program made itself. @throws {StorageTrouble} */
export const importUnchecked = (
  runs: readonly StoredRun[],
  others: Others = {},
  progress: (share: number) => void = () => undefined,
): Promise<{ undo: Undo }> =>
  exclusively(IMPORTING, async () => {
    try {
      await sweepForImport();
      return await importNow(runs, others, progress);
    } catch (cause) {
      await sweepForImport().catch(() => undefined);
      if (cause instanceof Error && !(cause instanceof StorageTrouble)) throw cause;
      throw new StorageTrouble(whyOf(troubleFrom(cause)), 'Nothing was imported.', { cause });
    }
  });

async function importNow(
  runs: readonly StoredRun[],
  { rows = [], pictures = [] }: Others,
  progress: (share: number) => void,
): Promise<{ undo: Undo }> {
  const fresh = await freshOf(runs);
  const streams = await newStreams(runs);
  const mark = keyOf('unnamed', 'import', nanoid(10));
  const missing = await missingPictures(pictures);
  const unnamed: Unnamed = {
    runs: fresh.map(({ header }) => header.id),
    samples: streams.map(({ span }) => span),
    pictures: missing.map(([id]) => id),
  };
  await addAll([[mark, unnamed]]);
  const steps = missing.length + streams.length + runs.length + 1;
  let done = 0;
  const step = () => {
    progress((done += 1) / steps);
  };
  // One value at a time: what is logged meanwhile is never kept waiting for long.
  for (const row of missing) {
    await storeMissing(PICTURES, [row]);
    step();
  }
  for (const { columns } of streams) {
    for (const row of columns()) await storeMissing(SAMPLES, [row]);
    step();
  }
  const listed: Row[] = [];
  let [handful, size]: [Row[], number] = [[], 0];
  for (const { header, entries, samples, logs } of fresh) {
    const packed: Packed = { schema: SCHEMA, header, entries: joinInk(entries, [], 'this run') };
    listed.push([keyOf('listed', header.id), summarise(foldRun(header, packed.entries, samples, logs))]);
    handful.push([keyOf('run', header.id), packed]);
    size += packed.entries.length;
    if (size > HANDFUL_OF_ENTRIES) {
      await addAll(handful);
      [handful, size] = [[], 0];
    }
    step();
  }
  await addAll(handful);
  return listAll(runs, listed, rows, mark, new Set(streams.map(({ runId }) => runId)));
}

/** Stores values under keys that are free. */
const addAll = (rows: readonly Row[]): Promise<unknown> =>
  act((changes) => {
    for (const [key, value] of rows) changes.add(key, value);
    return Promise.resolve();
  });

/** How often an import begins anew where its runs are changed meanwhile. */
const MOST_TRIES = 20;
/** About a megabyte. */
const HANDFUL_OF_ENTRIES = 5000;

/** Lists what was stored before, and joins what is here already: the act of an import. */
async function listAll(
  runs: readonly StoredRun[],
  listed: readonly Row[],
  rows: readonly Row[],
  mark: string,
  streamed: ReadonlySet<string>,
): Promise<{ undo: Undo }> {
  const isFresh = new Set(listed.map(([key]) => key));
  const joined = runs.filter(({ header }) => !isFresh.has(keyOf('listed', header.id)));
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const filed = new Map<string, Prepared>();
    for (const { header, entries } of joined) {
      const prepared = await prepare(header.id, entries);
      if (prepared) filed.set(header.id, prepared);
    }
    const { result, undo } = await act(async (changes) => {
      for (const { header } of joined) {
        if (!(await isAsPrepared(changes, header.id, filed.get(header.id)))) return false;
      }
      for (const [id, prepared] of filed) if (streamed.has(id) || !isSame(prepared.was, prepared.packed)) putFiled(changes, prepared);
      for (const { header, entries } of joined)
        if (!filed.has(header.id))
          for (const entry of entries) if (!(await changes.has(inkKey(header.id, entry)))) changes.add(inkKey(header.id, entry), entry);
      for (const [key, summary] of listed) changes.add(key, summary);
      for (const [key, value] of rows) if (!(await changes.has(key))) changes.add(key, value);
      changes.remove(mark);
      return true;
    });
    if (result) return { undo };
  }
  throw new StorageTrouble('Its runs were changed or removed meanwhile, again and again. Import it once more.');
}

/** Runs that are not here yet. */
async function freshOf(runs: readonly StoredRun[]): Promise<StoredRun[]> {
  const isHere = await reading(LOGBOOK, (store) =>
    Promise.all(
      runs.map(async ({ header }) =>
        (await Promise.all((['live', 'listed'] as const).map((kind) => store.getKey(keyOf(kind, header.id))))).some(
          (key) => key !== undefined,
        ),
      ),
    ),
  );
  return runs.filter((_, index) => !isHere[index]);
}

/** Columns that are to be stored. */
interface NewStream {
  runId: string;
  span: KeySpan;
  columns: () => Iterable<Row>;
}

/** The columns of runs and of their logs that are not here yet: a copy that has its samples keeps them. */
async function newStreams(runs: readonly StoredRun[]): Promise<NewStream[]> {
  const found: NewStream[] = [];
  for (const { header, samples, logs = {} } of runs) {
    const here = samples || Object.keys(logs).length > 0 ? await sampleKeys(header.id) : [];
    for (const [log, columns] of [[undefined, samples] as const, ...Object.entries(logs)]) {
      const [from, to] = spanOfStream(header.id, log);
      if (!columns || here.some((key) => key >= from && key < to)) continue;
      found.push({ runId: header.id, span: [from, to], columns: () => sampleRows(sampleRoot(header.id, log), columns) });
    }
  }
  return found;
}

const missingPictures = async (pictures: readonly Row<Blob>[]): Promise<Row<Blob>[]> => {
  const here = await reading(PICTURES, (store) => Promise.all(pictures.map(([id]) => store.getKey(id))));
  return pictures.filter((_, index) => here[index] === undefined);
};

/** Splits a filed run in two, at a moment in seconds from plug-in: both are stored, or nothing is. @returns the id of the second @throws {StorageTrouble} */
export async function splitFiled(id: string, seconds: number, half: string): Promise<string> {
  const stored = await filedRun(id);
  const { second, trim } = splitRun(stored, seconds, half);
  const { header, entries } = stored;
  await importAll([second, { header, entries: [...entries, entryOf(trim, (entries.at(-1)?.seq ?? 0) + 1)] }]);
  return half;
}
