/** How much sooner one run was there than another, at one level. */
export interface SpeedUp {
  /** The level both times were taken at, in %. Every rate must name it. */
  level: number;
  /** Seconds saved; below zero when it took longer. */
  saved: number;
  /** Share of the time, t ÷ t₀ − 1: −0.3 is 30 % less time; `undefined` where the baseline took no time. */
  share: number | undefined;
  /** Rate, t₀ ÷ t − 1: 0.5 is half as fast again; `undefined` where it took no time. */
  rate: number | undefined;
}

/**
 * The three ways in which a time saved is quoted. They are not the same figure: 30 % less time is 43 % faster.
 *
 * @param level    in %
 * @param seconds  time to the level
 * @param baseline time the baseline took to the same level
 */
export function speedUp(level: number, seconds: number, baseline: number): SpeedUp {
  return { level, saved: baseline - seconds, share: ratio(seconds, baseline), rate: ratio(baseline, seconds) };
}

/** One time as a share of another, less one. Of no time there is no share. */
const ratio = (one: number, other: number) => (one > 0 && other > 0 ? one / other - 1 : undefined);
