import type { Entry } from '@core';
import { takeAhead } from './databases';
import { SHEAF } from './sheafKeys';
import { answer, INK, within } from './transactions';

/** Keys sort by the order of entry, and never collide: a plain `setItem` overwrites in silence. */
export const keyOf = ({ seq, id }: Entry): string => `${String(seq).padStart(9, '0')}/${id}`;

/**
 * Beside its entries a long live run has sheaves: its first entries once more, a hundred to a value, each named by the key of its last entry.
 * A start reads these and what came after, for it is the number of values that takes the time. The entries themselves stay what counts: what
 * was read from sheaves is looked through against them a moment later, and a run is filed from them alone.
 */
export const SHEAF_SIZE = 100;
/** An entry younger than this, in milliseconds, is not gathered yet: a tab that has just lost the run may still be storing one before it. */
const SETTLED = 60_000;

const sheaves = () => IDBKeyRange.lowerBound(SHEAF);
const entriesAfter = (key: string) => IDBKeyRange.bound(key, SHEAF, true, true);

/** The whole ink of a live run, entry by entry, in the order of its keys. @throws {StorageTrouble} */
export function allInk(runId: string): Promise<Entry[]> {
  return within<Entry[]>(INK + runId, 'readonly', [], (store, settle) => {
    answer(store.getAll(entriesAfter('')), settle);
  });
}

/** The same by its sheaves, and what came after the last of them. @throws {StorageTrouble} */
export function inkBySheaves(runId: string): Promise<Entry[]> {
  return within<Entry[]>(INK + runId, 'readonly', [], (store, settle) => {
    answer(store.getAll(sheaves()), (bound: Entry[][]) => {
      const gathered = bound.flat();
      const last = gathered.at(-1);
      answer(store.getAll(entriesAfter(last ? keyOf(last) : '')), (rest: Entry[]) => {
        settle([...gathered, ...rest]);
      });
    });
  });
}

/** The same, read ahead of the program if nothing was written since. */
export const inkAtStart = (runId: string): Promise<Entry[]> => takeAhead<Entry>(INK + runId) ?? inkBySheaves(runId);

/** Gathers what has been stored for a while into sheaves, as far as it fills them. */
export async function gather(runId: string, now = Date.now()): Promise<void> {
  await within<undefined>(INK + runId, 'readwrite', undefined, (store, settle) => {
    answer(store.getAllKeys(sheaves()), (keys) => {
      const last = (keys as string[]).at(-1)?.slice(SHEAF.length) ?? '';
      answer(store.getAll(entriesAfter(last)), (entries: Entry[]) => {
        const young = entries.findIndex(({ written }) => written > now - SETTLED);
        const settled = young < 0 ? entries : entries.slice(0, young);
        for (let to = SHEAF_SIZE; to <= settled.length; to += SHEAF_SIZE) {
          const sheaf = settled.slice(to - SHEAF_SIZE, to);
          store.put(sheaf, SHEAF + sheaf.slice(-1).map(keyOf).join(''));
        }
        settle(undefined);
      });
    });
  });
}

/** Takes the sheaves of a run away. */
export async function untie(runId: string): Promise<void> {
  await within<undefined>(INK + runId, 'readwrite', undefined, (store, settle) => {
    answer(store.delete(sheaves()), settle);
  });
}
