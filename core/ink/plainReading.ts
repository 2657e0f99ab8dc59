import type { Entry } from './entry';
import { MOMENTS } from './ranges';
import { isKept, QUANTITIES } from '../quantity/quantity';

const PARTS = new Set<string>([...QUANTITIES, 'seq', 'id', 'at', 'written', 'kind', 'note', 'sure', 'direction']);
/** Longer ones are for the schema to judge. */
const LONGEST_NOTE = 1000;
const ID = /^[\w-]{8,40}$/;
const isMoment = (value: number) => Number.isInteger(value) && value >= MOMENTS.least && value <= MOMENTS.most;

/**
 * Whether an entry is a reading as the entry line makes them, and surely fits its schema: nearly all are, and a reading must not wait for
 * schemas, which take long to build and to ask. What it is not sure of, it says no to: the schema is asked then (everyFigure.test.ts holds the two together).
 */
export function isPlainReading(entry: Entry): boolean {
  if (entry.kind !== 'reading' || !ID.test(entry.id) || !isMoment(entry.at) || !isMoment(entry.written)) return false;
  if (!Number.isInteger(entry.seq) || entry.seq < 1 || entry.seq > 1e6) return false;
  if (Object.keys(entry).some((part) => !PARTS.has(part))) return false;
  const { note = '', sure = true, direction = 'in' }: { note?: unknown; sure?: unknown; direction?: unknown } = entry;
  if (typeof note !== 'string' || note.length > LONGEST_NOTE || sure !== true || (direction !== 'in' && direction !== 'out')) return false;
  return QUANTITIES.every((quantity) => {
    const value = entry[quantity];
    return value === undefined || (typeof value === 'number' && isKept(quantity, value));
  });
}
