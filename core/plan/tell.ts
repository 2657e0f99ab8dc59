import { greatest, mean as meanOf, range, rollup, sum } from 'd3-array';
import type { Meter } from '../bench/meter';
import { placesTogether } from '../compare/setups';
import { ROOM } from '../curve/pace';
import { student } from '../margin/student';
import { assumedSpread, type Spread } from '../margin/assumed';
import { poolsTo } from '../margin/told';
import { widthAt } from '../method/cadence';
import type { Cadence } from '../method/cadenceSchema';
import { timesOf } from './matrix';
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

/** How often a setup is run; and, by how often it is, how many of the setups are that it is judged with, itself among them. */
export interface RunCounts {
  own: number;
  all: ReadonlyMap<number, number>;
}

/** By how often it is run, how many setups are. */
export const runCountsOf = (runs: readonly number[]): RunCounts['all'] =>
  rollup(
    runs,
    (some) => some.length,
    (each) => each,
  );

/** Every setup is run as often. */
export const evenly = (repeats: number, setups = 2): RunCounts => ({ own: repeats, all: new Map([[repeats, setups]]) });

/** The same with no setup run less often than so. */
const raisedTo = (min: number, { own, all }: RunCounts): RunCounts => ({
  own: Math.max(min, own),
  all: rollup(
    [...all],
    (some) => sum(some, ([, setups]) => setups),
    ([runs]) => Math.max(min, runs),
  ),
});

/** A setup and the one it is set against at worst: of the others, the least often run; where it is alone, one like it. */
function pairOf({ own, all }: RunCounts): readonly [number, number] {
  const others = [...all].filter(([runs, setups]) => runs !== own || setups > 1).map(([runs]) => runs);
  return [own, others.length > 0 ? Math.min(...others) : own];
}

/**
 * The smallest true difference between two figures that will be told apart in about nine of ten studies: (k + 1.28) · u_d.
 *
 * u_d² is the sum, over the two, of (σ · figure)² ÷ n + width² ÷ 12 ÷ d, d the different checks that n runs will answer, and k is Student’s t, 97.5 %, at the degrees of freedom that the repeats of
 * all setups that are judged together will give. An assumed spread counts as known.
 *
 * @param figure the larger of the two figures: a time in seconds, a power in watts
 * @param width  width of its bounds, in the same unit
 * @param runs   of the two, 1 to 20 each
 * @param all    how many of the setups that are judged together are run how often
 * @param spread how far repeats differ: as repeats have shown it, else as it is assumed
 * @see docs/numbers.md, *Tells apart from*; JCGM 100:2008 (GUM) 4.3.7; Welch 1947.
 */
export function smallestDifference(
  figure: number,
  width: number,
  runs: readonly [number, number],
  all: RunCounts['all'] = runCountsOf(runs),
  { sigma }: Pick<Spread, 'sigma'> = assumedSpread(),
): number {
  const [varies, read] = [(sigma * figure) ** 2, width ** 2 / 12];
  const byRuns = sum(runs, (each) => varies / each);
  const both = byRuns + sum(runs, (each) => read / differentChecks(each, Math.sqrt(varies) / Math.max(width, 1e-9)));
  const beyondFirst = sum(all, ([each, setups]) => setups * (each - 1));
  const of = poolsTo(beyondFirst, varies, read);
  const freedom = Number.isFinite(of) && varies > 0 ? of * (both / byRuns) ** 2 : Infinity;
  return (student(freedom) + POWER) * Math.sqrt(both);
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
 * What a method will be able to tell of each level of a setup.
 *
 * @param counts  how often it is run, and the others
 * @param reaches when it is expected to show a level, in seconds
 */
export function tell(
  cadence: Cadence,
  counts: RunCounts,
  levels: readonly number[],
  reaches: (level: number) => number | undefined,
): Telling[] {
  const finerFrom = cadence.kind === 'coarse then fine' ? reaches(cadence.level) : undefined;
  return levels.map((level) => {
    const expected = reaches(level);
    const interval = expected === undefined ? undefined : widthAt(cadence, expected, finerFrom);
    if (expected === undefined || interval === undefined) return { level, expected, margin: undefined, smallest: undefined };
    return { level, expected, ...telling(level, expected, interval, counts, reaches) };
  });
}

/** What checks so far apart around a level tell of it. */
function telling(
  level: number,
  expected: number,
  interval: number,
  counts: RunCounts,
  reaches: (level: number) => number | undefined,
): { margin: number; smallest: number } {
  const margin = drawnWidth(level, interval, reaches);
  const runs = pairOf(counts);
  const least = level >= 100 && Math.max(...runs) <= 1 ? INTERVALS_AT_FULL * interval : 0;
  return { margin, smallest: Math.max(least, smallestDifference(expected, margin, runs, counts.all)) };
}

type Repeated = Pick<Study, 'repeats' | 'more'>;

/** The setups that are not left out and are expected to charge, each with how often it is run, and those that are judged with it. */
function charging<Found>(
  study: Repeated,
  setups: readonly Setup[],
  find: (setup: Setup) => Found | undefined,
): { found: Found; counts: RunCounts }[] {
  const some = setups.flatMap((setup) => {
    const found = setup.cell.reason === undefined ? find(setup) : undefined;
    return found === undefined ? [] : [{ found, device: setup.cell.device, own: timesOf(study, setup.cell) }];
  });
  return placesTogether(some, ({ device }) => device).flatMap((places) => {
    const together = places.flatMap((place) => some[place] ?? []);
    const all = runCountsOf(together.map(({ own }) => own));
    return together.map(({ found, own }) => ({ found, counts: { own, all } }));
  });
}

/** What a study will be able to tell of each level, of every setup that is expected to charge. */
export function tellings(study: Study, setups: readonly Setup[], levels: readonly number[]): StudyTelling[] {
  const all = charging(study, setups, ({ expected }) => expected).map(({ found, counts }) =>
    tell(study.cadence, counts, levels, found.reaches),
  );
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
export function powerTelling(study: Repeated, setups: readonly Setup[], meters: readonly Meter[]): PowerTelling | undefined {
  const flows = charging(study, setups, ({ negotiated, expected }) =>
    negotiated?.volts && expected ? { watts: Math.max(...expected.watts), volts: negotiated.volts } : undefined,
  );
  const strongest = greatest(flows, ({ found }) => found.watts);
  const known = meters.filter(({ accuracyPercent, voltsResolution, ampsResolution }) =>
    [accuracyPercent, voltsResolution, ampsResolution].some((fact) => fact !== undefined),
  );
  if (!strongest || known.length === 0) return undefined;
  const { watts, volts } = strongest.found;
  const scale = (meter: Meter) => ((meter.accuracyPercent ?? 0) / 100) * 2 * watts;
  const digits = ({ accuracyDigits = 0, voltsResolution = 0, ampsResolution = 0 }: Meter) =>
    (accuracyDigits + 0.5) * ((voltsResolution / volts) * watts + ampsResolution * volts);
  const margin = Math.max(...known.map((meter) => scale(meter) + digits(meter)));
  const apart = known.length === 1 ? Math.max(...known.map(digits)) : margin;
  return {
    expected: watts,
    margin,
    smallest: smallestDifference(watts, 2 * apart, pairOf(strongest.counts), strongest.counts.all),
  };
}

/** A change of method that would tell a difference apart, and what it costs in extra readings of each run, or extra runs of each setup. */
export type Change =
  | { kind: 'none' }
  | { kind: 'finer'; every: number; from: number; to: number; extraReadings: number }
  /** So many runs of each; how many more of this setup that is. */
  | { kind: 'repeats'; repeats: number; extraRuns: number }
  /** Not even ten repeats would. */
  | { kind: 'out of reach' };

/** Runs of each that a study asks for at most. */
const MOST_REPEATS = 10;
/** Intervals that a person can keep, in seconds, coarse to fine. */
export const KEEPABLE = [600, 300, 180, 120, 60, 30];
/** Levels either side of the one asked about between which finer checks are taken, in %. */
const AROUND = 8;

/**
 * The cheapest change that would tell a difference apart at a level: finer checks near it where they suffice, else repeats. It is asked
 * of the setup that tells least, so it holds for all.
 *
 * @param wanted difference, in seconds
 * @returns of repeats, how many more runs of all setups together
 */
export function cheapestChange(study: Study, setups: readonly Setup[], level: number, wanted: number): Change {
  const some = charging(study, setups, ({ expected }) => expected);
  const changes = some.map(({ found, counts }) => changeOf(study.cadence, counts, level, wanted, found.reaches));
  const [dearest] = changes.sort(
    (one, other) => DEARNESS.indexOf(other.kind) - DEARNESS.indexOf(one.kind) || dearness(other) - dearness(one),
  );
  if (dearest?.kind !== 'repeats') return dearest ?? { kind: 'out of reach' };
  return { ...dearest, extraRuns: sum(some, ({ counts }) => Math.max(0, dearest.repeats - counts.own)) };
}

const DEARNESS: readonly Change['kind'][] = ['none', 'finer', 'repeats', 'out of reach'];
const dearness = (change: Change) => (change.kind === 'finer' ? -change.every : change.kind === 'repeats' ? change.repeats : 0);

/** The cheapest change for one setup. @param reaches when it is expected to show a level, in seconds */
export function changeOf(
  cadence: Cadence,
  counts: RunCounts,
  level: number,
  wanted: number,
  reaches: (level: number) => number | undefined,
): Change {
  const [now] = tell(cadence, counts, [level], reaches);
  if (now?.expected === undefined) return { kind: 'out of reach' };
  const { expected, smallest } = now;
  if (smallest !== undefined && smallest <= wanted) return { kind: 'none' };
  const interval = widthAt(cadence, expected, cadence.kind === 'coarse then fine' ? reaches(cadence.level) : undefined) ?? Infinity;
  const every = KEEPABLE.find((each) => each < interval && telling(level, expected, each, counts, reaches).smallest <= wanted);
  if (every !== undefined) {
    // Seen at a coarse check before the level, by a setup that is quicker by what is wanted too: wide checks would else step over the finer ones.
    const intoSight = expected - interval / Math.max(0.1, 1 - wanted / expected);
    const seen = range(level - AROUND, 1, -1).find((each) => (reaches(each) ?? 0) <= intoSight) ?? 1;
    const [from, to] = [Math.max(1, Math.min(level - AROUND, seen)), Math.min(100, level + AROUND)];
    const stretch = (reaches(to) ?? expected * 1.2) - (reaches(from) ?? expected * 0.8);
    const extraReadings = Math.max(1, Math.ceil(stretch / every) - Math.floor(stretch / Math.min(interval, stretch)));
    return { kind: 'finer', every, from, to, extraReadings };
  }
  for (let repeats = Math.min(...counts.all.keys()) + 1; repeats <= MOST_REPEATS && Number.isFinite(interval); repeats += 1) {
    const raised = raisedTo(repeats, counts);
    if (telling(level, expected, interval, raised, reaches).smallest <= wanted)
      return { kind: 'repeats', repeats, extraRuns: raised.own - counts.own };
  }
  return { kind: 'out of reach' };
}
