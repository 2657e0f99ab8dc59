import { group } from 'd3-array';
import { summarise, type Summary } from '@core/curve';
import { joinInk } from '@core/exchange';
import { foldRun, SCHEMA, type Draft, type Entry, type Header } from '@core/ink';
import { act, type Changes, type Undo, type Ways } from './act';
import { checkEntries, entryOf } from './entries';
import { migrated, packedRuns, type Packed } from './filed';
import { inkKey, keyOf, keysOf, LOGBOOK, runOfInk } from './keys';
import { KINDS, kindsThat } from './kinds';
import { liveRun } from './live';
import { spanOfRun, streamsOf } from './samples';
import { NOT_LOGGED, StorageTrouble } from './storageTrouble';
import { reading, rowsWithin, type StoredRow } from './transactions';
import type { Unnamed } from './unnamed';

/**
 * All that is ever done to the logbook. Each act is one transaction and one line of the second copy: it is done whole, or not at all. What takes long
 * is worked out before; the transaction looks whether what it was worked out of still stands, and where it does not, the act begins anew.
 * Each returns the act that undoes it. Ink is never undone by taking it away: it is struck.
 */

/** An entry of a run's ink. */
export interface Written {
  runId: string;
  entry: Entry;
}

/** A run as it is filed. */
export interface Filing {
  packed: Packed;
  summary: Summary;
}

/** A filed run as it will be once ink was added to it, and by what it can be seen that it has changed meanwhile. */
export interface Prepared extends Filing {
  was: Packed;
}

/** `undefined` where it is not filed, or no longer. @param instead ids of entries in whose place some of the ink comes: two copies were settled */
export async function prepare(
  runId: string,
  entries: readonly Entry[],
  instead: ReadonlySet<string> = new Set(),
): Promise<Prepared | undefined> {
  const [was] = await packedRuns([runId]);
  if (!was) return undefined;
  const { header, entries: before } = migrated(was);
  const whole = joinInk(
    before.filter(({ id }) => !instead.has(id)),
    entries,
    'this run',
  );
  const { samples, logs } = await streamsOf(runId);
  return {
    was,
    packed: { schema: SCHEMA, header, entries: whole },
    summary: summarise(foldRun(header, whole, samples, logs)),
  };
}

/** Whether a run is live still or, if it was prepared, filed with just the ink it had. Both are asked at once, before anything is changed. */
export async function isAsPrepared(changes: Changes, runId: string, prepared: Prepared | undefined): Promise<boolean> {
  const [isLive, filed] = await Promise.all([changes.has(keyOf('live', runId)), prepared && changes.get<Packed>(keyOf('run', runId))]);
  return prepared ? !isLive && isSame(filed, prepared.was) : isLive;
}

/** What was prepared is no longer so. */
class Otherwise extends Error {
  constructor(readonly runs: readonly string[]) {
    super('Something else was stored meanwhile.');
  }
}

/** Ink of a filed run is only ever added to. */
export function isSame(one: Packed | undefined, other: Packed): boolean {
  return one?.entries.length === other.entries.length && one.entries.at(-1)?.id === other.entries.at(-1)?.id;
}

export function putFiled(changes: Changes, { packed, summary }: Filing): void {
  changes.put(keyOf('run', packed.header.id), packed);
  changes.put(keyOf('listed', packed.header.id), summary);
}

/**
 * Adds ink to runs, live ones and filed ones: what was read or noted, what happened to several at once, strikes, an answer about the clock, tags,
 * what discards a run or puts it back. One that was filed meanwhile gets it where it lies now.
 *
 * @throws {StorageTrouble} with nothing stored
 */
export async function write(added: readonly Written[]): Promise<{ undo: Undo }> {
  await checkEntries(added.map(({ entry }) => entry));
  const [one, ...more] = added;
  if (!one || more.length > 0 || one.entry.kind === 'picture' || !(await writeLive(one))) await writeWhere(added);
  return { undo: () => write(added.map(strikeOf)) };
}

/**
 * Adds one entry to a live run, as nearly all are: whether it is live is answered while it is stored, which takes no longer than a bare put.
 *
 * @returns whether the run was live; else nothing is left of it
 */
async function writeLive({ runId, entry }: Written): Promise<boolean> {
  const { result: isLive, undo } = await act((changes) => {
    const asked = changes.has(keyOf('live', runId));
    asked.catch(() => undefined);
    changes.add(inkKey(runId, entry), entry);
    changes.end();
    return asked;
  });
  // It was filed just then, by another tab perhaps. A kill in between leaves the entry to be found at the next start (adoptInk).
  if (!isLive) await undo();
  return isLive;
}

/** Adds entries to their runs wherever those lie: to all or to none. */
async function writeWhere(added: readonly Written[]): Promise<void> {
  const runs = group(added, ({ runId }) => runId);
  const filed = new Map<string, Prepared>();
  const gone = new Set<string>();
  for (;;) {
    try {
      await act(async (changes) => {
        const asked = Promise.all(
          [...runs.keys()].map(async (runId) => ((await isAsPrepared(changes, runId, filed.get(runId))) ? [] : [runId])),
        );
        asked.catch(() => undefined);
        for (const prepared of filed.values()) putFiled(changes, prepared);
        for (const { runId, entry } of added) {
          if (!filed.has(runId)) changes.add(inkKey(runId, entry), entry);
          if (entry.kind === 'picture') changes.remove(keyOf('unnamed', 'picture', entry.picture));
        }
        const others = (await asked).flat();
        if (others.length > 0) throw new Otherwise(others);
      });
      return;
    } catch (error) {
      if (!(error instanceof Otherwise)) throw error;
      for (const runId of error.runs) {
        const entries = (runs.get(runId) ?? []).map(({ entry }) => entry);
        const prepared = await prepare(runId, entries);
        if (prepared) filed.set(runId, prepared);
        else {
          // It may have been taken up again just now; looked for once more, it is nowhere.
          if (gone.has(runId)) throw new StorageTrouble('There is no such run in this logbook any more. Look under Runs.', NOT_LOGGED);
          filed.delete(runId);
          gone.add(runId);
        }
      }
    }
  }
}

const strikeOf = ({ runId, entry }: Written): Written => ({
  runId,
  entry: entryOf({ kind: 'strike', at: entry.at, target: entry.id, reason: 'undone' }, entry.seq + 1),
});

/** Adds to several filed runs, or live ones, what needs nothing of them but its next place: to all or to none. @throws {StorageTrouble} */
export async function writeNext(drafts: readonly { runId: string; draft: Draft }[]): Promise<{ entries: Entry[]; undo: Undo }> {
  const packed = await packedRuns(drafts.map(({ runId }) => runId));
  const added = drafts.map(({ runId, draft }, index) => ({ runId, entry: entryOf(draft, (packed[index]?.entries.at(-1)?.seq ?? 0) + 1) }));
  return { ...(await write(added)), entries: added.map(({ entry }) => entry) };
}

/** Ink that lies among the live and whose run is filed, for a kill came as it was about to be moved there: it is added to it. */
export async function adoptInk(): Promise<void> {
  const found = await reading(LOGBOOK, async (store) => {
    const rows = await rowsWithin<Entry>(store, keysOf('ink'));
    const runs = new Set(rows.map(([key]) => runOfInk(key)));
    const lost: string[] = [];
    for (const id of runs) if (!(await store.getKey(keyOf('live', id))) && (await store.getKey(keyOf('run', id)))) lost.push(id);
    return rows.filter(([key]) => lost.includes(runOfInk(key)));
  });
  if (found.length === 0) return;
  await writeWhere(found.map(([key, entry]) => ({ runId: runOfInk(key), entry })));
  await act((changes) => {
    for (const [key, entry] of found) changes.remove(key, entry);
    return Promise.resolve();
  });
}

/** Starts a run, or several at one instant, with what was seen at plug-in: all of them or none. @throws {StorageTrouble} */
export async function start(runs: readonly { header: Header; entries: readonly Entry[] }[], ways?: Ways): Promise<{ undo: Undo }> {
  for (const { entries } of runs) await checkEntries(entries);
  return act((changes) => {
    for (const { header, entries } of runs) {
      changes.add(keyOf('live', header.id), header);
      for (const entry of entries) changes.add(inkKey(header.id, entry), entry);
    }
    return Promise.resolve();
  }, ways);
}

/**
 * Files a live run: packed as one value, with a summary for the list; its ink is taken from the live. One that is filed already stays so.
 *
 * @throws {StorageTrouble} with nothing changed
 */
export async function file(runId: string): Promise<{ undo: Undo }> {
  for (;;) {
    const run = await liveRun(runId);
    if (!run) {
      const [filed] = await packedRuns([runId]);
      if (filed) return { undo: () => Promise.resolve() };
      throw new StorageTrouble('This run has lost its header, so it cannot be filed. Its ink is kept; export the logbook and report it.');
    }
    const { header, entries } = run;
    const { samples, logs } = await streamsOf(runId);
    const summary = summarise(foldRun(header, entries, samples, logs));
    const keys = entries.map((entry) => inkKey(runId, entry));
    const { result, undo } = await act(async (changes) => {
      const now = await changes.keys(keysOf('ink', runId));
      const before = await changes.get(keyOf('live', runId));
      if (!before || now.length !== keys.length || now.some((key, index) => key !== keys[index])) return false;
      for (const [index, key] of keys.entries()) changes.remove(key, entries[index]);
      changes.remove(keyOf('live', runId), before);
      changes.forget(keysOf('snapshot', runId));
      putFiled(changes, { packed: { schema: SCHEMA, header, entries }, summary });
      return true;
    });
    if (result) return { undo };
  }
}

/**
 * Takes a filed run up again with all its ink: it is live, and off the list, until it is filed anew.
 *
 * @param lane its letter on the board
 * @param because the stop that is taken back, if one stands
 * @returns it as it is now
 * @throws {StorageTrouble}
 */
export async function reopen(
  runId: string,
  lane: string | undefined,
  because: { stop: string } | undefined,
): Promise<{ header: Header; entries: Entry[]; undo: Undo }> {
  const { result, undo } = await act(async (changes) => {
    const stored = await changes.get<Packed>(keyOf('run', runId));
    if (!stored) throw new StorageTrouble('It is not in the list of runs: it may be live already.', 'The run was not resumed.');
    const { header: before, entries: ink } = migrated(stored);
    const header = lane ? { ...before, lane } : before;
    const seq = (ink.at(-1)?.seq ?? 0) + 1;
    const strike = because && entryOf({ kind: 'strike', at: Date.now(), target: because.stop, reason: 'stopped too soon' }, seq);
    const entries = [...ink, ...(strike ? [strike] : [])];
    changes.add(keyOf('live', runId), header);
    for (const entry of entries) changes.add(inkKey(runId, entry), entry);
    changes.remove(keyOf('run', runId), stored);
    changes.remove(keyOf('listed', runId));
    return { header, entries };
  });
  return { ...result, undo };
}

/** Removes all that is stored of a run; the sweep takes its samples and pictures. @throws {StorageTrouble} */
export async function remove(runId: string, ways?: Ways): Promise<{ undo: Undo }> {
  return act(async (changes) => {
    const packed = await changes.get<Partial<Packed>>(keyOf('run', runId));
    const ink = await changes.values<Entry>(keysOf('ink', runId));
    for (const kind of kindsThat(({ isOfRun }) => isOfRun)) {
      if (!KINDS[kind].isCopied) changes.forget(keysOf(kind, runId));
      else
        for (const key of [keyOf(kind, runId), ...(await changes.keys(keysOf(kind, runId)))])
          if (await changes.has(key)) changes.remove(key);
    }
    const entries = [...(Array.isArray(packed?.entries) ? packed.entries : []), ...ink];
    const pictures = entries.flatMap((entry) => (entry.kind === 'picture' ? [entry.picture] : []));
    changes.put(keyOf('unnamed', 'run', runId), { removed: [runId], samples: [spanOfRun(runId)], pictures } satisfies Unnamed);
  }, ways);
}

/** Saves values, whatever stands under their keys: gear, studies, methods, comparisons, settings, what is remembered. @throws {StorageTrouble} */
export const save = (rows: readonly StoredRow[], ways?: Ways): Promise<{ undo: Undo }> =>
  act((changes) => {
    for (const [key, value] of rows) changes.put(key, value);
    return Promise.resolve();
  }, ways);

/** Takes a value away. @throws {StorageTrouble} */
export const drop = (key: string): Promise<{ undo: Undo }> =>
  act((changes) => {
    changes.remove(key);
    return Promise.resolve();
  });
