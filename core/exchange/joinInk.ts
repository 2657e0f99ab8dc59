import type { Entry, Strike } from '../ink/entry';
import { hashId } from '../quantity/hashId';
import { ImportError } from './importError';

/**
 * Joins two copies of a run's ink. Ink is only ever added to, so what stands in either stands in both.
 *
 * @throws {ImportError} when the copies tell the same entry differently
 */
export function joinInk(mine: readonly Entry[], theirs: readonly Entry[], where: string): Entry[] {
  const joined = new Map(mine.map((entry) => [entry.id, entry]));
  for (const entry of theirs) {
    const known = joined.get(entry.id);
    if (known && !sameEntry(known, entry)) {
      throw new ImportError(
        `Entry ${entry.seq} of ${where} differs from the one already here. Nothing was imported; keep the file apart, or use another address.`,
      );
    }
    joined.set(entry.id, entry);
  }
  return [...joined.values()].sort((one, other) => one.seq - other.seq || (one.id < other.id ? -1 : 1));
}

/** An entry with its parts in a fixed order: the same text for the same entry. */
const textOf = (entry: Entry): string => JSON.stringify(Object.entries(entry).sort(([left], [right]) => (left < right ? -1 : 1)));
const sameEntry = (one: Entry, other: Entry): boolean => textOf(one) === textOf(other);

/** Two entries of one id that say different things: one of them was changed outside the program, or two copies of a run went on apart. */
export interface Conflict {
  id: string;
  mine: Entry;
  theirs: Entry;
}
export type Choice = 'mine' | 'theirs';

/** What an entry that was not chosen is known by, whoever it came from. */
const mark = (entry: Entry): string => `-${hashId(textOf(entry))}`;
const slugOf = (origin: string): string => origin.replaceAll(/[^A-Za-z0-9]+/g, '').slice(0, 20) || 'other';

/** Where two copies of a run contradict each other. What was settled before is no conflict any more. */
export function conflictsIn(mine: readonly Entry[], theirs: readonly Entry[]): Conflict[] {
  const here = new Map(mine.map((entry) => [entry.id, entry]));
  return theirs.flatMap((entry): Conflict[] => {
    const known = here.get(entry.id);
    if (!known || sameEntry(known, entry)) return [];
    const settled = mark(entry);
    return mine.some(({ id }) => id.endsWith(settled)) ? [] : [{ id: entry.id, mine: known, theirs: entry }];
  });
}

/** Ink to be added to a run, and the ids of entries in whose place some of it comes. */
export interface SettledInk {
  entries: Entry[];
  instead: ReadonlySet<string>;
}

/**
 * Settles where two copies of a run contradict each other: the entry that was chosen keeps the id; the other stays too, under an id of its own that
 * names its origin, and is struck. Settling the same again changes nothing.
 *
 * @param choices by the id of the entry
 * @param origin  where the other copy comes from: its owner, or its file
 * @param now     when it is settled, epoch milliseconds
 * @throws {ImportError} when there is no choice for one
 */
export function settleInk(
  mine: readonly Entry[],
  theirs: readonly Entry[],
  choices: Readonly<Record<string, Choice | undefined>>,
  origin: string,
  now: number,
): SettledInk {
  const conflicts = new Map(conflictsIn(mine, theirs).map((each) => [each.id, each]));
  const here = new Map(mine.map((entry) => [entry.id, entry]));
  // What was settled before by keeping one’s own does not come again.
  const entries = theirs.filter((entry) => {
    const known = here.get(entry.id);
    return !known || sameEntry(known, entry) || conflicts.has(entry.id);
  });
  const instead = new Set<string>();
  let seq = Math.max(0, ...mine.map((entry) => entry.seq), ...theirs.map((entry) => entry.seq));
  const added: Entry[] = [];
  for (const { id, mine: own, theirs: other } of conflicts.values()) {
    const choice = choices[id];
    if (!choice)
      throw new ImportError(`Entry ${other.seq} differs from the one already here. Nothing was imported: choose which of the two counts.`);
    if (choice === 'theirs') instead.add(id);
    const loser = choice === 'mine' ? other : own;
    const apart = `${slugOf(choice === 'mine' ? origin : 'here')}${mark(loser)}`;
    const strike: Strike = {
      kind: 'strike',
      id: `s${hashId(apart)}`,
      seq: (seq += 1),
      at: now,
      written: now,
      target: apart,
      reason: `two copies differed, and the other was chosen (${choice === 'mine' ? `this one from ${origin}` : 'this one was here'})`,
    };
    added.push({ ...loser, id: apart }, strike);
  }
  const kept = entries.filter(({ id }) => !conflicts.has(id) || choices[id] === 'theirs');
  return { entries: [...kept, ...added], instead };
}

/** In what two entries of one id differ: the name of each part, and what stands in either. */
export function differencesOf({ mine, theirs }: Conflict): { part: string; mine: string; theirs: string }[] {
  const said = (value: unknown): string => (value === undefined ? '—' : typeof value === 'string' ? value : JSON.stringify(value));
  const of = (entry: Entry) => entry as unknown as Readonly<Record<string, unknown>>;
  return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
    .filter((part) => said(of(mine)[part]) !== said(of(theirs)[part]))
    .map((part) => ({ part, mine: said(of(mine)[part]), theirs: said(of(theirs)[part]) }));
}
