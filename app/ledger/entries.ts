import { nanoid } from 'nanoid';
import { isPlainReading, type Draft, type Entry } from '@core/ink';

/** Gives a draft its place in the order. */
export const entryOf = (draft: Draft, seq: number): Entry => ({ ...draft, seq, id: nanoid(12), written: Date.now() });

/** What ink is checked by before it is stored, once it was loaded. Where it cannot be, an entry is stored all the same: ink comes first. */
let check: ((entry: Entry) => void) | undefined;

/** Loads what ink is checked by; called once the first picture stands, so that no entry waits for it. */
export async function loadEntryCheck(): Promise<void> {
  if (check) return;
  await import('./entryCheck').then(
    ({ requireEntry }) => {
      check = requireEntry;
    },
    () => undefined,
  );
}

/** Checks entries before they are stored. @throws {StorageTrouble} */
export async function checkEntries(entries: readonly Entry[]): Promise<void> {
  const others = entries.filter((entry) => !isPlainReading(entry));
  if (others.length > 0) await loadEntryCheck();
  for (const entry of others) check?.(entry);
}
