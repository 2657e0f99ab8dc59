import { max, min } from 'd3-array';
import { averagePower } from '../quantity/electric';
import { batteryOf } from '../bench/battery';
import type { RunRecord } from '../ink/fold';
import { sightings } from '../ink/track';
import type { Span } from './energy';

/** Energy over a few minutes, as the counter of a meter told it. */
export interface EnergySample extends Span {
  wattHours: number;
  watts: number;
}

/** What samples say of the time to a level, and what that takes for granted. */
export interface Projection {
  level: number;
  /** Seconds from the level at the start. */
  seconds: number;
  /** Half of how far the samples differ, in seconds; `undefined` of one sample. */
  margin?: number | undefined;
}

/** Shorter and longer stretches are no sample, in seconds. */
const SAMPLE = { least: 120, most: 1200 };

/** Less than this charges nothing, in W. */
const LEAST_WATTS = 0.001;

/** The energy samples of a run: from each reading of the Wh counter to the next, a few minutes later; over a counter that began anew there is none. */
export function energySamples(run: RunRecord): EnergySample[] {
  const read = sightings(run.tracks.wattHours);
  return read.slice(1).flatMap((end, index) => {
    const start = read[index];
    const length = end.seconds - (start?.seconds ?? 0);
    if (!start || end.value < start.value || length < SAMPLE.least || length > SAMPLE.most) return [];
    const wattHours = end.value - start.value;
    return [{ from: start.seconds, to: end.seconds, wattHours, watts: averagePower(wattHours, length) ?? 0 }];
  });
}

/**
 * The time to a level from energy samples: battery Wh × share ÷ (Wh sampled ÷ time sampled).
 *
 * It takes for granted that power stays as it was sampled and that all of it reaches the battery: loss and taper are ignored, so it is a
 * least. Repeats narrow only how well the power is known.
 *
 * @returns `undefined` without a sample, a level at the start, or the battery in Wh
 */
export function projection(run: RunRecord, level = 80): Projection | undefined {
  const battery = batteryOf(run.header.device);
  const samples = energySamples(run).filter(({ watts }) => watts >= LEAST_WATTS);
  const start = run.tracks.percent.values[0];
  if (battery === undefined || samples.length === 0 || start === undefined || start >= level) return undefined;
  const need = (battery * (level - start)) / 100;
  const seconds = samples.map(({ watts }) => (need / watts) * 3600);
  const total = samples.reduce((sum, { wattHours }) => sum + wattHours, 0);
  const time = samples.reduce((sum, { from, to }) => sum + to - from, 0);
  return {
    level,
    seconds: (need / total) * time,
    ...(seconds.length > 1 && { margin: ((max(seconds) ?? 0) - (min(seconds) ?? 0)) / 2 }),
  };
}
