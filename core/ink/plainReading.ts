import { ID } from '../bench/id';
import type { Entry } from './entry';
import { MOMENTS } from './ranges';
import { isKept, QUANTITIES } from '../quantity/quantity';

const PARTS = new Set<string>([...QUANTITIES, 'seq', 'id', 'at', 'written', 'kind', 'note', 'sure', 'direction']);
/** Longer ones are for the schema to judge. */
const LONGEST_NOTE = 1000;
const isId = (value: unknown) => typeof value === 'string' && ID.test(value);
const isMoment = (value: unknown) => Number.isInteger(value) && Number(value) >= MOMENTS.min && Number(value) <= MOMENTS.max;
const isPlace = (value: unknown) => Number.isInteger(value) && Number(value) >= 1 && Number(value) <= 1e6;
/** What tells one header, or one entry, from others that are alike; and whether that surely fits. */
export const OWN: Readonly<Record<'header' | 'entry', Readonly<Record<string, (value: unknown) => boolean>>>> = {
  header: { id: isId, plugInAt: isMoment },
  entry: { id: isId, seq: isPlace, at: isMoment, written: isMoment },
};

/**
 * Whether an entry is a reading as the entry line makes them, and surely fits its schema: nearly all are, and a reading must not wait for
 * schemas, which take long to build and to ask. What it is not sure of, it says no to: the schema is asked then (everyFigure.test.ts holds the two together).
 */
export function isPlainReading(entry: Entry): boolean {
  if (entry.kind !== 'reading' || !isId(entry.id) || !isPlace(entry.seq) || !isMoment(entry.at) || !isMoment(entry.written)) return false;
  if (Object.keys(entry).some((part) => !PARTS.has(part))) return false;
  const { note = '', sure = true, direction = 'in' }: { note?: unknown; sure?: unknown; direction?: unknown } = entry;
  if (typeof note !== 'string' || note.length > LONGEST_NOTE || sure !== true || (direction !== 'in' && direction !== 'out')) return false;
  return QUANTITIES.every((quantity) => {
    const value = entry[quantity];
    return value === undefined || (typeof value === 'number' && isKept(quantity, value));
  });
}
