import type { Entry } from '@core/ink';
import { packedRuns } from './filed';
import { sampleKeysOf } from './samples';
import { changing, valuesIn, type StoredRow } from './transactions';

/**
 * What was worked out of filed runs, kept so that neither a comparison of sixty nor the strip of a million rows need be waited for again. It can be
 * thrown away at any time.
 */

/** The database of it. */
export const WORKED = 'inkpath-worked';

interface Kept<Value> {
  /** What it was worked out of, and how. */
  of: string;
  value: Value;
}

/** When what was worked out is stored, in milliseconds. */
const LATER = 1500;

/**
 * What each run is stored as, in a text that changes with it: ink is only ever added to, and columns that lie there are never replaced. `undefined`
 * where there is none of an id.
 */
async function stampsOf(runIds: readonly string[]): Promise<(string | undefined)[]> {
  const [packed, keys] = await Promise.all([packedRuns(runIds), sampleKeysOf(runIds)]);
  return packed.map((run, index) => {
    // One that was damaged has no ink to go by: it is left to who works it out.
    const entries: unknown = run?.entries;
    const ink = Array.isArray(entries) ? [entries.length, (entries.at(-1) as Entry | undefined)?.id] : [];
    return run && JSON.stringify([run.schema, run.header, ...ink, keys[index]]);
  });
}

/** Where it is kept, after the id of the run: how the run lies beside others, and what is drawn of it at first. */
const PLACES = { beside: '', glimpse: '/glimpse' };

/**
 * Works something out of filed runs, or takes what was worked out of them before. Of each, the last that was asked for is kept.
 *
 * @param how  all that it hangs on beside the runs, the program among it; `undefined` keeps nothing
 * @param work done for those of which nothing is kept, in their order
 * @returns in the order of the ids; `undefined` where there is none of an id, or nothing comes of it
 */
export async function workedOut<Value>(
  what: keyof typeof PLACES,
  runIds: readonly string[],
  how: string | undefined,
  work: (runIds: readonly string[]) => Promise<(Value | undefined)[]>,
): Promise<(Value | undefined)[]> {
  if (how === undefined) return work(runIds);
  const keys = runIds.map((id) => id + PLACES[what]);
  // What cannot be read is worked out again.
  const lying = valuesIn<Kept<Value>>(WORKED, keys).catch((): undefined[] => []);
  const [stamps, kept] = await Promise.all([stampsOf(runIds), lying]);
  const of = stamps.map((stamp) => (stamp === undefined ? undefined : how + stamp));
  const found = of.map((each, index) => (each !== undefined && kept[index]?.of === each ? kept[index].value : undefined));
  const missing = [...runIds.keys()].filter((index) => of[index] !== undefined && found[index] === undefined);
  if (missing.length === 0) return found;
  const made = await work(missing.map((index) => runIds[index] ?? ''));
  const rows: StoredRow<Kept<Value>>[] = [];
  for (const [at, index] of missing.entries()) {
    const value = (found[index] = made[at]);
    if (value !== undefined) rows.push([keys[index] ?? '', { of: of[index] ?? '', value }]);
  }
  // Others may still be worked out, and nobody waits for this. Where there is no room for it, it is worked out again.
  if (rows.length > 0) setTimeout(() => void keep(rows).catch(() => undefined), LATER);
  return found;
}

const keep = (rows: readonly StoredRow[]): Promise<void> =>
  changing(WORKED, async (store) => {
    for (const [key, kept] of rows) await store.put(kept, key);
  });

/** Forgets what was worked out of a run: another may come to have its id. */
export const forgetWorked = (runId: string): Promise<void> =>
  changing(WORKED, async (store) => {
    for (const place of Object.values(PLACES)) await store.delete(runId + place);
  });
