import { joined, type Logs, type Samples } from '@core/samples';
import { QUANTITIES, type Quantity } from '@core/quantity';
import { nameOf, sampleBook } from './databases';
import { answer, within } from './transactions';

/**
 * A meter's columns lie beside the ink, in chunks of typed arrays: a key each, `<run id>/<quantity>/<chunk>`; of a log that was laid in later,
 * `<run id>/@<log>/<quantity>/<chunk>`.
 */

/** What was streamed of a run. */
interface Streams {
  samples?: Samples | undefined;
  logs?: Logs | undefined;
}

const CHUNK = 65_536;

/** Where the columns of a run lie, or those of a log of its. */
export const sampleRoot = (runId: string, log?: string): string => (log === undefined ? runId : `${runId}/@${log}`);

/** Columns as they are stored: rows of `inkpath-samples`. @param root of the run, or of a log */
export function* sampleRows(root: string, samples: Samples): Generator<[key: string, value: unknown]> {
  for (const quantity of QUANTITIES) {
    const column = samples[quantity];
    for (let from = 0; column && from < column.seconds.length; from += CHUNK) {
      const rows = [from, from + CHUNK] as const;
      const key = `${root}/${quantity}/${String(from / CHUNK).padStart(6, '0')}`;
      yield [key, { seconds: column.seconds.slice(...rows), values: column.values.slice(...rows) }];
    }
  }
}

/** The keys of a run's columns, those of its logs among them. Most runs have none. */
export const sampleKeys = (runId: string): Promise<string[]> =>
  within<string[]>(nameOf(sampleBook), 'readonly', [], (store, settle) => {
    // "0" is the character after the stroke.
    answer(store.getAllKeys(IDBKeyRange.bound(`${runId}/`, `${runId}0`, true, true)), (keys) => {
      settle(keys as string[]);
    });
  });

/** A run's samples and those of its logs, their chunks joined; of those quantities that are wanted. */
export async function streamsOf(runId: string, wanted: readonly Quantity[] = QUANTITIES): Promise<Streams> {
  const keys = await sampleKeys(runId);
  if (keys.length === 0) return {};
  const ids = new Set(keys.flatMap((key) => /\/@([^/]+)\//.exec(key)?.[1] ?? []));
  const samples = await columnsUnder(sampleRoot(runId), keys, wanted);
  const logs: Record<string, Samples> = {};
  for (const log of ids) logs[log] = await columnsUnder(sampleRoot(runId, log), keys, wanted);
  const isImported = keys.some((key) => !key.startsWith(`${runId}/@`));
  return { ...(isImported && { samples }), ...(ids.size > 0 && { logs }) };
}

/** Streams of some quantities and of others, as one. */
export function together(one: Streams, other: Streams): Streams {
  const samples = one.samples || other.samples ? { ...one.samples, ...other.samples } : undefined;
  const ids = new Set([...Object.keys(one.logs ?? {}), ...Object.keys(other.logs ?? {})]);
  const logs = Object.fromEntries([...ids].map((log) => [log, { ...one.logs?.[log], ...other.logs?.[log] }]));
  return { ...(samples && { samples }), ...(ids.size > 0 && { logs }) };
}

async function columnsUnder(root: string, keys: readonly string[], wanted: readonly Quantity[]): Promise<Samples> {
  const there = wanted.map((quantity) => [quantity, keys.filter((key) => key.startsWith(`${root}/${quantity}/`))] as const);
  const read = await Promise.all(
    there.map(([, mine]) => Promise.all(mine.map((key) => sampleBook.getItem<NonNullable<Samples['watts']>>(key)))),
  );
  const samples: Samples = {};
  let times: Float64Array<ArrayBuffer> | undefined;
  for (const [index, [quantity, mine]] of there.entries()) {
    if (mine.length === 0) continue;
    const chunks = read[index] ?? [];
    const seconds = joined(chunks.map((chunk) => chunk?.seconds));
    // A meter tells all its quantities at once: one column of times serves them all.
    times = times && isSame(times, seconds) ? times : seconds;
    samples[quantity] = { seconds: times, values: joined(chunks.map((chunk) => chunk?.values)) };
  }
  return samples;
}

const isSame = (one: Float64Array, other: Float64Array): boolean =>
  one.length === other.length && one.every((each, row) => each === other[row]);
