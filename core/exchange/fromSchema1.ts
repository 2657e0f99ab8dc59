import { isShape, listOf, type Versioned } from './versioned';

/** In schema 1 a charger had one label and no ports, and there were neither cables nor meters. */
function charger(old: unknown): unknown {
  if (!isShape(old)) return old;
  const { label, ...rest } = old;
  if (label === undefined) return rest;
  return { ...rest, ports: [{ connector: old.kind === 'pad' ? 'pad' : 'USB-C', label }] };
}

const header = (old: unknown): unknown => (isShape(old) ? { ...old, schema: 2, charger: charger(old.charger) } : old);

/** Raises a logbook, a packed run, a header or a piece of kept gear from schema 1 to 2. */
export function fromSchema1(old: Versioned): Versioned {
  const raised: Versioned = { ...old, schema: 2 };
  if ('format' in old) {
    const run = (each: unknown) => (isShape(each) ? { ...each, header: header(each.header) } : each);
    return { ...raised, chargers: listOf(old.chargers, charger), cables: [], meters: [], studies: [], runs: listOf(old.runs, run) };
  }
  if ('header' in old) return { ...raised, header: header(old.header) };
  if ('charger' in old) return { ...raised, charger: charger(old.charger) };
  if (old.shelf === 'charger') return { ...raised, gear: charger(old.gear) };
  return raised;
}
