import { ascending, median, sum } from 'd3-array';
import type { RunRecord } from '../ink/fold';
import { feedsOf } from '../ink/sequence';
import { spell } from '../quantity/duration';
import { fixed } from '../quantity/figures';
import { firstAfter, rowsBetween, type SampleColumn } from '../samples/column';
import type { Span } from '../samples/gaps';
import { unseenSpans } from './energy';
import { highestValue, holds } from './faults';
import { levelEnd, type EndLevel } from './levelEnd';
import { goneBelow, displayedLevels, type RunLevels } from './milestones';
import { segmentsOf } from './segments';
import { binned, type TimeMeans } from './timeMeans';

/** A stage of a charge: a stretch in which power was one thing, or fell all along. */
export interface Stage extends Span {
  /** `hold`: an adaptive setting kept the battery where it was; `idle`: power was near none. */
  kind: 'steady' | 'taper' | 'hold' | 'idle';
  /** Mean power, in W. */
  watts: number;
  /** At its two ends, in W: they differ for a taper. */
  first: number;
  last: number;
  /** Mean volts at the cable, where they were read. */
  volts?: number | undefined;
  /** Level at its start and its end, as far as they are known. */
  level: { from?: EndLevel | undefined; to?: EndLevel | undefined };
  /** Share of the charge’s time, 0 to 1. */
  share: number;
  /** What fed it, where several sources fed the run. */
  source?: string | undefined;
}

/** The shortest stage, in seconds: of a short run that was read densely, and of any other. What is shorter belongs to a change. */
const SHORTEST = { dense: 60, usual: 120 };
const DENSE = { rows: 10, run: 1800 };
/** Noise below this share of the peak is taken for that much. */
const LEAST_NOISE = 0.005;
/** What a piece must explain, in squares of the noise by the logarithm of the number of bins; a line has more to choose. */
const WORTH = { constant: 4, line: 6 };
/** Falling pieces are one taper unless power drops between them: by so much of the peak, within so many seconds. */
const DROP = { share: 0.08, within: 60 };
/** A fall of so much of itself is none. */
const STEADY = 0.02;
/** Noise is looked for over so many neighbours at most, and over no more than this share of the bins: rows that a meter levels out are alike. */
const APART = { max: 3, share: 1 / 30 };

/**
 * Noise of the bins, as a standard deviation of normal noise: how far each lies from the middle of its neighbours, which a straight fall does not change.
 * Of a meter that shows one value for several bins, or means of its own, neighbours further off tell more; of rows that stand for long, only those that
 * differ do.
 */
function noiseOf({ means, seen }: TimeMeans, peak: number): number {
  const values = [...means].filter((_, bin) => (seen[bin] ?? 0) > 0.5);
  const changed = values.filter((value, index) => index === 0 || value !== values[index - 1]);
  const told = changed.length >= 40 ? changed : values;
  const lags = Math.max(1, Math.min(APART.max, Math.floor(told.length * APART.share)));
  const found = Array.from({ length: lags }, (_, index) => {
    const lag = index + 1;
    const off: number[] = [];
    for (let at = lag; at + lag < told.length; at += 1)
      off.push(Math.abs((told[at] ?? 0) - ((told[at - lag] ?? 0) + (told[at + lag] ?? 0)) / 2));
    return (median(off) ?? 0) / 0.6745 / Math.sqrt(1.5);
  });
  return Math.max(LEAST_NOISE * peak, ...found);
}

/** The ends of a taper are what was read in its first and last seconds. */
const ENDS = 30;

/** The mean of the bins that lie wholly in a stretch; of a shorter one of the bin in which it ends. */
function meanOf({ from, width, means, seen }: TimeMeans, stretch: Span): number {
  const to = Math.min(means.length, Math.floor((stretch.to - from) / width + 1e-6));
  const first = Math.max(0, Math.ceil((stretch.from - from) / width - 1e-6));
  const bins =
    to > first ? Array.from({ length: to - first }, (_, at) => first + at) : [Math.min(means.length - 1, Math.max(0, first - 1))];
  return (
    sum(bins, (bin) => (seen[bin] ?? 0) * (means[bin] ?? 0)) /
    Math.max(
      1e-9,
      sum(bins, (bin) => seen[bin] ?? 0),
    )
  );
}

/** How long a handshake may take, in seconds, and the share of the power after it below which a bin is part of it. */
const HANDSHAKE = { longest: 60, below: 0.8 };

/** Weights of the bins: none for the seconds before volts and amps are agreed on, which are no stage. */
function pastHandshake({ means, seen, width }: TimeMeans): Float64Array {
  const weights = Float64Array.from(seen);
  for (let bin = 0; (bin + 1) * width <= HANDSHAKE.longest; bin += 1) {
    const after = [...means.subarray(bin + 1, bin + 8)].sort(ascending);
    if ((means[bin] ?? 0) >= HANDSHAKE.below * (after[Math.floor(after.length / 2)] ?? 0)) break;
    weights[bin] = 0;
  }
  return weights;
}

/** The mean of what was read of a track between two moments, by rows; `undefined` where nothing was. */
function meanBetween(column: SampleColumn, { from, to }: Span): number | undefined {
  const { values } = rowsBetween(column, from, to);
  let total = 0;
  for (let row = 0; row < values.length; row += 1) total += values[row] ?? 0;
  return values.length > 0 ? total / values.length : undefined;
}

/** A stretch of power that is one thing: its ends in seconds, and the line over it in W. */
interface Piece extends Span {
  first: number;
  last: number;
  isFalling: boolean;
}

const lineAt = ({ from, to, first, last }: Piece, moment: number) => first + ((last - first) * (moment - from)) / Math.max(to - from, 1e-9);

/** Neighbouring falling pieces as one taper, of whatever shape; what is too short to be a stage joins them where it lies between. */
function joinTapers(pieces: readonly Piece[], peak: number, shortest: number): Piece[] {
  const drops = (before: Piece, after: Piece) => Math.abs(before.last - after.first) >= DROP.share * peak;
  // A fall that takes no longer than a drop may is one.
  const isDrop = ({ from, to, first, last }: Piece) => to - from <= DROP.within && Math.abs(first - last) >= DROP.share * peak;
  const joins = (each: Piece) => !isDrop(each) && (each.isFalling || each.to - each.from < shortest);
  const joined: Piece[] = [];
  for (const each of pieces) {
    const before = joined.at(-1);
    if (before?.isFalling && joins(before) && joins(each) && !drops(before, each) && each.last < before.first)
      joined[joined.length - 1] = { ...before, to: each.to, last: Math.min(before.last, each.last) };
    else joined.push(each);
  }
  return joined;
}

/** Stages that stand beside each other, the same but for a change between them that was no stage, are one. */
function joinAlike(pieces: readonly Piece[], within: (watts: number) => number, longest: number): Piece[] {
  const joined: Piece[] = [];
  for (const each of pieces) {
    const before = joined.at(-1);
    const isAlike = before && !before.isFalling && !each.isFalling && Math.abs(before.last - each.first) <= within(before.last);
    if (isAlike && each.from - before.to < longest) {
      const [long, short] = [before.to - before.from, each.to - each.from];
      const watts = (before.first * long + each.first * short) / (long + short);
      joined[joined.length - 1] = { ...before, to: each.to, first: watts, last: watts };
    } else joined.push(each);
  }
  return joined;
}

/** The border between two pieces where the rows around it say so: found on means, it is only as fine as they are. */
function refined(watts: SampleColumn, before: Piece, after: Piece, width: number): number {
  const [low, high] = [firstAfter(watts, before.to - 1.5 * width), firstAfter(watts, before.to + 1.5 * width)];
  if (high - low < 4) return before.to;
  let [least, best, spent] = [0, low, 0];
  for (let row = low; row < high; row += 1) {
    const [moment, value] = [watts.seconds[row] ?? 0, watts.values[row] ?? 0];
    spent += (value - lineAt(before, moment)) ** 2 - (value - lineAt(after, moment)) ** 2;
    if (spent < least) [least, best] = [spent, row + 1];
  }
  return ((watts.seconds[best - 1] ?? before.to) + (watts.seconds[best] ?? before.to)) / 2;
}

/**
 * The stages of a charge: the cheapest description of its power as constants and straight lines, where neighbouring falls without a drop between them
 * are one taper, and what is shorter than two minutes belongs to a change. Each belongs to the source that fed it.
 *
 * @returns none where power was read fewer than four times
 * @see docs/numbers.md, *Stages*.
 */
export function stagesOf(run: RunRecord, levels: RunLevels = displayedLevels(run)): Stage[] {
  const { watts } = run.tracks;
  const [start = 0, end = 0] = [watts.seconds[0], watts.seconds[watts.seconds.length - 1]];
  const feeds = feedsOf(run);
  if (feeds.length === 0) return stretchStages(run, watts, levels, end - start);
  return feeds.flatMap(({ from, name }, index) => {
    const own = rowsBetween(watts, from, (feeds[index + 1]?.from ?? Infinity) - 1e-6);
    return stretchStages(run, own, levels, end - start).map((stage) => ({ ...stage, source: name }));
  });
}

/** The stages of a stretch that one source fed. @param whole the time of the charge, in seconds */
function stretchStages(run: RunRecord, watts: SampleColumn, levels: RunLevels, whole: number): Stage[] {
  if (watts.seconds.length < 4) return [];
  const bins = binned(watts, unseenSpans(run));
  const { from, width, means } = bins;
  const peak = highestValue(watts);
  const noise = noiseOf(bins, peak);
  const worth = noise * noise * Math.log(Math.max(means.length, 8));
  const [start, end] = [watts.seconds[0] ?? from, watts.seconds[watts.seconds.length - 1] ?? from];
  const isDense = (end - start) / (watts.seconds.length - 1) < DENSE.rows && whole < DENSE.run;
  const shortest = isDense ? SHORTEST.dense : SHORTEST.usual;
  const isSteady = (first: number, last: number) => Math.abs(first - last) <= Math.max(noise, STEADY * Math.max(first, last));
  const found = segmentsOf(
    { values: means, weights: pastHandshake(bins) },
    { constant: WORTH.constant * worth, line: WORTH.line * worth },
  ).map((each): Piece => {
    const span = { from: Math.max(start, from + each.from * width), to: Math.min(end, from + each.to * width) };
    const isFalling = each.isLine && each.first > each.last && !isSteady(each.first, each.last);
    return { ...span, first: each.first, last: each.last, isFalling };
  });
  const long = joinTapers(found, peak, shortest).filter((each) => each.to - each.from >= shortest - 1e-6);
  const pieces = joinAlike(long, (level) => Math.max(noise, STEADY * level), shortest);
  for (const [index, after] of pieces.entries()) {
    const before = pieces[index - 1];
    if (before?.to === after.from) before.to = after.from = refined(watts, before, after, width);
  }
  const held = holds(run);
  const idle = goneBelow(run.tracks.watts);
  return pieces.map(({ isFalling, ...piece }): Stage => {
    const span = { from: piece.from, to: piece.to };
    const mean = meanOf(bins, span);
    const isHeld = held.some((hold) => Math.min(hold.to, span.to) - Math.max(hold.from, span.from) > (span.to - span.from) / 2);
    // No more than was read in it.
    const rows = rowsBetween(watts, span.from, span.to);
    const most = rows.values.length > 0 ? highestValue(rows) : mean;
    const within = (value: number) => Math.max(0, Math.min(most, value));
    const length = span.to - span.from;
    return {
      ...span,
      kind: isFalling ? 'taper' : isHeld ? 'hold' : mean < idle ? 'idle' : 'steady',
      watts: within(mean),
      first: within(isFalling ? meanOf(bins, { from: span.from, to: span.from + ENDS }) : mean),
      last: within(isFalling ? meanOf(bins, { from: span.to - ENDS, to: span.to }) : mean),
      volts: meanBetween(run.tracks.volts, span),
      level: { from: levelEnd(levels, span.from, length), to: levelEnd(levels, span.to, length) },
      share: whole > 0 ? length / whole : 0,
    };
  });
}

/** The stages in a sentence: `holds about 26.0 W for 17 min, then 19.0 W for 14 min, then tapers from 9.6 to 0.9 W over 1 h 01`. */
export function writeStages(stages: readonly Stage[]): string {
  return stages
    .map(({ kind, watts, first, last, from, to, source }, index) => {
      const long = spell(to - from) + (source !== undefined && source !== stages[index - 1]?.source ? ` on ${source}` : '');
      if (kind === 'taper') return `tapers from ${fixed(first, 1)} to ${fixed(last, 1)} W over ${long}`;
      if (kind === 'hold') return `is held for ${long}`;
      if (kind === 'idle') return `rests below ${fixed(Math.max(watts, 0.1) + 0.05, 1)} W for ${long}`;
      return `${index === 0 ? 'holds about ' : ''}${fixed(watts, 1)} W for ${long}`;
    })
    .join(', then ');
}
