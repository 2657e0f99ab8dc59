import type { Entry } from '@core/ink';
import type { Kind } from './kinds';

/** The database of all that is small. What it holds lies in one store, under keys by kind: `<kind>/<id>`. */
export const LOGBOOK = 'inkpath';
/** That of pictures taken as evidence. */
export const PICTURES = 'inkpath-pictures';

/** A key; of a kind whose things belong to a run, the run comes first. */
export const keyOf = (kind: Kind, ...parts: readonly string[]): string => [kind, ...parts].join('/');

/** Ink sorts by the order of entry, and never collides. */
export const inkKey = (runId: string, { seq, id }: Pick<Entry, 'seq' | 'id'>): string =>
  keyOf('ink', runId, String(seq).padStart(9, '0'), id);

/** The run that an entry is of, by its key. */
export const runOfInk = (key: string): string => key.split('/')[1] ?? '';

/** All keys of a kind, or those of one run. "0" is the character after the stroke. */
export function keysOf(kind: Kind, ...parts: readonly string[]): IDBKeyRange {
  const prefix = keyOf(kind, ...parts);
  return IDBKeyRange.bound(`${prefix}/`, `${prefix}0`, false, true);
}

/** What comes after the kind in a key. */
export const idIn = (key: string): string => key.slice(key.indexOf('/') + 1);

/** Up to which act logbook and second copy were found to agree (order.ts). */
export const SETTLED = 'settled';
