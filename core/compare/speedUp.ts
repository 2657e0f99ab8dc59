import type { Passage } from '../curve/milestones';
import type { Difference, Pooled } from '../margin/told';

/** What times are taken to: a level in %, or what came to pass where no level is shown. */
export type Goal = number | Passage['what'];

/** A figure with the margin within which it lies in 95 of 100 cases. */
export interface WithMargin {
  value: number;
  margin: number;
}

/** How much sooner one setup was there than another, at one level. */
export interface SpeedUp {
  /** What both times were taken to. Every rate must name it. */
  level: Goal;
  /** Seconds saved: the baseline less it; below zero when it took longer. */
  saved: Difference;
  /** Share of the time, t ÷ t₀ − 1: −0.3 is 30 % less time; `undefined` where the baseline took no time. */
  share: WithMargin | undefined;
  /** Rate, t₀ ÷ t − 1: 0.5 is half as fast again; `undefined` where it took no time. */
  rate: WithMargin | undefined;
}

/**
 * The three ways in which a time saved is quoted. They are not the same figure: 30 % less time is 43 % faster.
 *
 * @param level      what the times were taken to
 * @param mine       time to the level
 * @param baseline   time the baseline took to the same level
 * @param saved      the baseline less mine, as it was told apart
 * @see JCGM 100:2008 (GUM) 5.1.6: relative uncertainties of a quotient add as squares.
 */
export function speedUp(level: Goal, mine: Pooled, baseline: Pooled, saved: Difference): SpeedUp {
  const relative = saved.k * relativeOf(mine, baseline);
  return { level, saved, share: quotient(mine, baseline, relative), rate: quotient(baseline, mine, relative) };
}

/**
 * How much faster one setup gained than another in the same time: 0.5 is half as fast again.
 *
 * @param mine what it gained; @param baseline what the baseline gained by the same mark
 * @param k of the difference between them, as it was told apart
 */
export const gainRate = (mine: Pooled, baseline: Pooled, { k }: Pick<Difference, 'k'>): WithMargin | undefined =>
  quotient(mine, baseline, k * relativeOf(mine, baseline));

const relativeOf = (one: Pooled, other: Pooled): number => Math.hypot(one.uncertainty / one.value, other.uncertainty / other.value);

/** One time, or gain, as a share of another, less one: of the two as they are written, within a margin that holds what lies about the true one. Of nothing there is no share. */
function quotient(one: Pooled, other: Pooled, relative: number): WithMargin | undefined {
  if (!(one.value > 0 && other.value > 0)) return undefined;
  const share = one.value / other.value;
  const written = (one.shown ?? one.value) / (other.shown ?? other.value);
  return Number.isFinite(written) && written > 0
    ? { value: written - 1, margin: share * relative + Math.abs(written - share) }
    : { value: share - 1, margin: share * relative };
}
