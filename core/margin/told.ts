import { sum } from 'd3-array';
import { assumedSpread, type Spread } from './assumed';
import type { Bounds } from './bounds';
import { KNOWN, student } from './student';

/** A figure of one run. */
export interface Measured {
  value: number;
  /** Its own standard uncertainty, in its unit: what reading it leaves open, without how runs vary. */
  uncertainty: number;
  /** What it surely lies between, where reading it says so. */
  bounds?: Bounds | undefined;
  /** It was not seen by the end: the value is the least that it can be. */
  isLeast?: boolean;
  /** It could not be more, for the battery was full: it can be shown to be above another, never below. */
  isFull?: boolean | undefined;
  /** What repeats vary in proportion to, where that is not the value itself: of a temperature its rise, of a level what was gained. */
  scale?: number | undefined;
  /** The figure as it is written, where that is not the value to the last digit. */
  shown?: number | undefined;
  /** The one margin that it is written with, where that is another than two uncertainties: it is never told as surer when it is handed on. */
  margin?: number | undefined;
  /** Of what is told by its latest: that, as it is written. */
  latest?: number | undefined;
}

const scaleOf = ({ scale, value }: Measured) => scale ?? value;

/**
 * How many different checks repeats answered with a figure: those that were read at the same marks share what reading leaves open. Two are one where the
 * middles of their bounds lie within half a width.
 */
export function checksOfRepeats(runs: readonly Measured[]): number {
  const found: Bounds[] = [];
  let others = 0;
  for (const { bounds } of runs) {
    if (!bounds || !Number.isFinite(bounds.high) || bounds.high <= bounds.low) others += 1;
    else if (!found.some((each) => isOneCheck(each, bounds))) found.push(bounds);
  }
  return found.length + others;
}

const isOneCheck = (one: Bounds, other: Bounds) =>
  Math.abs(one.low + one.high - other.low - other.high) / 2 <= (one.high - one.low + other.high - other.low) / 4;

/** The assumption weighs as much as so many degrees of freedom of repeats. */
const PRIOR = 8;
/** However alike a few repeats come out, runs vary by this much. */
const LEAST_SPREAD = 0.01;

const meanOf = (values: readonly number[]) => sum(values) / values.length;

/**
 * The spread of the setups of a study, from the repeats among them: pooled, and shrunk towards what is assumed. What reading adds to how far
 * repeats differ is taken off, and setups that are read coarsely count for less.
 *
 * @param setups the figure of each run of each setup
 * @example spreadOf([[{ value: 100, uncertainty: 1 }, { value: 104, uncertainty: 1 }]]).freedom // 8 and somewhat less than 1
 * @see docs/numbers.md, *Spread*.
 */
export function spreadOf(setups: readonly (readonly Measured[])[]): Spread {
  const prior = assumedSpread();
  let [top, freedom] = [PRIOR * prior.sigma ** 2, PRIOR];
  for (const runs of setups) {
    const values = runs.filter(({ isLeast }) => !isLeast);
    const mean = meanOf(values.map(scaleOf));
    if (values.length < 2 || mean === 0) continue;
    const own = meanOf(values.map(({ uncertainty }) => uncertainty ** 2));
    const variance = sum(values, (each) => (scaleOf(each) - mean) ** 2) / (values.length - 1);
    const assumed = (prior.sigma * mean) ** 2;
    const weight = (values.length - 1) * (assumed / (assumed + own)) ** 2;
    // What they share makes them no less alike.
    const apart = (own * (checksOfRepeats(values) - 1)) / (values.length - 1);
    top += (weight * (variance - apart)) / mean ** 2;
    freedom += weight;
  }
  return freedom === PRIOR ? prior : { sigma: Math.sqrt(Math.max(LEAST_SPREAD ** 2, top / freedom)), freedom };
}

/**
 * Degrees of freedom that the spread will have: `Infinity` while nothing is repeated.
 *
 * @param more   runs of setups beyond the first of each
 * @param varies variance of one run by the spread that is assumed
 * @param read   variance that reading adds to it
 */
export function poolsTo(more: number, varies: number, read: number): number {
  return more === 0 ? Infinity : PRIOR + more * (varies > 0 ? varies / (varies + read) : 0) ** 2;
}

/** A figure of a setup: the mean of its runs. */
export interface Pooled {
  value: number;
  /** As it is written, where that is not the value to the last digit. */
  shown?: number | undefined;
  /** Of one run, the margin that it is written with. */
  margin?: number | undefined;
  /** What its runs vary in proportion to: the value itself, nearly always. */
  scale: number;
  runs: number;
  /** How many different checks they answered. */
  checks: number;
  /** Standard uncertainty of the value, how runs vary included. */
  uncertainty: number;
  /** How runs of it vary, as it was taken: the very same where one estimate was made for several. */
  spread: Spread;
  /** The part of its variance that how runs vary makes up. */
  varies: number;
  bounds?: Bounds | undefined;
  isLeast: boolean;
  /** One of its runs was full, and could not show more. */
  isFull?: boolean;
}

/** Repeats as one figure. With one among them that was not seen by the end the mean is a least. `undefined` without a run. */
export function pooled(runs: readonly Measured[], spread: Spread): Pooled | undefined {
  if (runs.length === 0) return undefined;
  const value = meanOf(runs.map((each) => each.value));
  const scale = meanOf(runs.map(scaleOf));
  const varies = (spread.sigma * scale) ** 2 / runs.length;
  const checks = checksOfRepeats(runs);
  const read = meanOf(runs.map(({ uncertainty }) => uncertainty ** 2)) / checks;
  return {
    value,
    scale,
    runs: runs.length,
    checks,
    uncertainty: Math.sqrt(varies + read),
    spread,
    varies,
    ...(runs.length === 1 && { bounds: runs[0]?.bounds }),
    isLeast: runs.some(({ isLeast }) => isLeast),
    ...(runs.some(({ isFull }) => isFull) && { isFull: true }),
  };
}

/** How two setups differ in a figure. */
export interface Difference {
  /** The other less the one, in the unit of the figure. */
  value: number;
  /** The same of the two as they are written: what is said of it. */
  shown: number;
  /** Within so much of the value it lies in 95 of 100 cases. */
  margin: number;
  /** Quantile of Student’s t that the margin is so many standard uncertainties of. */
  k: number;
  freedom: number;
  /** The one is surely below the other, surely above, or neither. */
  told: 'below' | 'above' | 'tie';
}

/**
 * How two setups differ, and whether these readings tell them apart: one rule for single runs and for repeats.
 *
 * Degrees of freedom by Welch and Satterthwaite: how runs vary is one estimate for both, or one for each, and what reading leaves open is known. Of two single
 * runs the bounds must lie apart besides, by half of what runs vary. A least can only be shown to be above, and so can what was full.
 *
 * @see docs/numbers.md, *Told apart*; Welch 1947; JCGM 100:2008 (GUM) G.4.
 */
export function difference(one: Pooled, other: Pooled): Difference {
  const uncertainty = uncertaintyOf(one, other);
  const freedom = freedomOf(one, other);
  const k = student(freedom);
  const value = other.value - one.value;
  const told = toldApart(one, other, k * uncertainty);
  const shown = (other.shown ?? other.value) - (one.shown ?? one.value);
  // Of two that are told apart the lesser may be written as the greater only where it is known less finely.
  return {
    value,
    shown: told !== 'tie' && Math.sign(shown) !== Math.sign(value) ? value : shown,
    margin: k * uncertainty,
    k,
    freedom,
    told,
  };
}

const uncertaintyOf = (one: Pooled, other: Pooled): number => Math.sqrt(one.uncertainty ** 2 + other.uncertainty ** 2);

/** Degrees of freedom of a difference: never fewer than those of the lesser spread, for what reading leaves open is known. */
function freedomOf(one: Pooled, other: Pooled): number {
  const parts =
    one.spread === other.spread
      ? (one.varies + other.varies) ** 2 / one.spread.freedom
      : one.varies ** 2 / one.spread.freedom + other.varies ** 2 / other.spread.freedom;
  return parts > 0 ? (one.uncertainty ** 2 + other.uncertainty ** 2) ** 2 / parts : Infinity;
}

/** Whether two setups are told apart whose difference has this margin. */
function toldApart(one: Pooled, other: Pooled, margin: number): Difference['told'] {
  const value = other.value - one.value;
  const half = Math.hypot(one.spread.sigma * one.scale, other.spread.sigma * other.scale) / 2;
  const isApart = Math.abs(value) > margin && (one.runs > 1 || other.runs > 1 || gapOf(one, other) > half);
  const lower = value > 0 ? one : other;
  return !isApart || lower.isLeast || lower.isFull ? 'tie' : value > 0 ? 'below' : 'above';
}

/** No quantile is wider: no spread is known less well than what it is shrunk towards. */
const WIDEST = student(PRIOR);

/** What {@link difference} tells, of pairs as they come: most lie so far apart, or so close, that no quantile need be worked out, which is slow. */
export function tells(one: Pooled, other: Pooled): Difference['told'] {
  const uncertainty = uncertaintyOf(one, other);
  const apart = Math.abs(other.value - one.value) / uncertainty;
  if (apart <= KNOWN) return 'tie';
  const isWide = apart > WIDEST && Math.min(one.spread.freedom, other.spread.freedom) >= PRIOR;
  return toldApart(one, other, (isWide ? WIDEST : student(freedomOf(one, other))) * uncertainty);
}

/** How far apart the bounds of two single runs lie; below zero where they overlap. A value without bounds is its own. */
function gapOf(one: Pooled, other: Pooled): number {
  const [left, right] = [boundsOf(one), boundsOf(other)];
  return Math.max(right.low - left.high, left.low - right.high);
}

const boundsOf = ({ bounds, value, isLeast }: Pooled): Bounds => bounds ?? { low: value, high: isLeast ? Infinity : value };

export interface Rank {
  /** 1 + the number of others that are surely better. */
  place: number;
  /** Whether another holds the same place: written `1=`. */
  shared: boolean;
}

/**
 * Places that claim no more than the figures support. Ties are not transitive, so 1=, 1=, 3, 4 and 1=, 1=, 2 both occur. What was not seen by the
 * end has no place; it can be what others are better than.
 *
 * @param all    a figure for each setup; `undefined` where there is none, which gets no rank
 * @param better whether less of it or more of it wins
 */
export function rank(all: readonly (Pooled | undefined)[], better: 'less' | 'more'): (Rank | undefined)[] {
  const wins = better === 'less' ? 'below' : 'above';
  const surelyBetter = all.map(() => 0);
  for (const [index, one] of all.entries())
    for (let after = index + 1; after < all.length; after += 1) {
      const other = all[after];
      const told = one && other ? tells(one, other) : 'tie';
      if (told === 'tie') continue;
      const loser = told === wins ? after : index;
      surelyBetter[loser] = (surelyBetter[loser] ?? 0) + 1;
    }
  const places = all.map((mine, index) => (mine && !mine.isLeast ? 1 + (surelyBetter[index] ?? 0) : undefined));
  return places.map((place) => {
    if (place === undefined) return undefined;
    return { place, shared: places.filter((other) => other === place).length > 1 };
  });
}

/** A rank as it is written: `1`, or `1=` when shared. */
export function writeRank({ place, shared }: Rank): string {
  return `${place}${shared ? '=' : ''}`;
}
