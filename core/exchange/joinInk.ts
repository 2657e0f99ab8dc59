import type { Entry } from '../ink/entry';
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

function sameEntry(one: Entry, other: Entry): boolean {
  const sorted = (entry: Entry) => JSON.stringify(Object.entries(entry).sort(([left], [right]) => (left < right ? -1 : 1)));
  return sorted(one) === sorted(other);
}
