import type { Entry } from '@core/ink';

/** The database of all that is small. What it holds lies in one store, under keys by kind: `<kind>/<id>`. */
export const LOGBOOK = 'inkpath';
/** That of pictures taken as evidence. */
export const PICTURES = 'inkpath-pictures';

/**
 * The kinds: ink of live runs, and snapshots of it; headers of live runs; runs that were filed, and their summaries; gear; studies, methods and
 * comparisons; what was chosen or is remembered; what an act that is not done yet, or a removal, leaves to be swept (sweep.ts); and the number of the
 * last act of each page (order.ts).
 */
export type Kind =
  | 'ink'
  | 'snapshot'
  | 'live'
  | 'run'
  | 'listed'
  | 'device'
  | 'charger'
  | 'cable'
  | 'meter'
  | 'study'
  | 'method'
  | 'comparison'
  | 'setting'
  | 'unnamed'
  | 'page';

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

/** Whether a value is in the second copy: snapshots can be had again, and what tells of the copy itself is not in it. */
export const isCopied = (key: string): boolean => !key.startsWith('snapshot/') && !key.startsWith('page/') && key !== SETTLED;
