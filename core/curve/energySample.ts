import { deviation, sum } from 'd3-array';
import { averagePower } from '../quantity/electric';
import { fedBy } from '../ink/sequence';
import { batteryOf } from '../bench/battery';
import type { Meter } from '../bench/meter';
import type { RunRecord } from '../ink/fold';
import { sightings, type Sighting } from '../ink/track';
import { assumedSpread } from '../margin/assumed';
import { lastDigit, shareOff, type Span } from './energy';

/** Energy over a few minutes, as the counter of a meter told it. */
export interface EnergySample extends Span {
  wattHours: number;
  watts: number;
}

/** The mean power of a run by its energy samples, and what a projection from it needs. */
export interface Sampled {
  samples: EnergySample[];
  /** W. */
  watts: number;
  /** Standard uncertainty in W: by meter and timing of one sample, by how they differ of several. */
  uncertainty: number;
  /** What the battery holds, in Wh. */
  battery?: number | undefined;
  /** The first level, in %. */
  start?: number | undefined;
  uses: Sighting[];
}

/** The time to a level by energy samples, and what it surely lies beyond. */
export interface Projection {
  level: number;
  /** Seconds from the level at the start. */
  seconds: number;
  /** Standard uncertainty in seconds, how runs vary included where one sample is all. */
  uncertainty: number;
}

/** Shorter and longer stretches are no sample, in seconds. */
const SAMPLE = { min: 120, max: 1200 };
/** Less than this charges nothing, in W. */
const LEAST_WATTS = 0.001;
/** How far off the moment of a reading can be, in s (common practice, no source). */
const TIMING = 2;
/** The energy samples of a run: from each reading of the Wh counter to the next, a few minutes later; over a counter that began anew there is none. */
export function energySamples(run: Pick<RunRecord, 'tracks'>): EnergySample[] {
  const read = sightings(run.tracks.wattHours);
  return read.slice(1).flatMap((end, index) => {
    const start = read[index];
    const length = end.seconds - (start?.seconds ?? 0);
    if (!start || end.value < start.value || length < SAMPLE.min || length > SAMPLE.max) return [];
    const wattHours = end.value - start.value;
    return [{ from: start.seconds, to: end.seconds, wattHours, watts: averagePower(wattHours, length) ?? 0 }];
  });
}

/**
 * The mean power of a run by its energy samples: what the counter counted over the time it took.
 *
 * @returns `undefined` without a sample that counted anything
 * @see docs/numbers.md, *Energy sample*; JCGM 100:2008 (GUM) 4.3.7.
 */
export function sampledOf(run: RunRecord): Sampled | undefined {
  // A meter’s stream has its watts for that: a counter is sampled by hand.
  if (run.sampled.has('wattHours')) return undefined;
  const all = energySamples(run).filter(({ watts }) => watts >= LEAST_WATTS);
  // Those of one source: of the first that was sampled.
  const swaps = fedBy(run).map(({ from }) => from);
  const placeOf = (moment: number) => swaps.findLastIndex((from) => from <= moment);
  const ofOne = all.filter(({ from, to }) => placeOf(from) === placeOf(to - 1e-6));
  const samples = ofOne.filter(({ from }) => placeOf(from) === placeOf(ofOne[0]?.from ?? 0));
  const length = sum(samples, ({ from, to }) => to - from);
  const watts = averagePower(
    sum(samples, ({ wattHours }) => wattHours),
    length,
  );
  if (watts === undefined || samples.length === 0) return undefined;
  return {
    samples,
    watts,
    uncertainty: uncertaintyOf(samples, watts, length, run.header.meter, lastDigit(run.tracks.wattHours)),
    battery: batteryOf(run.header.device),
    start: run.tracks.percent.values[0],
    uses: sightings(run.tracks.wattHours),
  };
}

/** Last digits, the moments of both ends, and the meter; what several samples differ by, where that is more. */
function uncertaintyOf(samples: readonly EnergySample[], watts: number, length: number, meter: Meter | undefined, digit: number): number {
  const ends = Math.SQRT2 / Math.sqrt(3);
  const read = Math.hypot((digit * 3600 * ends) / length, (watts * TIMING * ends) / length) * Math.sqrt(samples.length);
  const differ = (deviation(samples, (each) => each.watts) ?? 0) / Math.sqrt(samples.length);
  return Math.hypot(Math.max(read, differ), (shareOff(meter) * watts) / Math.sqrt(3));
}

/**
 * The time to a level from energy samples: battery Wh × share ÷ W.
 *
 * It takes for granted that power stays as it was sampled and that all of it reaches the battery: loss and taper are ignored, so it is a least.
 *
 * @returns `undefined` without the battery in Wh, or of a run that began at the level
 */
export function projection({ samples, watts, uncertainty, battery, start }: Sampled, level: number): Projection | undefined {
  if (battery === undefined || start === undefined || start >= level) return undefined;
  const seconds = ((battery * (level - start)) / 100 / watts) * 3600;
  const varies = samples.length > 1 ? 0 : assumedSpread().sigma;
  return { level, seconds, uncertainty: seconds * Math.hypot(uncertainty / watts, varies) };
}
