import { DEFAULT_SPREAD } from '../margin/bounds';
import type { Meter } from '../bench/meter';
import { dueTimes } from '../method/cadence';
import type { Cadence } from '../method/cadenceSchema';
import type { Setup } from './setups';
import type { Study } from './study';

/** What readings of a setup will be able to say of its time to a level. Seconds. */
export interface Telling {
  level: number;
  /** When the level is expected; `undefined` where it is not reached. */
  expected: number | undefined;
  /** Width of the bounds that its checks leave; `undefined` where it is reached after the last of them. */
  margin: number | undefined;
  /** Two setups that differ by more than this are surely told apart; by less, they may tie. */
  smallest: number | undefined;
}

/** What a study will be able to say of a level: the worst of its setups. */
export interface StudyTelling extends Telling {
  /** The soonest that any setup is expected to show the level; `expected` is the latest. */
  soonest: number | undefined;
  /** How many setups will say nothing of it. */
  without: number;
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
 * The smallest difference between two figures that will not be a tie.
 *
 * Single runs: bounds of `width` each, which must lie further apart than runs vary; so two widths and the spread. Repeats: the
 * half-width of the 95 % interval for a difference of means, with the variance of reading (width² ÷ 12) added to that of runs.
 *
 * @param figure  the larger of the two figures: a time in seconds, a power in watts
 * @param width   width of its bounds, in the same unit
 * @param repeats runs of each setup, 1 to 10
 * @see docs/numbers.md, *Told apart*; JCGM 100:2008 (GUM) 4.3.7; Welch 1947.
 */
export function smallestDifference(figure: number, width: number, repeats: number): number {
  const spread = DEFAULT_SPREAD * figure;
  if (repeats <= 1) return 2 * width + spread;
  const t = STUDENT_T[2 * repeats - 2] ?? 2.1;
  return t * Math.sqrt((2 * (spread ** 2 + width ** 2 / 12)) / repeats);
}

/** How far apart the checks around a moment lie, in seconds; `undefined` after the last of them. */
export function widthAt(cadence: Cadence, moment: number, finerFrom?: number): number | undefined {
  if (cadence.kind === 'sampled') return cadence.every;
  let before = 0;
  for (const due of dueTimes(cadence, finerFrom)) {
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
  const finerFrom = cadence.kind === 'coarse then fine' ? reaches(cadence.level) : undefined;
  return levels.map((level) => {
    const expected = reaches(level);
    const margin = expected === undefined ? undefined : widthAt(cadence, expected, finerFrom);
    const smallest = expected === undefined || margin === undefined ? undefined : smallestDifference(expected, margin, repeats);
    return { level, expected, margin, smallest };
  });
}

/** The charges to expect of the setups that are not left out. */
const curvesOf = (setups: readonly Setup[]) =>
  setups.flatMap(({ cell, expected }) => (expected && cell.reason === undefined ? [expected] : []));

/** What a study will be able to tell of each level, of every setup that is expected to charge. */
export function tellings(study: Study, setups: readonly Setup[], levels: readonly number[]): StudyTelling[] {
  const all = curvesOf(setups).map(({ reaches }) => tell(study.cadence, study.repeats, levels, reaches));
  return levels.map((level, index) => {
    const each = all.flatMap((telling) => telling[index] ?? []);
    const known = each.flatMap(({ expected }) => expected ?? []);
    const told = each.filter(({ smallest }) => smallest !== undefined);
    return {
      level,
      soonest: smallestOf(known),
      expected: largestOf(known),
      margin: largestOf(told.flatMap(({ margin }) => margin ?? [])),
      smallest: largestOf(told.flatMap(({ smallest }) => smallest ?? [])),
      without: each.length - told.length,
    };
  });
}

const largestOf = (values: readonly number[]) => (values.length > 0 ? Math.max(...values) : undefined);
const smallestOf = (values: readonly number[]) => (values.length > 0 ? Math.min(...values) : undefined);

/** What the meters of a study will be able to tell of power. W. */
export interface PowerTelling {
  /** The highest power that any setup is expected to draw. */
  expected: number;
  margin: number;
  smallest: number;
}

/**
 * How far apart two peaks must lie to be told apart by the meters at hand, read by hand.
 *
 * Volts and amps are each off by the meter’s accuracy and its last digits, at worst both the same way. With one meter its accuracy errs
 * alike in every run, and only the digits tell runs apart; with several it counts, once for each of the two runs.
 *
 * @returns `undefined` where nothing is expected, or no meter says how accurate it is
 * @see docs/numbers.md, *What a study can tell*.
 */
export function powerTelling(repeats: number, setups: readonly Setup[], meters: readonly Meter[]): PowerTelling | undefined {
  const flows = setups.flatMap(({ cell, negotiated, expected }) =>
    negotiated?.volts && expected && cell.reason === undefined ? [{ watts: Math.max(...expected.watts), volts: negotiated.volts }] : [],
  );
  const strongest = flows.reduce<(typeof flows)[number] | undefined>(
    (most, each) => (most && most.watts >= each.watts ? most : each),
    undefined,
  );
  const known = meters.filter(({ accuracyPercent, voltsResolution, ampsResolution }) =>
    [accuracyPercent, voltsResolution, ampsResolution].some((fact) => fact !== undefined),
  );
  if (!strongest || known.length === 0) return undefined;
  const { watts, volts } = strongest;
  const scale = (meter: Meter) => ((meter.accuracyPercent ?? 0) / 100) * 2 * watts;
  const digits = ({ accuracyDigits = 0, voltsResolution = 0, ampsResolution = 0 }: Meter) =>
    (accuracyDigits + 0.5) * ((voltsResolution / volts) * watts + ampsResolution * volts);
  const margin = Math.max(...known.map((meter) => scale(meter) + digits(meter)));
  const apart = known.length === 1 ? Math.max(...known.map(digits)) : margin;
  return { expected: watts, margin, smallest: smallestDifference(watts, 2 * apart, repeats) };
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
 * The cheapest change that would tell a difference apart at a level: finer checks near it where they suffice, else repeats. It is asked
 * of the setup that tells least, so it holds for all.
 *
 * @param wanted difference, in seconds
 */
export function cheapestChange(study: Study, setups: readonly Setup[], level: number, wanted: number): Change {
  const changes = curvesOf(setups).map(({ reaches }) => changeOf(study.cadence, study.repeats, level, wanted, reaches));
  const dearest = [...changes].sort(
    (one, other) => DEARNESS.indexOf(other.kind) - DEARNESS.indexOf(one.kind) || dearness(other) - dearness(one),
  );
  return dearest[0] ?? { kind: 'out of reach' };
}

const DEARNESS: readonly Change['kind'][] = ['none', 'finer', 'repeats', 'out of reach'];
const dearness = (change: Change) => (change.kind === 'finer' ? -change.every : change.kind === 'repeats' ? change.repeats : 0);

/** The cheapest change for one setup. @param reaches when it is expected to show a level, in seconds */
export function changeOf(
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
