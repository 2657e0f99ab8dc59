import { isShape, listOf, type Versioned } from './versioned';

/** In schema 2 a study chose no meters, raced nothing and had no calendar, and there were no methods of one’s own. */
const study = (old: unknown): unknown => (isShape(old) ? { ...old, schema: 3, meters: [], races: false } : old);
const run = (old: unknown): unknown => (isShape(old) && isShape(old.header) ? { ...old, header: { ...old.header, schema: 3 } } : old);

/** Raises a logbook, a packed run, a header, a study or a piece of kept gear from schema 2 to 3. */
export function fromSchema2(old: Versioned): Versioned {
  const raised: Versioned = { ...old, schema: 3 };
  if ('format' in old) return { ...raised, methods: [], studies: listOf(old.studies, study), runs: listOf(old.runs, run) };
  if ('header' in old) return { ...raised, ...(run(old) as object), schema: 3 };
  if ('repeats' in old) return study(old) as Versioned;
  return raised;
}
