import { assumedNow } from '../quantity/assumed';

/** How far repeats of one setup differ: the relative standard deviation, and how well it is known. */
export interface Spread {
  sigma: number;
  /** Degrees of freedom; `Infinity` where it is assumed and taken as known. */
  freedom: number;
}

/** The spread that is assumed until repeats tell it. */
export const assumedSpread = (): Spread => ({ sigma: assumedNow().spread, freedom: Infinity });
