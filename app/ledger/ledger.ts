import { nanoid } from 'nanoid';
import { joinInk, migrate } from '@core/exchange';
import { foldRun, isPlainReading, type Draft, type Entry, type Header, type RunRecord } from '@core/ink';
import { dropInk, inkOfRun, liveBook, removeValue, rowsOf, runBook, runsWithInk, store, storeAll } from './databases';
import { allInk, dropSnapshots, keyOf, takeSnapshots } from './ink';
import { exclusively } from './locks';
import { readNow, type Reading } from './readAhead';
import { whyOf } from './storageTrouble';

/**
 * The ledger keeps ink. While a run is live every entry has a key of its own in a database of the run's own; when the run stops
 * it is filed: packed as one value, read back and compared, and only then is the live database dropped. Filing again after a
 * crash at any point changes nothing. Later strikes and notes go the same way.
 */

/** Gives a draft its place in the order. */
export function entryOf(draft: Draft, seq: number): Entry {
  return { ...draft, seq, id: nanoid(12), written: Date.now() };
}

/** What ink is checked by before it is stored, once it was loaded. Where it cannot be, an entry is stored all the same: ink comes first. */
let check: ((entry: Entry) => void) | undefined;

/** Loads what ink is checked by; called once the first picture stands, so that no entry waits for it. */
export async function openDoor(): Promise<void> {
  if (check) return;
  await import('./door').then(
    ({ requireEntry }) => {
      check = requireEntry;
    },
    () => undefined,
  );
}

/** Stores one entry of a run's ink; it may be shown once this has resolved. @throws {StorageTrouble} */
export async function append(runId: string, entry: Entry): Promise<void> {
  if (!isPlainReading(entry)) {
    await openDoor();
    check?.(entry);
  }
  return store(inkOfRun(runId), keyOf(entry), entry);
}

/** What happened to several lanes at once: kept as one value until each of them has it, so that all of them do or none does. */
interface Happened {
  entries: { runId: string; entry: Entry }[];
}

/** Stores an entry of each of several runs. Stores all of them or none. @throws {StorageTrouble} */
export async function appendTogether(entries: Happened['entries']): Promise<void> {
  await openDoor();
  for (const { entry } of entries) check?.(entry);
  const key = `happened/${nanoid(12)}`;
  await store(liveBook, key, { entries } satisfies Happened);
  // From here on it has happened: what a crash leaves out is written at the next start.
  await appendTheRest({ entries });
  await removeValue(liveBook, key);
}

/** Stores of each entry what is not there yet: the same key once more changes nothing. A run that is no longer live is left as it was filed. */
async function appendTheRest({ entries }: Happened): Promise<void> {
  for (const { runId, entry } of entries) if (await liveBook.getItem(runId)) await store(inkOfRun(runId), keyOf(entry), entry);
}

/** A live run as it is stored: its header, and once more what was seen at plug-in, so that one value starts a run whole or not at all. */
export type Begun = Header & { begun?: Entry[] };

/** Starts a run: its header, then what was seen at plug-in. Stores both or neither. @throws {StorageTrouble} */
export async function startRun(header: Header, entries: readonly Entry[]): Promise<void> {
  try {
    await Promise.all([store(liveBook, header.id, { ...header, begun: [...entries] } satisfies Begun), beginInk(header.id, entries)]);
  } catch (trouble) {
    await removeValue(liveBook, header.id).catch(() => undefined);
    throw trouble;
  }
}

const beginInk = (runId: string, entries: readonly Entry[]) =>
  storeAll(
    inkOfRun(runId),
    entries.map((entry) => [keyOf(entry), entry]),
  );

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
    await removeValue(liveBook, key).catch(() => undefined);
  }
}

/** Starts what a crash left begun, whole: storing once more what is there already changes nothing. One that was filed since stays filed. */
async function startTheRest({ runs }: Together): Promise<void> {
  for (const { header, entries } of runs) if (!(await runBook.getItem(header.id))) await startRun(header, entries);
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

const HEARTBEAT = 'here';
/** When the program was last here, epoch milliseconds, and the runs that were live then: it says nothing of others. */
export interface Heartbeat {
  at: number;
  runs?: string[];
}
/** Keeps that the program is here while runs are live. @throws {StorageTrouble} */
export const keepHeartbeat = (heartbeat: Heartbeat): Promise<void> => store(liveBook, HEARTBEAT, heartbeat);
export const lastHeartbeat = async (): Promise<Heartbeat | undefined> => (await liveBook.getItem<Heartbeat>(HEARTBEAT)) ?? undefined;

/** A run that cannot be read or filed: named, and kept apart from the rest, which it never stops. */
export interface SetAside {
  id: string;
  name: string;
  why: string;
}

/** What is live: the header of every run that can be read, and those that cannot. What a crash left half started is started first. */
export async function liveHeaders({ rows }: Pick<Reading, 'rows'> = readNow): Promise<{ headers: Header[]; aside: SetAside[] }> {
  let kept = await rows<object>(liveBook);
  // A set that a crash left half started.
  if (kept.some(([key]) => key.startsWith('together/'))) {
    for (const key of (await liveBook.keys()).filter((each) => each.startsWith('together/'))) {
      const begun = await liveBook.getItem<Together>(key);
      if (begun) await startTheRest(begun);
      await removeValue(liveBook, key);
    }
    kept = await rowsOf<object>(liveBook);
  }
  // What happened to several, and a crash left half written.
  for (const [key, value] of kept.filter(([each]) => each.startsWith('happened/'))) {
    await appendTheRest(value as Happened);
    await removeValue(liveBook, key);
  }
  const aside: SetAside[] = [];
  const headers = kept.flatMap(([id, value]): Header[] => {
    if (!('plugInAt' in value)) return [];
    try {
      return [migrate(value, 'A live run') as unknown as Header];
    } catch (error) {
      aside.push(asideOf(id, value, error));
      return [];
    }
  });
  return { headers, aside };
}

/** A run that could not be read, by whatever of its header can be. */
export function asideOf(id: string, value: unknown, error: unknown): SetAside {
  const { device, charger } = (typeof value === 'object' && value !== null ? value : {}) as Partial<
    Record<'device' | 'charger', { name?: unknown }>
  >;
  const names = [device?.name, charger?.name].filter((name) => typeof name === 'string' && name !== '');
  return { id, name: names.join(' on ') || `Run ${id}`, why: whyOf(error) };
}

/** A live run with its ink, as a start reads it. What was seen at plug-in stands in its header too, should a crash have come before its ink. */
export async function liveRunAtStart(
  { begun = [], ...header }: Begun,
  reading: Pick<Reading, 'ink'>,
): Promise<{ header: Header; entries: Entry[]; record: RunRecord }> {
  const ink = await reading.ink(header.id);
  const known = new Set(ink.map(({ id }) => id));
  const isWhole = begun.every(({ id }) => known.has(id));
  if (!isWhole) await beginInk(header.id, begun);
  const entries = isWhole ? ink : joinInk(ink, begun, 'this run');
  return { header, entries, record: foldRun(header, entries) };
}

/** Every live run that can be read, with the ink it has so far. */
export async function liveRuns(): Promise<{ header: Header; entries: Entry[] }[]> {
  const found = await Promise.allSettled(
    (await liveHeaders()).headers.map(async ({ begun, ...header }: Begun) => ({
      header: header,
      entries: joinInk(await allInk(header.id), begun ?? [], 'this run'),
    })),
  );
  return found.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []));
}

/** Makes the next start quick, however long the run. Nothing hangs on it. */
export const takeInkSnapshots = (runId: string): Promise<void> => exclusively(`file/${runId}`, () => takeSnapshots(runId));

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
    await dropSnapshots(runId);
    return joinInk(shown, stored, 'this run');
  });
}

/** Forgets a live run. For the demo, which lays its own anew. */
export async function forgetLive(runId: string): Promise<void> {
  await removeValue(liveBook, runId);
  await dropInk(runId);
}

/** Ink whose run is neither live nor filed: its header was lost. */
export async function inkWithoutRun(): Promise<SetAside[]> {
  const aside: SetAside[] = [];
  for (const id of await runsWithInk()) {
    if ((await liveBook.getItem(id)) ?? (await runBook.getItem(id))) continue;
    if ((await allInk(id)).length === 0) await dropInk(id);
    else aside.push({ id, name: `Run ${id}`, why: 'Its header was lost; its ink is here.' });
  }
  return aside;
}
