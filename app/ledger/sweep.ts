import { act } from './act';
import type { Packed } from './filed';
import { idIn, keyOf, keysOf, LOGBOOK, PICTURES } from './keys';
import { exclusively, ifFree } from './locks';
import { dropSamples } from './samples';
import { changing, reading, rowsWithin, type Readable } from './transactions';
import { TAKING, type Unnamed } from './unnamed';
import { forgetWorked } from './worked';

/** Held by an import from its first value to its act. */
export const IMPORTING = 'import';

/** Sweeps what nobody is about to name. @returns once nothing is left of what could be swept */
export async function sweep(): Promise<void> {
  await ifFree(TAKING, () => sweepAll(['picture']));
  await ifFree(IMPORTING, () => sweepAll(['import', 'run']));
}

/** The same, for an import that is about to begin and holds its lock. */
export const sweepForImport = (): Promise<void> => sweepAll(['import', 'run']);

/** Waits for an import that is under way. */
export const sweepRemoved = (): Promise<void> => exclusively(IMPORTING, () => sweepAll(['run']));

async function sweepAll(kinds: readonly string[]): Promise<void> {
  for (const kind of kinds)
    for (const [key, unnamed] of await reading(LOGBOOK, (store) => rowsWithin<Unnamed>(store, keysOf('unnamed', kind))))
      await sweepOne(key, unnamed);
}

async function sweepOne(key: string, { runs = [], removed = [], samples = [], pictures = [] }: Unnamed): Promise<void> {
  for (const span of samples) await dropSamples(span);
  for (const id of removed) await forgetWorked(id);
  const named = pictures.length > 0 ? await reading(LOGBOOK, namedPictures) : new Set<string>();
  for (const id of pictures) if (!named.has(id)) await changing(PICTURES, (store) => store.delete(id));
  await act(async (changes) => {
    for (const id of runs) if (!(await changes.has(keyOf('listed', id)))) changes.remove(keyOf('run', id));
    changes.remove(key, {});
  });
}

/** Pictures that ink names: the parts of a run that was split share theirs. */
async function namedPictures(store: Readable): Promise<Set<string>> {
  const named = new Set<string>();
  const name = (entries: readonly unknown[]) => {
    for (const entry of entries as Packed['entries']) if (entry.kind === 'picture') named.add(entry.picture);
  };
  name(await store.getAll(keysOf('ink')));
  for (const key of await store.getAllKeys(keysOf('listed'))) {
    const packed = (await store.get(keyOf('run', idIn(key as string)))) as Packed | undefined;
    if (Array.isArray(packed?.entries)) name(packed.entries);
  }
  return named;
}
