import { mean as meanOf, range, sum } from 'd3-array';
import type { Meter } from '../bench/meter';
import { ROOM } from '../curve/pace';
import { student } from '../margin/student';
import { assumedSpread, type Spread } from '../margin/assumed';
import { poolsTo } from '../margin/told';
import { widthAt } from '../method/cadence';
import type { Cadence } from '../method/cadenceSchema';
import type { Setup } from './setups';
import type { Study } from './study';

/** What readings of a setup will be able to say of its time to a level. Seconds. */
export interface Telling {
  level: number;
  /** When the level is expected; `undefined` where it is not reached. */
  expected: number | undefined;
  /** Width of the bounds that its checks leave, drawn in by the pace; `undefined` where it is reached after the last of them. */
  margin: number | undefined;
  /** Two setups that differ by this are told apart in nine of ten studies; by less, they may tie. */
  smallest: number | undefined;
}

/** What a study will be able to say of a level: the worst of its setups. */
export interface StudyTelling extends Telling {
  /** The soonest that any setup is expected to show the level; `expected` is the latest. */
  soonest: number | undefined;
  /** How many setups will say nothing of it. */
  without: number;
}

/** Quantile of the normal distribution that nine of ten lie below (published tables, from memory): so often is a difference told. */
const POWER = 1.28;
/** Intervals that two full times of single runs must differ by, for the latest of 100 % is never drawn in. */
export const INTERVALS_AT_FULL = 1.9;

/**
 * The smallest true difference between two figures that will be told apart in about nine of ten studies: (k + 1.28) · u_d.
 *
 * u_d² = 2 · ((σ · figure)² + width² ÷ 12) ÷ n, and k is Student’s t, 97.5 %, at the degrees of freedom that the repeats of all setups will give. An
 * assumed spread counts as known.
 *
 * @param figure  the larger of the two figures: a time in seconds, a power in watts
 * @param width   width of its bounds, in the same unit
 * @param repeats runs of each setup, 1 to 10
 * @param setups  how many setups are repeated, 2 or more
 * @param spread  how far repeats differ: as repeats have shown it, else as it is assumed
 * @see docs/numbers.md, *Tells apart from*; JCGM 100:2008 (GUM) 4.3.7; Welch 1947.
 */
export function smallestDifference(
  figure: number,
  width: number,
  repeats: number,
  setups = 2,
  { sigma }: Pick<Spread, 'sigma'> = assumedSpread(),
): number {
  const [varies, read] = [(sigma * figure) ** 2, width ** 2 / 12];
  const of = poolsTo(repeats, setups, varies, read);
  const mean = varies / repeats + read / differentChecks(repeats, Math.sqrt(varies) / Math.max(width, 1e-9));
  const freedom = Number.isFinite(of) && varies > 0 ? of * (mean / (varies / repeats)) ** 2 : Infinity;
  return (student(freedom) + POWER) * Math.sqrt(2 * mean);
}

/** Runs that differ by more than so many intervals answer no check together. */
const APART = 25;

/**
 * How many different checks repeats will answer with a time: they are read at the same marks, and those that fall between the same two share what reading
 * leaves open.
 *
 * @param varies how far runs differ, as a share of what lies between two checks
 */
function differentChecks(repeats: number, varies: number): number {
  if (repeats < 2) return 1;
  if (varies > APART) return repeats;
  const below = (moment: number) => (varies > 0 ? 1 / (1 + Math.exp((-1.702 * moment) / varies)) : moment < 0 ? 0 : 1);
  // Wherever the time lies between its two checks.
  const places = range(0.05, 1, 0.1);
  const reach = Math.ceil(4 * varies) + 1;
  const found = places.map((place) =>
    sum(range(-reach, reach + 1), (cell) => 1 - (1 - below(cell + 1 - place) + below(cell - place)) ** repeats),
  );
  return Math.max(1, Math.min(repeats, meanOf(found) ?? 1));
}

/** Levels over which the pace of a charge is taken, in %. */
const STRIDE = 5;

/**
 * The width that bounds will have once they are drawn in: a display that rose from check to check as it is expected to cannot have done so much
 * faster than it ever did. For 100 % only the earliest is drawn in.
 *
 * @param interval how far apart the checks there lie, in seconds
 */
export function drawnWidth(level: number, interval: number, reaches: (level: number) => number | undefined): number {
  const rate = (from: number) => {
    const [begin, end] = [reaches(from), reaches(from + STRIDE)];
    return begin === undefined || end === undefined || end <= begin ? 0 : STRIDE / (end - begin);
  };
  const here = rate(Math.max(1, Math.min(100 - STRIDE, level - STRIDE / 2)));
  // What is displayed between two checks is off by up to a percent either way.
  const fastest = ROOM.within * (Math.max(0, ...range(1, 100 - STRIDE, STRIDE).map(rate)) + 1 / (2 * interval));
  const gained = here * interval;
  const drawn = level >= 100 ? Math.max(0, gained / 2 - 1) : Math.max(0, gained - 1);
  return interval - Math.min(interval, drawn / fastest);
}

/**
 * What a method will be able to tell of each level.
 *
 * @param setups how many setups are repeated with it
 * @param reaches when a setup is expected to show a level, in seconds
 */
export function tell(
  cadence: Cadence,
  repeats: number,
  levels: readonly number[],
  reaches: (level: number) => number | undefined,
  setups = 2,
): Telling[] {
  const finerFrom = cadence.kind === 'coarse then fine' ? reaches(cadence.level) : undefined;
  return levels.map((level) => {
    const expected = reaches(level);
    const interval = expected === undefined ? undefined : widthAt(cadence, expected, finerFrom);
    if (expected === undefined || interval === undefined) return { level, expected, margin: undefined, smallest: undefined };
    return { level, expected, ...telling(level, expected, interval, repeats, reaches, setups) };
  });
}

/** What checks so far apart around a level tell of it. */
function telling(
  level: number,
  expected: number,
  interval: number,
  repeats: number,
  reaches: (level: number) => number | undefined,
  setups: number,
): { margin: number; smallest: number } {
  const margin = drawnWidth(level, interval, reaches);
  const least = level >= 100 && repeats <= 1 ? INTERVALS_AT_FULL * interval : 0;
  return { margin, smallest: Math.max(least, smallestDifference(expected, margin, repeats, setups)) };
}

/** The charges to expect of the setups that are not left out. */
const curvesOf = (setups: readonly Setup[]) =>
  setups.flatMap(({ cell, expected }) => (expected && cell.reason === undefined ? [expected] : []));

/** What a study will be able to tell of each level, of every setup that is expected to charge. */
export function tellings(study: Study, setups: readonly Setup[], levels: readonly number[]): StudyTelling[] {
  const curves = curvesOf(setups);
  const all = curves.map(({ reaches }) => tell(study.cadence, study.repeats, levels, reaches, curves.length));
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
export const KEEPABLE = [600, 300, 180, 120, 60, 30];
/** Levels either side of the one asked about between which finer checks are taken, in %. */
const AROUND = 8;

/**
 * The cheapest change that would tell a difference apart at a level: finer checks near it where they suffice, else repeats. It is asked
 * of the setup that tells least, so it holds for all.
 *
 * @param wanted difference, in seconds
 */
export function cheapestChange(study: Study, setups: readonly Setup[], level: number, wanted: number): Change {
  const curves = curvesOf(setups);
  const changes = curves.map(({ reaches }) => changeOf(study.cadence, study.repeats, level, wanted, reaches, curves.length));
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
  setups = 2,
): Change {
  const [now] = tell(cadence, repeats, [level], reaches, setups);
  if (now?.expected === undefined) return { kind: 'out of reach' };
  const { expected, smallest } = now;
  if (smallest !== undefined && smallest <= wanted) return { kind: 'none' };
  const interval = widthAt(cadence, expected, cadence.kind === 'coarse then fine' ? reaches(cadence.level) : undefined) ?? Infinity;
  const every = KEEPABLE.find((each) => each < interval && telling(level, expected, each, repeats, reaches, setups).smallest <= wanted);
  if (every !== undefined) {
    // Seen at a coarse check before the level, by a setup that is quicker by what is wanted too: wide checks would else step over the finer ones.
    const intoSight = expected - interval / Math.max(0.1, 1 - wanted / expected);
    const seen = range(level - AROUND, 1, -1).find((each) => (reaches(each) ?? 0) <= intoSight) ?? 1;
    const [from, to] = [Math.max(1, Math.min(level - AROUND, seen)), Math.min(100, level + AROUND)];
    const stretch = (reaches(to) ?? expected * 1.2) - (reaches(from) ?? expected * 0.8);
    const extraReadings = Math.max(1, Math.ceil(stretch / every) - Math.floor(stretch / Math.min(interval, stretch)));
    return { kind: 'finer', every, from, to, extraReadings };
  }
  for (let more = repeats + 1; more <= 10 && Number.isFinite(interval); more += 1) {
    if (telling(level, expected, interval, more, reaches, setups).smallest <= wanted)
      return { kind: 'repeats', repeats: more, extraRuns: more - repeats };
  }
  return { kind: 'out of reach' };
}
