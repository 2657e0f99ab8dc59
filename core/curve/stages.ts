import type { RunRecord } from '../ink/fold';
import { spell } from '../quantity/duration';
import { fixed } from '../quantity/figures';
import { firstAfter, rowsBetween, type Column } from '../samples/column';
import type { Span } from '../samples/gaps';
import { unseenSpans } from './energy';
import { highest, holds } from './faults';
import { goneBelow } from './milestones';
import { segmentsOf } from './segments';
import { timeMeans, type TimeMeans } from './timeMeans';

/** A stage of a charge: a stretch in which power was one thing, or the taper at its end. */
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
  /** Level at its start and its end, in %, as far as it was read. */
  level: { from?: number | undefined; to?: number | undefined };
  /** Share of the charge’s time, 0 to 1. */
  share: number;
}

/** The shortest steady stage, in seconds (docs/numbers.md, *Stages*). */
const SHORTEST = 120;
/** Noise below this share of the peak is taken for that much: a step that small is none to speak of. */
const LEAST_NOISE = 0.02;
/** What a stage must explain, in squares of the noise by the logarithm of the number of bins; a taper has more to choose. */
const WORTH = { steady: 4, taper: 6 };

/** Noise from bin to bin: the middle of the differences between neighbours, as a standard deviation of normal noise. */
function noiseOf({ means, seen }: TimeMeans): number {
  const steps: number[] = [];
  for (let bin = 1; bin < means.length; bin += 1)
    if ((seen[bin] ?? 0) > 0.5 && (seen[bin - 1] ?? 0) > 0.5) steps.push(Math.abs((means[bin] ?? 0) - (means[bin - 1] ?? 0)));
  const middle = steps.sort((one, other) => one - other)[Math.floor(steps.length / 2)] ?? 0;
  return middle / 0.6745 / Math.SQRT2;
}

/** How long a handshake may take, in seconds, and the share of the power after it below which a bin is part of it. */
const HANDSHAKE = { longest: 60, below: 0.8 };

/** Weights of the bins: none for the seconds before volts and amps are agreed on, which are no stage. */
function pastHandshake({ means, seen, width }: TimeMeans): Float64Array {
  const weights = Float64Array.from(seen);
  for (let bin = 0; (bin + 1) * width <= HANDSHAKE.longest; bin += 1) {
    const after = [...means.subarray(bin + 1, bin + 8)].sort((one, other) => one - other);
    if ((means[bin] ?? 0) >= HANDSHAKE.below * (after[Math.floor(after.length / 2)] ?? 0)) break;
    weights[bin] = 0;
  }
  return weights;
}

/** The mean of what was read of a track between two moments, by rows; `undefined` where nothing was. */
function meanBetween(column: Column, { from, to }: Span): number | undefined {
  const { values } = rowsBetween(column, from, to);
  let sum = 0;
  for (let row = 0; row < values.length; row += 1) sum += values[row] ?? 0;
  return values.length > 0 ? sum / values.length : undefined;
}

/** The last value seen by a moment. */
function lastBy(column: Column, moment: number): number | undefined {
  return column.values[firstAfter(column, moment + 1e-6) - 1];
}

/**
 * The stages of a charge: the cheapest description of its power as steady stages of two minutes at least, followed by at most one taper. Borders
 * are as fine as the time means behind them, ten seconds at best.
 *
 * @returns none where power was read fewer than four times
 * @see docs/numbers.md, *Stages*.
 */
export function stagesOf(run: RunRecord): Stage[] {
  const { watts, volts, percent } = run.tracks;
  if (watts.seconds.length < 4) return [];
  const bins = timeMeans(watts, unseenSpans(run));
  const { from, width, means, seen } = bins;
  const noise = Math.max(noiseOf(bins), LEAST_NOISE * highest(watts));
  const worth = noise * noise * Math.log(Math.max(means.length, 8));
  const least = Math.max(1, Math.ceil(SHORTEST / width - 1e-9));
  const pieces = segmentsOf(
    { values: means, weights: pastHandshake(bins) },
    { each: WORTH.steady * worth, taper: WORTH.taper * worth, least },
  );
  const end = watts.seconds[watts.seconds.length - 1] ?? from;
  const start = watts.seconds[0] ?? from;
  const whole = end - start;
  const held = holds(run);
  const idle = goneBelow(watts);
  return pieces.map(({ from: first, to, first: at, last, isTaper }): Stage => {
    const span = { from: Math.max(start, from + first * width), to: Math.min(end, from + to * width) };
    const weights = seen.subarray(first, to);
    const mass = weights.reduce((sum, each) => sum + each, 0);
    const mean = weights.reduce((sum, each, bin) => sum + each * (means[first + bin] ?? 0), 0) / Math.max(mass, 1e-9);
    const isHeld = held.some((hold) => Math.min(hold.to, span.to) - Math.max(hold.from, span.from) > (span.to - span.from) / 2);
    return {
      ...span,
      kind: isTaper ? 'taper' : isHeld ? 'hold' : mean < idle ? 'idle' : 'steady',
      watts: mean,
      first: at,
      last,
      volts: meanBetween(volts, span),
      level: { from: lastBy(percent, span.from), to: lastBy(percent, span.to) },
      share: whole > 0 ? (span.to - span.from) / whole : 0,
    };
  });
}

/** The stages in a sentence: `holds about 26.0 W for 17 min, then 19.0 W for 14 min, then tapers from 9.6 to 0.9 W over 1 h 01`. */
export function writeStages(stages: readonly Stage[]): string {
  return stages
    .map(({ kind, watts, first, last, from, to }, index) => {
      const long = spell(to - from);
      if (kind === 'taper') return `tapers from ${fixed(first, 1)} to ${fixed(last, 1)} W over ${long}`;
      if (kind === 'hold') return `is held for ${long}`;
      if (kind === 'idle') return `rests below ${fixed(Math.max(watts, 0.1) + 0.05, 1)} W for ${long}`;
      return `${index === 0 ? 'holds about ' : ''}${fixed(watts, 1)} W for ${long}`;
    })
    .join(', then ');
}
