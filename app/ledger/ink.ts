import type { Entry } from '@core/ink';
import { SNAPSHOT } from './snapshotKeys';
import { answer, INK, within } from './transactions';

/** Keys sort by the order of entry, and never collide: a plain `setItem` overwrites in silence. */
export const keyOf = ({ seq, id }: Entry): string => `${String(seq).padStart(9, '0')}/${id}`;

/**
 * Beside its entries a long live run has snapshots: its first entries once more, a hundred to a value, each named by the key of its last entry.
 * A start reads these and what came after, for it is the number of values that takes the time. The entries themselves stay what counts: what
 * was read from snapshots is looked through against them a moment later, and a run is filed from them alone.
 */
export const SNAPSHOT_SIZE = 100;
/** An entry younger than this, in milliseconds, is in no snapshot yet: a tab that has just lost the run may still be storing one before it. */
const SETTLED = 60_000;

const snapshots = () => IDBKeyRange.lowerBound(SNAPSHOT);
const entriesAfter = (key: string) => IDBKeyRange.bound(key, SNAPSHOT, true, true);

/** The whole ink of a live run, entry by entry, in the order of its keys. @throws {StorageTrouble} */
export function allInk(runId: string): Promise<Entry[]> {
  return within<Entry[]>(INK + runId, 'readonly', [], (store, settle) => {
    answer(store.getAll(entriesAfter('')), settle);
  });
}

/** The same by its snapshots, and what came after the last of them. @throws {StorageTrouble} */
export function inkBySnapshots(runId: string): Promise<Entry[]> {
  return within<Entry[]>(INK + runId, 'readonly', [], (store, settle) => {
    answer(store.getAll(snapshots()), (bound: Entry[][]) => {
      const early = bound.flat();
      const last = early.at(-1);
      answer(store.getAll(entriesAfter(last ? keyOf(last) : '')), (rest: Entry[]) => {
        settle([...early, ...rest]);
      });
    });
  });
}

/** Gathers what has been stored for a while into snapshots, as far as it fills them. */
export async function takeSnapshots(runId: string, now = Date.now()): Promise<void> {
  await within<undefined>(INK + runId, 'readwrite', undefined, (store, settle) => {
    answer(store.getAllKeys(snapshots()), (keys) => {
      const last = (keys as string[]).at(-1)?.slice(SNAPSHOT.length) ?? '';
      answer(store.getAll(entriesAfter(last)), (entries: Entry[]) => {
        const young = entries.findIndex(({ written }) => written > now - SETTLED);
        const settled = young < 0 ? entries : entries.slice(0, young);
        for (let to = SNAPSHOT_SIZE; to <= settled.length; to += SNAPSHOT_SIZE) {
          const snapshot = settled.slice(to - SNAPSHOT_SIZE, to);
          store.put(snapshot, SNAPSHOT + snapshot.slice(-1).map(keyOf).join(''));
        }
        settle(undefined);
      });
    });
  });
}

/** Takes the snapshots of a run away. */
export async function dropSnapshots(runId: string): Promise<void> {
  await within<undefined>(INK + runId, 'readwrite', undefined, (store, settle) => {
    answer(store.delete(snapshots()), settle);
  });
}

/**
 * Takes exactly these entries of a run away, and its snapshots: what was stored since stays.
 *
 * @returns whether anything is left
 */
export function removeInk(runId: string, ink: readonly Entry[]): Promise<boolean> {
  return within<boolean>(INK + runId, 'readwrite', false, (store, settle) => {
    for (const entry of ink) store.delete(keyOf(entry));
    store.delete(snapshots());
    const left = store.count();
    store.transaction.oncomplete = () => {
      settle(left.result > 0);
    };
  });
}
