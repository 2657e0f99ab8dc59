import type { Quantity } from '@core/quantity';
import type { Dot } from '@core/samples';
import type { Beside, LevelLine } from './opened';

type Flat = Float64Array<ArrayBuffer>;

/**
 * How a run that is laid beside others comes from a worker: its lines as columns. Thousands of pairs, each copied as a list of its own, would
 * take the page longer than they took to be worked out.
 */
export interface Wire {
  rest: Omit<Beside, 'byLevel' | 'trace'> & { trace: Omit<Beside['trace'], 'dots'> };
  dots: [of: Quantity, points: Flat][];
  byLevel: [of: Quantity, points: Flat][];
}

/** Pairs one behind another; on the way, and only there, a break in a line is no number. */
function flat(line: readonly (readonly [number, number | undefined])[]): Flat {
  const all = new Float64Array(2 * line.length);
  for (let at = 0; at < line.length; at += 1) {
    all[2 * at] = line[at]?.[0] ?? 0;
    all[2 * at + 1] = line[at]?.[1] ?? Number.NaN;
  }
  return all;
}

function pairs(points: Flat): Dot[] {
  const all: Dot[] = [];
  for (let at = 0; at < points.length; at += 2) {
    const value = points[at + 1] ?? Number.NaN;
    all.push([points[at] ?? 0, Number.isNaN(value) ? undefined : value]);
  }
  return all;
}

export const toWire = ({ byLevel, trace: { dots, ...trace }, ...rest }: Beside): Wire => ({
  rest: { ...rest, trace },
  dots: Object.entries(dots).map(([of, points]) => [of as Quantity, flat(points)]),
  byLevel: byLevel.map(({ of, points }) => [of, flat(points)]),
});

/** What was sent, as it was. */
export function fromWire({ rest, dots, byLevel }: Wire): Beside {
  return {
    ...rest,
    trace: { ...rest.trace, dots: Object.fromEntries(dots.map(([of, points]) => [of, pairs(points)])) },
    byLevel: byLevel.map(([of, points]) => ({ of, points: pairs(points) as LevelLine['points'] })),
  };
}
