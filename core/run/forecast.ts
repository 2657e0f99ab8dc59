import { batteryOf } from '../bench/battery';
import type { Device } from '../bench/device';
import { holds } from '../curve/faults';
import type { RunRecord } from '../ink/fold';
import { sighting, type Sighting } from '../ink/track';
import { negotiate } from '../power/negotiate';
import { expectedCharge, type Expected } from '../simulate/expected';
import { beginsAt } from './expected';

/** When a live run will show a level. Seconds from plug-in. */
export interface Forecast {
  level: number;
  at: number;
  /** It will lie between these in nine of ten cases. */
  low: number;
  high: number;
}

/** Levels whose coming is forecast, in %. */
export const FORECAST_LEVELS = [80, 100] as const;
/** Nothing is forecast before so many seconds, nor before so many percent were gained. */
const SOONEST = { seconds: 600, gain: 2 };
/** How far back the recent pace looks, in %. */
const RECENT = 15;
/** How far a device can be off the pace that is expected of it. */
const PACE = { least: 0.3, most: 3 };
/** Quantile of the normal distribution that 90 % lie within (published tables, from memory). */
const NINETY = 1.645;
/**
 * Standard error of the remaining time, as a share of it, to 80 and to 100 %; and that of one displayed percent, in the time that it takes. Chosen
 * so that the band holds 90 % of simulated charges whose battery, charger and heat the forecast is not told (forecast.test.ts checks it on others).
 */
const ERROR = { toEighty: 0.053, toFull: 0.085, reading: 0.42 };
/** A battery to begin with where none is known, in Wh: only the shape of its charge counts, for the pace is read off the run. */
const SOME_BATTERY: Readonly<Record<Device['kind'], number>> = {
  phone: 16,
  tablet: 30,
  laptop: 52,
  camera: 14,
  'power bank': 37,
  other: 16,
};

/**
 * When a live run will show levels: the charge to expect of its gear, run at the pace that its readings have shown, both since its start and
 * lately.
 *
 * @returns one for each level that is still to come; none while it stands still, or too little was seen
 * @see docs/numbers.md, *Forecast band*.
 */
export function forecasts(run: RunRecord, levels: readonly number[] = FORECAST_LEVELS): Forecast[] {
  const { percent } = run.tracks;
  const begins = beginsAt(run);
  const [first, last] = [sighting(percent, begins), sighting(percent, percent.seconds.length - 1)];
  if (!first || !last || run.falls.length > 0 || run.unplugged.at(-1)?.to === Infinity) return [];
  if (last.seconds - first.seconds < SOONEST.seconds || last.value - first.value < SOONEST.gain) return [];
  if (holds(run).some(({ to }) => to >= last.seconds)) return [];
  const { device } = run.header;
  const known = batteryOf(device) === undefined ? { ...device, wattHours: SOME_BATTERY[device.kind] } : device;
  const expected = expectedCharge(negotiate({ ...run.header, ...run.sources.at(-1), device: known }), first.value);
  if (!expected) return [];

  const timeOf = (shown: number) => whenAt(expected, shown);
  const paceFrom = ({ value, seconds }: Sighting) => {
    const foreseen = timeOf(last.value + 0.5) - timeOf(value + 0.5);
    return foreseen > 0 ? Math.min(PACE.most, Math.max(PACE.least, (last.seconds - seconds) / foreseen)) : 1;
  };
  let index = percent.seconds.length - 1;
  while (index > begins && last.value - (percent.values[index] ?? 0) < RECENT) index -= 1;
  const pace = Math.sqrt(paceFrom(first) * paceFrom(sighting(percent, index) ?? first));
  const onePercent = (timeOf(Math.min(100, last.value + 1)) - timeOf(last.value)) * pace;
  return levels.flatMap((level) => {
    const goal = last.value < level ? expected.reaches(level) : undefined;
    if (goal === undefined) return [];
    const remaining = Math.max(0, goal - timeOf(last.value + 0.5)) * pace;
    const error = Math.hypot((level > 90 ? ERROR.toFull : ERROR.toEighty) * remaining, ERROR.reading * onePercent);
    const at = last.seconds + remaining;
    return [{ level, at, low: Math.max(last.seconds, at - NINETY * error), high: at + NINETY * error }];
  });
}

/** When a level, with its fraction, is expected. The curve rises, so the first row at or above it is found by halving. */
function whenAt({ percent, seconds }: Expected, shown: number): number {
  let [low, high] = [0, percent.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((percent[middle] ?? 0) < shown) low = middle + 1;
    else high = middle;
  }
  return seconds[low] ?? 0;
}
