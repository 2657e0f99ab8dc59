import type { Versioned } from './versioned';

type Shape = Record<string, unknown>;
const isShape = (value: unknown): value is Shape => typeof value === 'object' && value !== null && !Array.isArray(value);

/** In schema 1 a charger had one label and no ports, and there were neither cables nor meters. */
function charger(old: unknown): unknown {
  if (!isShape(old)) return old;
  const { label, ...rest } = old;
  if (label === undefined) return rest;
  return { ...rest, ports: [{ connector: old.kind === 'pad' ? 'pad' : 'USB-C', label }] };
}

const header = (old: unknown): unknown => (isShape(old) ? { ...old, schema: 2, charger: charger(old.charger) } : old);
const list = (value: unknown, raise: (each: unknown) => unknown): unknown => (Array.isArray(value) ? value.map(raise) : value);

/** Raises a logbook, a packed run, a header or a piece of kept gear from schema 1 to 2. */
export function fromSchema1(old: Versioned): Versioned {
  const raised: Versioned = { ...old, schema: 2 };
  if ('format' in old) {
    const run = (each: unknown) => (isShape(each) ? { ...each, header: header(each.header) } : each);
    return { ...raised, chargers: list(old.chargers, charger), cables: [], meters: [], studies: [], runs: list(old.runs, run) };
  }
  if ('header' in old) return { ...raised, header: header(old.header) };
  if ('charger' in old) return { ...raised, charger: charger(old.charger) };
  if (old.shelf === 'charger') return { ...raised, gear: charger(old.gear) };
  return raised;
}
