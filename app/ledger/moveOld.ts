import { deleteDB, openDB } from 'idb';
import { summarise, type Summary } from '@core/curve';
import { joinInk, replay } from '@core/exchange';
import { foldRun, type Entry, type Header } from '@core/ink';
import { act } from './act';
import { write } from './acts';
import { migrated, packedRuns, type Packed } from './filed';
import { inkKey, keyOf, PICTURES } from './keys';
import type { Kind } from './kinds';
import { liveRun } from './live';
import { exclusively } from './locks';
import { isOldDatabase, OLD, OLD_COPY, OLD_INK } from './oldNames';
import { SAMPLES, streamsOf } from './samples';
import { databaseNames, reading, rowsWithin, STORE, storeMissing, type StoredRow } from './transactions';

/**
 * Moves a logbook that an older program stored in a dozen databases, and one more for the ink of every live run, into the one there is now. Killed
 * anywhere, it goes on at the next start; it is done when no old database is left. What a tab of the older program still writes is found then too.
 */

/** What lies in the old databases, by database and key. */
type Old = Map<string, Map<string, unknown>>;

/** So many values are stored in one transaction. */
const VALUES_AT_ONCE = 500;
/** What the keys of snapshots began with in the old databases: it stands in them for ever. */
const SNAPSHOT = 'sheaf/';

/** @returns whether the old databases had been thrown away, and were brought back from their second copy */
export const moveOld = (): Promise<boolean> =>
  exclusively('move', async () => {
    const names = (await databaseNames()).filter(isOldDatabase);
    const old: Old = new Map();
    for (const name of names) old.set(name, new Map(await reading(name, (store) => rowsWithin(store))));
    const isGone = await addFromCopy(old);
    await move(old);
    for (const name of names) await dropOld(name, old.get(name) ?? new Map<string, unknown>());
    await dropCopy();
    return isGone;
  });

/** Adds what the old databases have lost and their second copy still has. @returns whether they were thrown away */
async function addFromCopy(old: Old): Promise<boolean> {
  const said = replay(await oldLines());
  if (said.size === 0) return false;
  const isGone = old.get(OLD.shelf)?.has('born') !== true;
  const keys = (name: string) => old.get(name) ?? new Map<string, unknown>();
  for (const [name, rows] of said)
    for (const [key, value] of rows) {
      const [isLive, isFiled] = [keys(OLD.live).has(name.slice(OLD_INK.length)), keys(OLD.runs).has(key)];
      // Of what stands the databases are right, for gear and studies are thrown away by people; but nothing removes ink.
      const isLost =
        isGone || name === OLD.runs || (name.startsWith(OLD_INK) && isLive) || (name === OLD.live && old.has(OLD_INK + key) && !isFiled);
      if (isLost && !keys(name).has(key)) old.set(name, new Map([...keys(name), [key, value]]));
    }
  return isGone;
}

async function oldLines(): Promise<string[]> {
  const all: string[][] = [];
  try {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle(OLD_COPY);
    for await (const file of folder.values())
      if (file.kind === 'file') all.push((await (await file.getFile()).text()).split('\n').slice(0, -1));
  } catch {
    // There is none.
  }
  return all.flat();
}

/** A tab of the older program may be writing to it still: it is tried again at the next start. */
export async function dropCopy(): Promise<void> {
  try {
    await (await navigator.storage.getDirectory()).removeEntry(OLD_COPY, { recursive: true });
  } catch {
    // There is none, or it is held.
  }
}

/** Stores all of it that is not here yet. */
async function move(old: Old): Promise<void> {
  await moveArrived(old);
  await storeNew(plainRows(old));
  const { headers, packed, ink } = runsIn(old);
  for (const id of new Set([...headers.keys(), ...packed.keys(), ...ink.keys()]))
    // The older program files and amends under this lock.
    await exclusively(`file/${id}`, () => moveRun(id, old, headers.get(id), packed.get(id), ink.get(id) ?? []));
}

/** An import that was stored whole, and not yet in its place. */
async function moveArrived(old: Old): Promise<void> {
  const arrived = old.get(OLD.arriving);
  if (!arrived?.has('ready')) return;
  for (const [place, value] of arrived) {
    const [name = '', key] = place.split('\n');
    if (key === undefined) continue;
    if (name === SAMPLES || name === PICTURES) await storeMissing(name, [[key, value]]);
    else if (name === OLD.runs) {
      const { header, entries } = value as Packed;
      const before = old.get(name)?.get(key) as Packed | undefined;
      const whole = before ? { ...before, entries: joinInk(before.entries, entries, 'this run') } : { schema: 3, header, entries };
      old.set(name, new Map([...(old.get(name) ?? []), [key, whole]]));
      old.get(OLD.catalogue)?.delete(key);
    } else old.set(name, new Map([[key, value], ...(old.get(name) ?? [])]));
  }
}

/** Gear, studies, methods, comparisons, and what was chosen or is remembered. */
function plainRows(old: Old): StoredRow[] {
  const of = (name: string, kind: Kind): StoredRow[] => [...(old.get(name) ?? [])].map(([key, value]) => [keyOf(kind, key), value]);
  const named: Readonly<Record<string, string>> = {
    settings: 'chosen',
    mappings: 'mappings',
    demo: 'demo',
    marks: 'marks',
    board: 'board',
    here: 'here',
  };
  const settings = (name: string): StoredRow[] =>
    [...(old.get(name) ?? [])].flatMap(([key, value]) => (named[key] ? [[keyOf('setting', named[key]), value] as StoredRow] : []));
  const gear = [...(old.get(OLD.shelf) ?? [])].filter(([key]) => key.includes('/'));
  return [
    ...gear,
    ...settings(OLD.shelf),
    ...settings(OLD.live),
    ...of(OLD.studies, 'study'),
    ...of(OLD.methods, 'method'),
    ...of(OLD.comparisons, 'comparison'),
  ];
}

/** A header of a live run as it was stored, with what was seen at plug-in once more. */
type Begun = Header & { begun?: Entry[] };

function runsIn(old: Old): { headers: Map<string, Begun>; packed: Map<string, Packed>; ink: Map<string, Entry[]> } {
  const live = old.get(OLD.live) ?? new Map<string, unknown>();
  const packed = (old.get(OLD.runs) ?? new Map()) as Map<string, Packed>;
  const headers = new Map<string, Begun>();
  const ink = new Map<string, Entry[]>();
  for (const [name, rows] of old)
    if (name.startsWith(OLD_INK))
      ink.set(
        name.slice(OLD_INK.length),
        [...rows].flatMap(([key, entry]) => (key.startsWith(SNAPSHOT) ? [] : [entry as Entry])),
      );
  for (const [key, value] of live) if (typeof value === 'object' && value !== null && 'plugInAt' in value) headers.set(key, value as Begun);
  for (const [key, value] of live) {
    // A set, or what happened to several, that a crash left half written.
    const { runs = [], entries = [] } = value as {
      runs?: { header: Header; entries: Entry[] }[];
      entries?: { runId: string; entry: Entry }[];
    };
    if (key.startsWith('together/'))
      for (const { header, entries: begun } of runs) if (!packed.has(header.id)) headers.set(header.id, { ...header, begun });
    if (key.startsWith('happened/'))
      for (const { runId, entry } of entries) if (headers.has(runId)) ink.set(runId, [...(ink.get(runId) ?? []), entry]);
  }
  return { headers, packed, ink };
}

async function moveRun(id: string, old: Old, live: Begun | undefined, packed: Packed | undefined, ink: readonly Entry[]): Promise<void> {
  const { begun = [], ...header } = live ?? {};
  const before = packed ? readable(packed) : [];
  const entries = joinInk(joinInk(before, begun, 'this run'), ink, 'this run');
  const here = (await liveRun(id).catch(() => undefined)) ?? (await packedRuns([id]))[0];
  if (here) {
    const known = new Set(here.entries.map((entry) => entry.id));
    const missing = entries.filter((entry) => !known.has(entry.id));
    if (missing.length > 0) await write(missing.map((entry) => ({ runId: id, entry })));
  } else if (live ?? !packed) {
    // The header comes last: what was moved before it is found again.
    const rows = entries.map((entry): StoredRow => [inkKey(id, entry), entry]);
    await storeNew(live ? [...rows, [keyOf('live', id), header]] : rows);
  } else await moveFiled(id, packed, entries, old.get(OLD.catalogue)?.get(id) as Summary | undefined);
}

/** The ink of a packed run; none of one that cannot be read. */
function readable(packed: Packed): Entry[] {
  try {
    const { entries } = migrated(packed) as Partial<Packed>;
    return entries ?? [];
  } catch {
    return [];
  }
}

async function moveFiled(id: string, packed: Packed, entries: Entry[], listed: Summary | undefined): Promise<void> {
  const isAsListed = listed !== undefined && entries.length === (packed.entries as unknown[] | undefined)?.length;
  if (isAsListed)
    return storeNew([
      [keyOf('run', id), packed],
      [keyOf('listed', id), listed],
    ]);
  try {
    const { samples, logs } = await streamsOf(id);
    const now: Packed = { ...migrated(packed), entries };
    await storeNew([
      [keyOf('run', id), now],
      [keyOf('listed', id), summarise(foldRun(now.header, entries, samples, logs))],
    ]);
  } catch {
    // One that cannot be read is kept as it is, and named.
    await storeNew([[keyOf('run', id), packed]]);
  }
}

/** Stores values whose keys are free, a handful at a time. */
async function storeNew(rows: readonly StoredRow[]): Promise<void> {
  for (let from = 0; from < rows.length; from += VALUES_AT_ONCE)
    await act(async (changes) => {
      for (const [key, value] of rows.slice(from, from + VALUES_AT_ONCE)) if (!(await changes.has(key))) changes.add(key, value);
    });
}

/**
 * Drops an old database once all that it holds is moved. Nobody else has it open while it is looked at for the last time, and the request to drop it
 * stands behind that look: what a tab of the older program wants to write meanwhile comes after both, and is found at a later start.
 */
async function dropOld(name: string, moved: ReadonlyMap<string, unknown>): Promise<void> {
  const version = (await indexedDB.databases()).find((each) => each.name === name)?.version ?? 1;
  let rows: StoredRow[] = [];
  const opening = openDB(name, version + 1, {
    upgrade: (open, _from, _to, transaction) => {
      if (open.objectStoreNames.contains(STORE))
        void rowsWithin(transaction.objectStore(STORE) as never).then((found) => {
          rows = found;
        });
    },
  });
  const dropping = deleteDB(name);
  const open = await opening;
  try {
    const late = rows.filter(([key, value]) => JSON.stringify(moved.get(key)) !== JSON.stringify(value));
    if (late.length > 0) await move(new Map([[name, new Map(late)]]));
  } finally {
    open.close();
  }
  await dropping;
}
