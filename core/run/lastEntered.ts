import type { Entry } from '../ink/entry';
import type { RunRecord } from '../ink/fold';

/** What the program writes of its own accord; what a person answers about the clock is a person's. */
const BY_THE_PROGRAM: readonly string[] = ['away', 'fine'];

/** The last thing that a person entered on a run and that stands, whatever it was: what a slip is most likely to be. */
export function lastEntered({ entries, crossed }: RunRecord): Entry | undefined {
  const gone = new Set(crossed.map(({ entry }) => entry.id));
  return entries.findLast(
    (entry) => entry.kind !== 'strike' && !gone.has(entry.id) && !(entry.kind === 'event' && BY_THE_PROGRAM.includes(entry.event)),
  );
}
