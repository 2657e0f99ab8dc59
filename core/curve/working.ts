import { trimmed } from '../quantity/figures';
import type { Sighting } from '../ink/track';

/** How a figure was worked out: the formula with its numbers in it, and the readings it used, each a place on the strip. */
export interface Working {
  formula: string;
  /** Unit of the readings it used. */
  unit: string;
  uses: Sighting[];
}

/** A number as it stands in a formula: as short as it is exact to two decimals. */
export const plain = trimmed;
