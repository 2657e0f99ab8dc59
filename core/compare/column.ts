import { pooled, rank, spreadOf, type Measured, type Pooled, type Rank } from '../margin/told';
import type { Spread } from '../margin/assumed';

/** A figure of a setup: that of each of its runs, their mean, and its place. */
export interface Compared<Found> {
  each: Found[];
  mean: Pooled | undefined;
  rank: Rank | undefined;
  /** How repeats vary, as the setups laid beside each other show it. */
  spread: Spread;
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
  better: 'less' | 'more' | undefined,
  isAlone: (setup: number) => boolean = () => false,
): Compared<Found>[] {
  const measured = setups.map((each, index) => {
    const values = each.map(measure(index));
    return values.every((value) => value !== undefined) ? values : [];
  });
  const spread = spreadOf(measured.filter((_, index) => !isAlone(index)));
  const means = measured.map((runs) => pooled(runs, spread));
  const ranked = means.map((mean, index) => (isAlone(index) ? undefined : mean));
  const ranks = better ? rank(ranked, better, spread) : [];
  return setups.map((each, index) => ({ each, mean: means[index], rank: ranks[index], spread }));
}
