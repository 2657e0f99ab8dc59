import { mean } from 'd3-array';
import type { ReadRun } from '../curve/figures';
import { fixed } from '../quantity/figures';
import type { SetupRuns } from './setups';

/** The level at plug-in, in %; of one that was dead 0, assumed; `undefined` where it is not known. */
export const startOf = ({ figures, run }: ReadRun): number | undefined => figures.startLevel ?? (run.isDead ? 0 : undefined);

/** Setups that began further apart than this, in %, do not tell by their times from plug-in which of them is quicker. */
const UNEVEN = 5;

/**
 * How setups began, as what follows `they` in a sentence, where that is so far apart that their times from plug-in to a level cannot be set against each other.
 *
 * @see docs/numbers.md, *Uneven starts*.
 */
export function unevenStarts(setups: readonly SetupRuns[]): string | undefined {
  const starts = setups.flatMap(({ runs }) => mean(runs.flatMap((one) => startOf(one) ?? [])) ?? []);
  const [low, high] = [Math.min(...starts), Math.max(...starts)];
  return high - low > UNEVEN
    ? `did not start alike, from ${fixed(low)} to ${fixed(high)} %: the higher start is ahead by that.`
    : undefined;
}
