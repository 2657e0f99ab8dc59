import { max, min } from 'd3-array';
import { isSameTimes, joined, type Logs, type Samples } from '@core/samples';
import { QUANTITIES, type Quantity } from '@core/quantity';
import { changing, reading, type StoredRow } from './transactions';

/** The database of what meters streamed. */
export const SAMPLES = 'inkpath-samples';

/**
 * A meter's columns lie beside the ink, in chunks of typed arrays: a key each, `<run id>/<quantity>/<chunk>`; of a log that was laid in later,
 * `<run id>/@<log>/<quantity>/<chunk>`. A meter tells its quantities at once: their times lie there once, as `seconds`, and a column that keeps
 * others has them with it.
 */
interface Chunk {
  seconds?: Float64Array;
  values: Float64Array;
}
const TIMES = 'seconds';

/** What was streamed of a run. */
interface Streams {
  samples?: Samples | undefined;
  logs?: Logs | undefined;
}

/** Rows that are stored as one value: each takes a write of its own. */
export const CHUNK = 131_072;

/** Pieces of a column are called so that they stand in order. */
const pieceName = (at: number): string => String(at).padStart(6, '0');

/** Where the columns of a run lie, or those of a log of its. */
export const sampleRoot = (runId: string, log?: string): string => (log === undefined ? runId : `${runId}/@${log}`);

/** Columns as they are stored. @param root of the run, or of a log */
export function* sampleRows(root: string, samples: Samples): Generator<StoredRow<Chunk | Float64Array>> {
  const columns = QUANTITIES.flatMap((quantity) => (samples[quantity] ? [{ quantity, ...samples[quantity] }] : []));
  const times = columns[0]?.seconds;
  if (times) for (const [at, rows] of cutUp(times)) yield [`${root}/${TIMES}/${at}`, rows];
  for (const { quantity, seconds, values } of columns) {
    const own = times && isSameTimes(times, seconds) ? [] : [...cutUp(seconds)];
    for (const [index, [at, rows]] of [...cutUp(values)].entries())
      yield [`${root}/${quantity}/${at}`, { ...(own[index] && { seconds: own[index][1] }), values: rows }];
  }
}

/** A column in pieces of their own, by the name that puts them in order. */
function* cutUp(column: Float64Array): Generator<[at: string, rows: Float64Array]> {
  for (let from = 0; from < column.length; from += CHUNK) yield [pieceName(from / CHUNK), column.slice(from, from + CHUNK)];
}

// "0" is the character after the stroke.
const underRun = (runId: string): IDBKeyRange => IDBKeyRange.bound(...spanOfRun(runId), true, true);

/** So many runs are asked about one by one; of more, one question for all that lies between them takes less. */
const FEW = 20;

/** The keys of the columns of runs, those of their logs among them, in the order of the ids. Most runs have none. */
export const sampleKeysOf = (runIds: readonly string[]): Promise<string[][]> =>
  reading(SAMPLES, async (store) => {
    if (runIds.length <= FEW) return Promise.all(runIds.map((runId) => store.getAllKeys(underRun(runId)) as Promise<string[]>));
    const spans = runIds.map(spanOfRun);
    const [from, to] = [min(spans, ([begin]) => begin) ?? '', max(spans, ([, end]) => end) ?? ''];
    const found = new Map(runIds.map((runId): [string, string[]] => [runId, []]));
    for (const key of (await store.getAllKeys(IDBKeyRange.bound(from, to, true, true))) as string[])
      found.get(key.slice(0, key.indexOf('/')))?.push(key);
    return runIds.map((runId) => found.get(runId) ?? []);
  });

/** The keys of one run's columns. */
export const sampleKeys = async (runId: string): Promise<string[]> => (await sampleKeysOf([runId]))[0] ?? [];

/** Those of several runs that were streamed, in no more rows than are stored as one value. */
export async function shortStreams(runIds: readonly string[]): Promise<string[]> {
  const keys = await sampleKeysOf(runIds);
  return runIds.filter((_, index) => (keys[index] ?? []).length > 0 && keys[index]?.every((key) => key.endsWith(`/${pieceName(0)}`)));
}

/** Chunks by their keys: a chunk that was not asked for is `undefined`. */
type Chunks = ReadonlyMap<string, Chunk | Float64Array | undefined>;

/** What is stored of the columns of runs, in one transaction: every one costs a way to the database and back. */
const chunksOf = (runIds: readonly string[], names: readonly string[]): Promise<Chunks[]> =>
  reading(SAMPLES, (store) =>
    Promise.all(
      runIds.map(async (runId) => {
        const keys = (await store.getAllKeys(underRun(runId))) as string[];
        const wanted = (key: string) => names.some((name) => key.includes(`/${name}/`));
        return new Map(
          await Promise.all(
            keys.map(async (key) => [key, wanted(key) ? ((await store.get(key)) as Chunk | Float64Array) : undefined] as const),
          ),
        );
      }),
    ),
  );

/** The samples of several runs, and those of their logs, in the order of their ids: read at once, of those quantities that are wanted. */
export async function streamsOfAll(runIds: readonly string[], wanted: readonly Quantity[] = QUANTITIES): Promise<Streams[]> {
  const chunks = await chunksOf(runIds, [...wanted, TIMES]);
  return runIds.map((runId, index) => streamsIn(runId, chunks[index] ?? new Map(), wanted));
}

/** A run's samples and those of its logs, their chunks joined; of those quantities that are wanted. */
export const streamsOf = async (runId: string, wanted?: readonly Quantity[]): Promise<Streams> =>
  (await streamsOfAll([runId], wanted))[0] ?? {};

function streamsIn(runId: string, chunks: Chunks, wanted: readonly Quantity[]): Streams {
  const keys = [...chunks.keys()];
  const ids = new Set(keys.flatMap((key) => /\/@([^/]+)\//.exec(key)?.[1] ?? []));
  const samples = columnsUnder(sampleRoot(runId), chunks, wanted);
  const logs = Object.fromEntries([...ids].map((log) => [log, columnsUnder(sampleRoot(runId, log), chunks, wanted)]));
  const isImported = keys.some((key) => !key.startsWith(`${runId}/@`));
  return { ...(isImported && { samples }), ...(ids.size > 0 && { logs }) };
}

/** Keys from one to before another, as they can be stored. */
export type KeySpan = [from: string, to: string];
/** All columns of a run and its logs. */
export const spanOfRun = (runId: string): KeySpan => [`${runId}/`, `${runId}0`];
/** The columns that it was imported with, or those of one log. Names of quantities come after that of any log. */
export const spanOfStream = (runId: string, log?: string): KeySpan =>
  log === undefined ? [`${runId}/A`, `${runId}0`] : [`${sampleRoot(runId, log)}/`, `${sampleRoot(runId, log)}0`];

/** Takes columns away. */
export const dropSamples = ([from, to]: KeySpan): Promise<void> =>
  changing(SAMPLES, (store) => store.delete(IDBKeyRange.bound(from, to, false, true)));

/** Streams of some quantities and of others, as one. */
export function mergeStreams(one: Streams, other: Streams): Streams {
  const samples = one.samples || other.samples ? { ...one.samples, ...other.samples } : undefined;
  const ids = new Set([...Object.keys(one.logs ?? {}), ...Object.keys(other.logs ?? {})]);
  const logs = Object.fromEntries([...ids].map((log) => [log, { ...one.logs?.[log], ...other.logs?.[log] }]));
  return { ...(samples && { samples }), ...(ids.size > 0 && { logs }) };
}

function columnsUnder(root: string, all: Chunks, wanted: readonly Quantity[]): Samples {
  const under = <Value>(name: string) => [...all].flatMap(([key, chunk]) => (key.startsWith(`${root}/${name}/`) ? [chunk as Value] : []));
  const read = wanted.map((quantity) => [quantity, under<Chunk | undefined>(quantity)] as const);
  const isShared = read.some(([, columns]) => columns.some((chunk) => chunk && !chunk.seconds));
  let times = isShared ? joined(under<Float64Array | undefined>(TIMES)) : undefined;
  const samples: Samples = {};
  for (const [quantity, columns] of read) {
    if (columns.length === 0) continue;
    // A column that keeps its own times has them with it; and every column of a run that was stored before they were shared.
    const own = columns.some((chunk) => chunk?.seconds) ? joined(columns.map((chunk) => chunk?.seconds)) : undefined;
    const seconds = times && (!own || isSameTimes(times, own)) ? times : own;
    if (!seconds) continue;
    times ??= seconds;
    samples[quantity] = { seconds, values: joined(columns.map((chunk) => chunk?.values)) };
  }
  return samples;
}
