import { requireAtLeast } from '../quantity/require';

/** How much sooner one run was there than another, at one level. */
export interface SpeedUp {
  /** The level both times were taken at, in %. Every rate must name it. */
  level: number;
  /** Seconds saved; below zero when it took longer. */
  saved: number;
  /** Share of the time, t ÷ t₀ − 1: −0.3 is 30 % less time. */
  share: number;
  /** Rate, t₀ ÷ t − 1: 0.5 is half as fast again. */
  rate: number;
}

/**
 * The three ways in which a time saved is quoted. They are not the same figure: 30 % less time is 43 % faster.
 *
 * @param level    in %
 * @param seconds  time to the level, > 0
 * @param baseline time the baseline took to the same level, > 0
 * @throws {RangeError} when a time is zero, negative or not finite
 */
export function speedUp(level: number, seconds: number, baseline: number): SpeedUp {
  requireAtLeast(Number.MIN_VALUE, { seconds, baseline });
  return { level, saved: baseline - seconds, share: seconds / baseline - 1, rate: baseline / seconds - 1 };
}
