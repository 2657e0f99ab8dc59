import { DEFAULT_SPREAD } from '../margin/bounds';
import { dueTimes } from '../method/cadence';
import type { Cadence } from '../method/cadenceSchema';

/** What readings of a run will be able to say of a time to a level. Seconds. */
export interface Telling {
  level: number;
  /** When the level is expected; `undefined` where it is not reached, or not while readings are taken. */
  expected: number | undefined;
  /** Width of the bounds that its checks leave. */
  margin: number | undefined;
  /** Two setups that differ by more than this are surely told apart; by less, they may tie. */
  smallest: number | undefined;
}

/**
 * Quantiles of Student’s t for a two-sided 95 % interval, by degrees of freedom (published tables, from memory): those that
 * two setups of n runs each have, 2 n − 2.
 */
const STUDENT_T: Readonly<Record<number, number>> = {
  2: 4.303,
  4: 2.776,
  6: 2.447,
  8: 2.306,
  10: 2.228,
  12: 2.179,
  14: 2.145,
  16: 2.12,
  18: 2.101,
};

/**
 * The smallest difference between two times that will not be a tie.
 *
 * Single runs: bounds of `width` each, which must lie further apart than runs vary; so two widths and the spread. Repeats: the
 * half-width of the 95 % interval for a difference of means, with the variance of reading (width² ÷ 12) added to that of runs.
 *
 * @param time    the later time, in seconds
 * @param width   width of the bounds, in seconds
 * @param repeats runs of each setup, 1 to 10
 * @see docs/numbers.md, *Told apart*; JCGM 100:2008 (GUM) 4.3.7; Welch 1947.
 */
export function smallestDifference(time: number, width: number, repeats: number): number {
  const spread = DEFAULT_SPREAD * time;
  if (repeats <= 1) return 2 * width + spread;
  const t = STUDENT_T[2 * repeats - 2] ?? 2.1;
  return t * Math.sqrt((2 * (spread ** 2 + width ** 2 / 12)) / repeats);
}

/** How far apart the checks around a moment lie, in seconds; `undefined` after the last of them. */
export function widthAt(cadence: Cadence, moment: number, fineFrom?: number): number | undefined {
  if (cadence.kind === 'sampled') return cadence.every;
  let before = 0;
  for (const due of dueTimes(cadence, fineFrom)) {
    if (due >= moment) return due - before;
    before = due;
  }
  return undefined;
}

/**
 * What a method will be able to tell of each level.
 *
 * @param reaches when a setup is expected to show a level, in seconds
 */
export function tell(
  cadence: Cadence,
  repeats: number,
  levels: readonly number[],
  reaches: (level: number) => number | undefined,
): Telling[] {
  const fineFrom = cadence.kind === 'coarse then fine' ? reaches(cadence.level) : undefined;
  return levels.map((level) => {
    const expected = reaches(level);
    const margin = expected === undefined ? undefined : widthAt(cadence, expected, fineFrom);
    const smallest = expected === undefined || margin === undefined ? undefined : smallestDifference(expected, margin, repeats);
    return { level, expected, margin, smallest };
  });
}

/** A change of method that would tell a difference apart, and what it costs in extra readings of each run, or extra runs of each setup. */
export type Change =
  | { kind: 'none' }
  | { kind: 'finer'; every: number; from: number; to: number; extraReadings: number }
  | { kind: 'repeats'; repeats: number; extraRuns: number }
  /** Not even ten repeats would. */
  | { kind: 'out of reach' };

/** Intervals that a person can keep, in seconds, coarse to fine. */
const KEEPABLE = [600, 300, 180, 120, 60, 30];
/** Levels either side of the one asked about between which finer checks are taken, in %. */
const AROUND = 8;

/**
 * The cheapest change that would tell a difference apart at a level: finer checks near it where they suffice, else repeats.
 *
 * @param wanted  difference, in seconds
 * @param reaches when a setup is expected to show a level, in seconds
 */
export function cheapestChange(
  cadence: Cadence,
  repeats: number,
  level: number,
  wanted: number,
  reaches: (level: number) => number | undefined,
): Change {
  const [telling] = tell(cadence, repeats, [level], reaches);
  if (telling?.expected === undefined) return { kind: 'out of reach' };
  const { expected, smallest, margin = Infinity } = telling;
  if (smallest !== undefined && smallest <= wanted) return { kind: 'none' };
  const every = KEEPABLE.find((each) => each < margin && smallestDifference(expected, each, repeats) <= wanted);
  if (every !== undefined) {
    const [from, to] = [Math.max(1, level - AROUND), Math.min(100, level + AROUND)];
    const stretch = (reaches(to) ?? expected * 1.2) - (reaches(from) ?? expected * 0.8);
    const extraReadings = Math.max(1, Math.ceil(stretch / every) - Math.floor(stretch / Math.min(margin, stretch)));
    return { kind: 'finer', every, from, to, extraReadings };
  }
  const width = Number.isFinite(margin) ? margin : expected;
  for (let more = repeats + 1; more <= 10; more += 1) {
    if (smallestDifference(expected, width, more) <= wanted) return { kind: 'repeats', repeats: more, extraRuns: more - repeats };
  }
  return { kind: 'out of reach' };
}
