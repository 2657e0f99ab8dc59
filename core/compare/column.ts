import { pooled, rank, spreadOf, type Measured, type Pooled, type Rank } from '../margin/told';
import { roundedAmount, type MeasureUnit } from './amounts';
import type { Spread } from '../margin/assumed';
import { shownMargin } from '../margin/bounds';

/** A figure of a setup: that of each of its runs, their mean, and its place. */
export interface Compared<Found> {
  each: Found[];
  mean: Pooled | undefined;
  rank: Rank | undefined;
  /** How repeats vary, as the setups laid beside each other show it. */
  spread: Spread;
  /** What is told by its latest is: else by its middle, for the setups beside each other were read unlike each other, or are means. */
  isByLatest: boolean;
}

/**
 * One figure of every setup: pooled over its repeats, with the spread that these show, and ranked. A setup with a run that has none has no mean.
 *
 * @param better  `undefined` of what is told and not ranked
 * @param isAlone whether a setup is told by itself alone
 */
export function column<Found>(
  setups: readonly Found[][],
  measure: (setup: number) => (found: Found) => Measured | undefined,
  unit: MeasureUnit,
  better: 'less' | 'more' | undefined,
  isAlone: (setup: number) => boolean = () => false,
): Compared<Found>[] {
  const measured = setups.map((each, index) => {
    const values = each.map(measure(index));
    return values.every((value) => value !== undefined) ? values : [];
  });
  const spread = spreadOf(measured.filter((_, index) => !isAlone(index)));
  const isByLatest = areAlike(measured);
  const means = measured.map((runs) => {
    const mean = pooled(runs, spread);
    return mean && { ...mean, shown: shownOf(runs, mean, unit, isByLatest), ...(runs.length === 1 && { margin: runs[0]?.margin }) };
  });
  const ranked = means.map((mean, index) => (isAlone(index) ? undefined : mean));
  const ranks = better ? rank(ranked, better, spread) : [];
  return setups.map((each, index) => ({ each, mean: means[index], rank: ranks[index], spread, isByLatest }));
}

/** Intervals that are wider than others by more than this are unlike them. */
const UNLIKE = 2;

/** Whether figures that are told by their latest can be set against each other so: single runs, whose intervals are alike. */
function areAlike(setups: readonly (readonly Measured[])[]): boolean {
  const widths = setups.flatMap((runs) =>
    runs.flatMap(({ bounds, latest }) => (bounds && latest !== undefined ? bounds.high - bounds.low : [])),
  );
  return setups.every((runs) => runs.length < 2) && Math.max(...widths) <= UNLIKE * Math.min(...widths);
}

/** A figure of a setup as it is written. */
function shownOf(runs: readonly Measured[], mean: Pooled, unit: MeasureUnit, isByLatest: boolean): number | undefined {
  const [only] = runs;
  if (runs.length > 1 || !only) return roundedAmount(mean.value, shownMargin(mean.uncertainty), unit);
  return isByLatest ? (only.latest ?? only.shown) : only.shown;
}
