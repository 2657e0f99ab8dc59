import { pooled, rank, spreadOf, type Measured, type Pooled, type Rank } from '../margin/told';
import { roundedAmount, type MeasureUnit } from './amounts';
import { shownMargin } from '../margin/bounds';
import { judgedTogether, type SetupRuns } from './setups';

/** A figure of a setup: that of each of its runs, their mean, and its place. */
export interface Compared<Found> {
  each: Found[];
  mean: Pooled | undefined;
  rank: Rank | undefined;
  /** What is told by its latest is: else by its middle, for the setups beside each other were read unlike each other, or are means. */
  isByLatest: boolean;
}

/**
 * One figure of every setup: pooled over its repeats, with the spread that those show which are judged together, and ranked. A setup with a run that has
 * none has no mean.
 *
 * @param found  the figure of each run of each setup
 * @param better `undefined` of what is told and not ranked
 */
export function column<Found>(
  setups: readonly SetupRuns[],
  found: readonly Found[][],
  measure: (setup: number) => (found: Found) => Measured | undefined,
  unit: MeasureUnit,
  better: 'less' | 'more' | undefined,
): Compared<Found>[] {
  const measured = found.map((each, index) => {
    const values = each.map(measure(index));
    return values.every((value) => value !== undefined) ? values : [];
  });
  const isAlone = (index: number) => setups[index]?.isSequence ?? false;
  const spreads = judgedTogether(setups).map((places) => ({
    places,
    spread: spreadOf(places.flatMap((index) => (isAlone(index) ? [] : [measured[index] ?? []]))),
  }));
  const isByLatest = areAlike(measured);
  const means = measured.map((runs, index) => {
    const spread = spreads.find(({ places }) => places.includes(index))?.spread;
    const mean = spread && pooled(runs, spread);
    return mean && { ...mean, shown: shownOf(runs, mean, unit, isByLatest), ...(runs.length === 1 && { margin: runs[0]?.margin }) };
  });
  const ranks = ranksAmong(means, isAlone, better);
  return found.map((each, index) => ({ each, mean: means[index], rank: ranks[index], isByLatest }));
}

/** Places of means among themselves alone, where they are ranked: a sequence has none. */
export const ranksAmong = (
  means: readonly (Pooled | undefined)[],
  isAlone: (setup: number) => boolean,
  better: 'less' | 'more' | undefined,
): (Rank | undefined)[] =>
  better
    ? rank(
        means.map((mean, index) => (isAlone(index) ? undefined : mean)),
        better,
      )
    : [];

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
