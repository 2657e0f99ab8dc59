import type { Logbook } from '@core/exchange';
import type { ListName } from './channel';

/**
 * Every kind of thing that the database of the logbook holds, a row each: the first part of its keys, and what becomes of it wherever something is done
 * with all that is stored. Who does so reads the rows; a kind without an answer does not compile.
 */
interface Row {
  /** Whether it stands in the second copy: what can be had again, and what tells of the copy itself, does not. */
  isCopied: boolean;
  /** Where it goes in the file of a logbook, which is where it comes in from and what its schema is (core/exchange/readLogbook.ts). */
  inFile: keyof Logbook | 'no';
  /** What the other tabs are told of when it changes. */
  about: ListName | 'ink' | 'runs' | 'nothing';
  /** Whether it goes when the run is removed that its key names. */
  isOfRun: boolean;
  /** Whether it is work of a person's, which a backup counts. */
  isWork: boolean;
}

const ofRun = { isCopied: true, inFile: 'runs', about: 'runs', isOfRun: true, isWork: true } as const;
const listed = { isCopied: true, isOfRun: false, isWork: true } as const;
const own = { inFile: 'no', about: 'nothing', isOfRun: false, isWork: false } as const;

export const KINDS = {
  /** Ink of live runs, entry by entry. */
  ink: { ...ofRun, about: 'ink' },
  /** Snapshots of it (snapshots.ts). */
  snapshot: { ...own, isCopied: false, isOfRun: true },
  /** Headers of live runs. */
  live: ofRun,
  /** Runs that were filed, packed. */
  run: ofRun,
  /** Their summaries. */
  listed: { ...ofRun, inFile: 'no', isWork: false },
  device: { ...listed, inFile: 'devices', about: 'shelf' },
  charger: { ...listed, inFile: 'chargers', about: 'shelf' },
  cable: { ...listed, inFile: 'cables', about: 'shelf' },
  meter: { ...listed, inFile: 'meters', about: 'shelf' },
  study: { ...listed, inFile: 'studies', about: 'studies' },
  method: { ...listed, inFile: 'methods', about: 'methods' },
  comparison: { ...listed, inFile: 'comparisons', about: 'comparisons' },
  piece: { ...listed, inFile: 'pieces', about: 'pieces' },
  /** What was chosen, and what is remembered. */
  setting: { ...own, isCopied: true, inFile: 'settings' },
  /** What an act that is not done yet, or a removal, leaves to be swept (sweep.ts). */
  unnamed: { ...own, isCopied: true },
  /** The number of the last act of each page (order.ts). */
  page: { ...own, isCopied: false },
} as const satisfies Record<string, Row>;
export type Kind = keyof typeof KINDS;

const rows = Object.entries(KINDS) as [Kind, Row][];
/** The kinds of which something is so. */
export const kindsThat = (is: (row: Row) => boolean): Kind[] => rows.flatMap(([kind, row]) => (is(row) ? [kind] : []));

/** The kind that a key is of. */
const kindIn = (key: string): string => key.slice(0, key.indexOf('/'));

/** Whether a value is in the second copy. */
export const isKeyCopied = (key: string): boolean => rows.some(([kind, row]) => kind === kindIn(key) && row.isCopied);
