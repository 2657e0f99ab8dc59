/** How far repeats of one setup differ: the relative standard deviation, and how well it is known. */
export interface Spread {
  sigma: number;
  /** Degrees of freedom; `Infinity` where it is assumed and taken as known. */
  freedom: number;
}

/** Assumed until repeats tell it (docs/numbers.md). */
export const ASSUMED_SPREAD: Spread = { sigma: 0.03, freedom: Infinity };
