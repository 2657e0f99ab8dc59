/** What is known of a value: it lies between the two, both included. `high` is `Infinity` where there is no upper bound. */
export interface Bounds {
  low: number;
  high: number;
}

/**
 * Standard uncertainty of a value known only to lie within bounds, all points equally likely.
 *
 * @returns in the unit of the bounds; `undefined` when they are open
 * @see JCGM 100:2008 (GUM) 4.3.7: width ÷ √12.
 */
export function standardUncertainty({ low, high }: Bounds): number | undefined {
  return Number.isFinite(high - low) ? (high - low) / Math.sqrt(12) : undefined;
}

/** Standard uncertainties that a margin as shown is made of: about 95 % lie within (JCGM 100:2008, GUM 6.2). */
const COVERAGE = 2;

/**
 * The one margin that a figure shows: ± two standard uncertainties, and never more than half of what it surely lies between.
 *
 * @param hard what it surely lies between, if anything says so and it has a width
 */
export function shownMargin(uncertainty: number, hard?: Bounds): number {
  const half = hard && hard.high > hard.low ? (hard.high - hard.low) / 2 : Infinity;
  return Math.min(COVERAGE * uncertainty, half);
}
