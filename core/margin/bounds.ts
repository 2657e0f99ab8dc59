/** What is known of a value: it lies between the two, both included. `high` is `Infinity` where there is no upper bound. */
export interface Bounds {
  low: number;
  high: number;
}

/** Run-to-run spread assumed until a reviewer's own repeats tell it: 3 % of the value (numbers.md). */
export const DEFAULT_SPREAD = 0.03;

/**
 * Standard uncertainty of a value known only to lie within bounds, all points equally likely.
 *
 * @returns in the unit of the bounds; `undefined` when they are open
 * @see JCGM 100:2008 (GUM) 4.3.7: width ÷ √12.
 */
export function standardUncertainty({ low, high }: Bounds): number | undefined {
  return Number.isFinite(high - low) ? (high - low) / Math.sqrt(12) : undefined;
}

/**
 * Whether one value lies surely below another: the gap between their bounds is wider than charging varies from run to run.
 * Bounds that overlap or touch never tell apart.
 *
 * @param spread run-to-run spread as a share of the value
 */
export function surelyBelow(one: Bounds, other: Bounds, spread = DEFAULT_SPREAD): boolean {
  const gap = other.low - one.high;
  return gap > 0 && gap > spread * Math.abs(other.low);
}

/** Whether two values cannot be told apart, either way round. */
export function isTie(one: Bounds, other: Bounds, spread = DEFAULT_SPREAD): boolean {
  return !surelyBelow(one, other, spread) && !surelyBelow(other, one, spread);
}

export interface Rank {
  /** 1 + the number of others that are surely better. */
  place: number;
  /** Whether another holds the same place: written `1=`. */
  shared: boolean;
}

/**
 * Places that claim no more than the bounds support. Ties are not transitive, so 1=, 1=, 3, 4 and 1=, 1=, 2 both occur.
 *
 * @example rank([{ low: 90, high: 95 }, { low: 85, high: 90 }, { low: 110, high: 115 }], 'less') // 1=, 1=, 3: touching bounds tie
 * @param all    bounds of each value; `undefined` where there is none, which gets no rank
 * @param better whether less of it or more of it wins
 */
export function rank(all: readonly (Bounds | undefined)[], better: 'less' | 'more', spread = DEFAULT_SPREAD): (Rank | undefined)[] {
  const beats = (one: Bounds, other: Bounds) => (better === 'less' ? surelyBelow(one, other, spread) : surelyBelow(other, one, spread));
  const places = all.map((mine) => mine && 1 + all.filter((theirs) => theirs && beats(theirs, mine)).length);
  return places.map((place) => {
    if (place === undefined) return undefined;
    return { place, shared: places.filter((other) => other === place).length > 1 };
  });
}

/** A rank as it is written: `1`, or `1=` when shared. */
export function writeRank({ place, shared }: Rank): string {
  return `${place}${shared ? '=' : ''}`;
}
