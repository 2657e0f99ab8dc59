import { joinInk } from '@core/exchange';
import type { Entry } from '@core/ink';
import { idIn, inkKey, keyOf, keysOf, LOGBOOK } from './keys';
import { changing, reading, type Readable } from './transactions';

/**
 * Beside its entries a long live run has snapshots: its first entries once more, twenty-five to a value, each named by the key of its last entry.
 * A start reads these and what came after, for it is the number of values that takes the time; and as JSON, which is read sooner than a value is
 * cloned. The entries themselves stay what counts: what was read from snapshots is looked through against them a moment later, and a run is filed
 * from them alone.
 */
export const SNAPSHOT_SIZE = 25;
/** An entry younger than this, in milliseconds, is in no snapshot yet: a tab that has just lost the run may still be storing one before it. */
const SETTLED = 60_000;

/** Those of an older program are no JSON. */
type Snapshot = string | Entry[];
const entriesOf = (snapshot: Snapshot): Entry[] => (typeof snapshot === 'string' ? (JSON.parse(snapshot) as Entry[]) : snapshot);

/** The keys of a run's ink after the one that a snapshot is named by. */
function inkAfter(runId: string, snapshot: string | undefined): IDBKeyRange {
  const all = keysOf('ink', runId);
  return snapshot === undefined ? all : IDBKeyRange.bound(keyOf('ink', idIn(snapshot)), all.upper, true, true);
}

/** The whole ink of a live run, entry by entry, in the order of its keys. */
export const inkIn = (store: Readable, runId: string): Promise<Entry[]> => store.getAll(keysOf('ink', runId)) as Promise<Entry[]>;

/** The same by its snapshots, and what came after the last of them. */
export async function inkBySnapshots(store: Readable, runId: string): Promise<Entry[]> {
  const early = ((await store.getAll(keysOf('snapshot', runId))) as Snapshot[]).flatMap(entriesOf);
  const last = early.at(-1);
  const rest = (await store.getAll(inkAfter(runId, last && inkKey(runId, last)))) as Entry[];
  return [...early, ...rest];
}

/** Gathers what has been stored for a while into snapshots, as far as it fills them. Makes the next start quick; nothing hangs on it. */
export const takeSnapshots = (runId: string, now = Date.now()): Promise<void> =>
  changing(LOGBOOK, async (store) => {
    if ((await store.getKey(keyOf('live', runId))) === undefined) return;
    const last = (await store.getAllKeys(keysOf('snapshot', runId))).at(-1) as string | undefined;
    const entries = (await store.getAll(inkAfter(runId, last))) as Entry[];
    const young = entries.findIndex(({ written }) => written > now - SETTLED);
    const settled = young < 0 ? entries : entries.slice(0, young);
    for (let to = SNAPSHOT_SIZE; to <= settled.length; to += SNAPSHOT_SIZE) {
      const snapshot = settled.slice(to - SNAPSHOT_SIZE, to);
      const [end] = snapshot.slice(-1);
      if (end) await store.put(JSON.stringify(snapshot), keyOf('snapshot', idIn(inkKey(runId, end))));
    }
  });

/**
 * Looks through the ink that a start has shown, against each entry as it is stored. Where something had not been shown the snapshots are dropped.
 *
 * @returns the ink with what had not been shown; `undefined` when nothing is missing
 */
export async function missedInk(runId: string, shown: readonly Entry[]): Promise<Entry[] | undefined> {
  const stored = await reading(LOGBOOK, (store) => inkIn(store, runId));
  const known = new Set(shown.map(({ id }) => id));
  if (stored.every(({ id }) => known.has(id))) return undefined;
  await changing(LOGBOOK, (store) => store.delete(keysOf('snapshot', runId)));
  return joinInk(shown, stored, 'this run');
}
