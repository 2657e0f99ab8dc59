import { cumsum, max, mean, median, pairs, variance } from 'd3-array';
import { decimalsIn } from './energy';
import { sampledPower, type RunRecord } from '../ink/fold';
import type { SampleColumn, Samples } from '../samples/column';
import type { Quantity } from '../quantity/quantity';

/** Where a log lies on the time of a run, found by what rises and falls in both. */
export interface Alignment {
  /** When its clock stood at zero, in seconds from plug-in. */
  zero: number;
  /** By how much its clock is slow, in parts of a million. */
  drift: number;
  /** The zero is this sure, ± seconds. */
  margin: number;
  /** How much of the ups and downs of what was read the log tells, as a share. */
  explained: number;
  /** What was matched. */
  by: Quantity;
  /** Why it may not lie there, in words: none fits well, another fits nearly as well, or it is of another charge. */
  doubt: string | undefined;
}

/** What is matched, the surest first: power has the sharpest steps. */
const MATCHED: readonly Quantity[] = ['watts', 'amps', 'volts', 'percent', 'celsius'];
/** Readings that must lie within the log. */
const LEAST_ROWS = 6;
/** More rows than this are compared as means of so many stretches; and no more than that many tell anything of their own. */
const MOST_ROWS = 6000;
const MEANS = 600;
const MOST_CELLS = 20_000;
/** Places that are tried first, over all those at which the two meet. */
const PLACES = 6000;
/** Two meters of one thing differ by up to this factor: one may stand before a cable or a pad. */
const SCALE = { min: 0.6, max: 1.67 };
/**
 * A log tells too little below this share; not enough where another place is nearly as likely; and what it does not tell is more than reading leaves,
 * where its squares are so many times what is to be expected, nine of ten readings counted: then it is of another charge. It may be of one, too, where
 * two meters would differ by more than they usually do.
 */
const SURE = { explained: 0.6, apart: 12, left: 4, counted: 0.9, scale: { min: 0.8, max: 1.25 } };
/** Readings as far apart as this are by hand, in seconds. */
const BY_HAND = 20;
/** One by hand can be so far from its moment, in seconds (common practice, no source). */
const MOMENT = 5;
/** Before plug-in nothing flows: what was not read there, in seconds from it, and how power rises after. */
const BEFORE = [-40, -28, -18, -10];
/** Power has risen where it is this share of the most, after it was less for so many seconds. */
const RISE = { share: 0.03, quiet: 20 };
/** Places as near as this are one, in seconds: which of them it is, the margin says. */
const NEAR = 60;
/** Meters are not exact: what they leave is taken to be this share of what they read, at least. */
const METER = 0.01;
/** What rises and falls by less than this share of itself, squared, is steady. */
const FLAT = 1e-4;
/** Clocks of meters are wrong by up to this much; it is only looked for in charges longer than `span` seconds. */
const DRIFT = { max: 1000e-6, step: 50e-6, span: 1200 };
/** A margin reaches to where the likelihood has fallen as far as four standard uncertainties make it: readings that are few and lie by chance fit too well. */
const MARGIN = 4;
/** Twice the logarithm of the likelihood rises by this much with a parameter that is surely there. */
const SURELY = 10.83;

/**
 * Finds where a log lies in a run by matching its steps to those that were read: the place at which the readings are
 * likeliest, given the log as scaled for what meters differ by; readings outside it are as likely as their own spread makes them.
 *
 * The margin is that of the profile likelihood (Venzon & Moolgavkar 1988, from memory). Drift is looked for where the charge is long enough, and kept
 * where it surely tells more.
 *
 * @param run     what was read without this log
 * @param samples the log, in seconds of its own clock
 * @returns `undefined` where the two have no quantity in common, or nothing in it rises or falls
 */
export function align({ tracks }: Pick<RunRecord, 'tracks'>, samples: Samples): Alignment | undefined {
  const found = MATCHED.flatMap((by) => {
    const log = samples[by] ?? (by === 'watts' ? sampledPower(samples) : undefined);
    const placed = log && match(tracks[by], log, by === 'watts' || by === 'amps');
    return placed ? [{ ...placed, by }] : [];
  });
  return found.find(({ doubt }) => doubt === undefined) ?? found.sort((one, other) => other.explained - one.explained)[0];
}

/** A log as cells of equal length, to be read at any moment. */
interface Cells {
  from: number;
  step: number;
  values: Float64Array;
}

/** @param flows whether it is nothing before plug-in, so that its rise there is a landmark */
function match(read: SampleColumn, log: SampleColumn, flows: boolean): Omit<Alignment, 'by'> | undefined {
  const points = pointsOf(read);
  const cells = cellsOf(log, points.width);
  if (!cells || points.seconds.length < LEAST_ROWS) return undefined;
  const spread = variance(points.values) ?? 0;
  const level = mean(points.values, (value) => value * value) ?? 0;
  if (!(spread > FLAT * level)) return undefined;
  const fitAt = (zero: number, drift: number) => fitOf(points, cells, { zero, drift, spread, grain: METER ** 2 * level });
  const costAt = (zero: number, drift: number) => fitAt(zero, drift).cost;
  const [first, last] = [points.seconds[0] ?? 0, points.seconds.at(-1) ?? 0];
  const digit = 10 ** -decimalsIn(points);
  if (flows && first >= 0) {
    points.seconds = [...BEFORE, ...points.seconds];
    points.values = [...BEFORE.map(() => 0), ...points.values];
  }
  const [logFrom, logTo] = [cells.from, cells.from + cells.step * (cells.values.length - 1)];
  const range = { from: first - logTo, to: last - logFrom };
  const step = Math.max(Math.min(cells.step, 1), (range.to - range.from) / PLACES);
  const tried: number[] = [];
  for (let zero = range.from; zero <= range.to; zero += step) tried.push(costAt(zero, 0));
  const peaks = tried
    .map((value, index) => ({ at: range.from + index * step, value }))
    .filter(({ value }, index) => value < Infinity && value <= (tried[index - 1] ?? Infinity) && value <= (tried[index + 1] ?? Infinity))
    .sort((one, other) => one.value - other.value)
    .slice(0, 12)
    .map(({ at }) => least((zero) => costAt(zero, 0), at - step, at + step))
    .sort((one, other) => one.value - other.value);
  const [best] = peaks;
  if (!best) return undefined;

  const pivot = (Math.max(first, best.at + logFrom) + Math.min(last, best.at + logTo)) / 2;
  const drifted = last - first >= DRIFT.span ? withDrift(costAt, best, pivot) : undefined;
  // A clock is not called wrong by what is less than a row of the log.
  const isDrifting = drifted && best.value - drifted.value > SURELY && Math.abs(drifted.drift) * (last - first) > 2 * cells.step;
  const { at, value, drift } = isDrifting ? drifted : { ...best, drift: 0 };
  const count = points.seconds.length;
  const far = Math.min(count, MEANS) * Math.log(1 + MARGIN ** 2 / Math.max(count - 3, 1));
  const reach = (sign: number) => width((by) => costAt(at + sign * by, drift) - value > far, cells.step / 4, logTo - logFrom);
  // Between two readings a step may lie anywhere: the middle of all places that fit as well is the best of them.
  const [early, late] = [reach(-1), reach(1)];
  const zero = at + (late - early) / 2;
  const alike = peaks.filter((each) => Math.abs(each.at - zero) <= NEAR && each.value - best.value <= far);
  const byHand = (median(pairs(Array.from(read.seconds), (one, other) => other - one)) ?? 0) >= BY_HAND;
  const likely = Math.max((early + late) / 2, cells.step / 2, ...alike.map((each) => Math.abs(each.at - zero)));
  const margin = byHand ? Math.hypot(likely, MOMENT) : likely;
  const fit = fitAt(at, drift);
  const placed = (flows && riseNear(cells, { zero, drift, margin })) || { zero, margin };
  const rival = peaks.find((each) => Math.abs(each.at - zero) > Math.max(3 * margin, 3 * step, NEAR));
  const left = misfit(points, cells, { ...placed, drift, scale: fit.scale, digit });
  const ahead = rival === undefined ? Infinity : rival.value - best.value;
  return { ...placed, drift: drift * 1e6, explained: fit.explained, doubt: doubtOf(fit, left, ahead) };
}

/** Why a log may not lie where it fits best. @param left as `misfit` gives it; @param ahead by how much it is likelier than the next place */
function doubtOf({ explained, scale }: Fit, left: number, ahead: number): string | undefined {
  if (explained < SURE.explained) return 'they tell too little of it';
  if (left > SURE.left) return 'what it leaves is more than reading does, as if it were of another charge';
  if (scale < SURE.scale.min || scale > SURE.scale.max) return `the two meters would differ by ${Math.round(100 * Math.abs(scale - 1))} %`;
  return ahead < SURE.apart ? 'another place would fit nearly as well' : undefined;
}

/** Where a log’s first rise from nothing is the plug-in: the place that it asks for, where that lies within the margin of one. */
function riseNear({ from, step, values }: Cells, { zero, drift, margin }: { zero: number; drift: number; margin: number }) {
  const floor = RISE.share * (max(values) ?? 0);
  const rise = values.findIndex((value) => value > floor);
  if (rise * step < RISE.quiet) return undefined;
  // Between the last row of nothing and the first of power.
  const at = -(from + (rise - 0.5) * step) * (1 + drift);
  const off = step / 2 + MOMENT;
  return Math.abs(at - zero) <= margin + off ? { zero: at, margin: Math.min(margin, off) } : undefined;
}

/**
 * By how much more than reading by hand leaves readings lie off a log, as a ratio of squares: nine of ten of them, for a step between two is no fault.
 * A reading may be a few seconds off, to its last digit, on a meter that is as exact as most.
 */
function misfit(
  { seconds, values }: Points,
  cells: Cells,
  { zero, drift, scale, digit }: { zero: number; drift: number; scale: number; digit: number },
): number {
  const reach = Math.max(1, Math.round(MOMENT / cells.step));
  const off = seconds.flatMap((at, row) => {
    const cell = Math.round((at - zero) / ((1 + drift) * cells.step) - cells.from / cells.step);
    if (at < 0 || cell < 0 || cell >= cells.values.length) return [];
    const near = cells.values.subarray(Math.max(0, cell - reach), cell + reach + 1);
    const value = values[row] ?? 0;
    const expected = scale ** 2 * (variance(near) ?? 0) + digit ** 2 / 12 + (METER * value) ** 2;
    return [(value - scale * (mean(near) ?? 0)) ** 2 / expected];
  });
  return mean(off.sort((one, other) => one - other).slice(0, Math.ceil(SURE.counted * off.length))) ?? Infinity;
}

interface Points {
  seconds: number[];
  values: number[];
  /** Over how long each is a mean, in seconds. */
  width: number;
}

/** The rows that are compared: those that were read, of a stream means over equal stretches. */
function pointsOf({ seconds, values }: SampleColumn): Points {
  const count = seconds.length;
  if (count <= MOST_ROWS) return { seconds: Array.from(seconds), values: Array.from(values), width: 0 };
  const [from, to] = [seconds[0] ?? 0, seconds[count - 1] ?? 0];
  const width = (to - from) / MEANS || 1;
  const means = new Map<number, { sum: number; at: number; count: number }>();
  for (let row = 0; row < count; row += 1) {
    const cell = Math.floor(((seconds[row] ?? 0) - from) / width);
    const held = means.get(cell) ?? { sum: 0, at: 0, count: 0 };
    means.set(cell, { sum: held.sum + (values[row] ?? 0), at: held.at + (seconds[row] ?? 0), count: held.count + 1 });
  }
  const all = [...means.values()];
  return { seconds: all.map((each) => each.at / each.count), values: all.map((each) => each.sum / each.count), width };
}

/** A log drawn onto cells of equal length by the line between its rows, each the mean over as long as the readings are means. */
function cellsOf({ seconds, values }: SampleColumn, over: number): Cells | undefined {
  const count = seconds.length;
  const [from, to] = [seconds[0] ?? 0, seconds[count - 1] ?? 0];
  if (count < 2 || to <= from) return undefined;
  const steps = Array.from({ length: Math.min(count - 1, 2000) }, (_, row) => (seconds[row + 1] ?? 0) - (seconds[row] ?? 0));
  const step = Math.max(median(steps.filter((each) => each > 0)) ?? 1, (to - from) / MOST_CELLS);
  const cells = new Float64Array(Math.floor((to - from) / step) + 1);
  let row = 0;
  for (let cell = 0; cell < cells.length; cell += 1) {
    const at = from + cell * step;
    while (row < count - 2 && (seconds[row + 1] ?? 0) < at) row += 1;
    const early = seconds[row] ?? 0;
    const late = seconds[row + 1] ?? 0;
    const share = late > early ? Math.min(Math.max((at - early) / (late - early), 0), 1) : 0;
    cells[cell] = (values[row] ?? 0) * (1 - share) + (values[row + 1] ?? 0) * share;
  }
  return { from, step, values: smoothed(cells, Math.round(over / step / 2)) };
}

/** Means over so many cells on either side. */
function smoothed(cells: Float64Array, reach: number): Float64Array {
  if (reach < 1) return cells;
  const sums = cumsum(cells);
  const upTo = (cell: number) => (cell < 0 ? 0 : (sums[Math.min(cell, cells.length - 1)] ?? 0));
  return cells.map((_, cell) => {
    const first = Math.max(0, cell - reach);
    const last = Math.min(cells.length - 1, cell + reach);
    return (upTo(last) - upTo(first - 1)) / (last - first + 1);
  });
}

/** How well a log tells the readings at a place. */
interface Fit {
  /** Twice the logarithm of the likelihood, below zero: that of the readings inside the log by what it leaves, and of those outside by their own spread. */
  cost: number;
  /** Share of the ups and downs of the readings inside it that it tells. */
  explained: number;
  /** What the log is to be taken times. */
  scale: number;
}

function fitOf(
  points: Points,
  { from, step, values }: Cells,
  { zero, drift, spread, grain }: { zero: number; drift: number; spread: number; grain: number },
): Fit {
  const lastCell = values.length - 1;
  const rate = 1 / ((1 + drift) * step);
  let [both, logs, reads, sum, inside] = [0, 0, 0, 0, 0];
  for (let row = 0; row < points.seconds.length; row += 1) {
    const place = ((points.seconds[row] ?? 0) - zero) * rate - from / step;
    if (!(place >= 0 && place <= lastCell)) continue;
    const cell = Math.min(Math.floor(place), lastCell - 1);
    const share = place - cell;
    const told = (values[cell] ?? 0) * (1 - share) + (values[cell + 1] ?? 0) * share;
    const value = points.values[row] ?? 0;
    both += value * told;
    logs += told * told;
    reads += value * value;
    sum += value;
    inside += 1;
  }
  if (inside < LEAST_ROWS || logs === 0) return { cost: Infinity, explained: 0, scale: 1 };
  const scale = Math.min(Math.max(both / logs, SCALE.min), SCALE.max);
  const untold = Math.max(0, reads - 2 * scale * both + scale * scale * logs);
  const own = reads - (sum * sum) / inside;
  return {
    cost:
      Math.min(1, MEANS / points.seconds.length) *
      (inside * Math.log(untold / inside + grain) + (points.seconds.length - inside) * Math.log(spread + grain)),
    explained: own > 0 ? 1 - untold / own : 0,
    scale,
  };
}

interface Least {
  at: number;
  value: number;
}

/** The least of a function within an interval: by steps, each time closer. Steps in power make it no smooth one. */
function least(of: (at: number) => number, from: number, to: number): Least {
  let best = { at: (from + to) / 2, value: of((from + to) / 2) };
  let half = (to - from) / 2;
  for (let round = 0; round < 4; round += 1) {
    const middle = best.at;
    for (let each = -8; each <= 8; each += 1) {
      const at = middle + (each * half) / 8;
      const value = of(at);
      if (value < best.value) best = { at, value };
    }
    half /= 6;
  }
  return best;
}

/** The best drift, each with the best place for it; the middle of the charge stays where it is while the clock is stretched. */
function withDrift(untold: (zero: number, drift: number) => number, { at }: Least, pivot: number): (Least & { drift: number }) | undefined {
  const placeAt = (drift: number) => pivot - (pivot - at) * (1 + drift);
  let best: (Least & { drift: number }) | undefined;
  for (const [middle, reach, step] of [
    [0, DRIFT.max, DRIFT.step],
    [undefined, DRIFT.step, DRIFT.step / 10],
  ] as const) {
    const around = middle ?? best?.drift ?? 0;
    for (let drift = around - reach; drift <= around + reach + step / 2; drift += step) {
      const found = least((zero) => untold(zero, drift), placeAt(drift) - 5, placeAt(drift) + 5);
      if (!best || found.value < best.value) best = { ...found, drift };
    }
  }
  return best;
}

/** How far one can go until something is so: found by doubling, then by halves. */
function width(isFar: (by: number) => boolean, first: number, max: number): number {
  let by = first;
  while (by < max && !isFar(by)) by *= 2;
  let [near, far] = [by / 2, by];
  for (let round = 0; round < 12; round += 1) {
    const middle = (near + far) / 2;
    if (isFar(middle)) far = middle;
    else near = middle;
  }
  return far;
}
