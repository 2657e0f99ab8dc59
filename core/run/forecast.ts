import { median, range } from 'd3-array';
import { holds } from '../curve/faults';
import type { RunRecord } from '../ink/fold';
import { sighting, type Sighting, type Track } from '../ink/track';
import { beginsAt } from './expected';

/** When a live run will show a level. Seconds from plug-in. */
export interface Forecast {
  level: number;
  /** Not before this, in 95 of 100 cases. */
  low: number;
  /** Nor after this; only where earlier runs of the device tell how it goes on. */
  high?: number | undefined;
}

/** Levels whose coming is forecast, in %. */
export const FORECAST_LEVELS = [80, 100] as const;
/** Nothing is forecast before so many seconds, nor before so many percent were gained. */
const SOONEST = { seconds: 600, gain: 5 };
/** How far back the pace now looks, in %. */
const RECENT = 10;
/** An earlier run tells how this one goes on if it was nearly as fast at its fastest. */
const AS_FAST = 0.9;
/** A band that is wider than this share of what remains says less than its earliest does. */
const WIDEST = 0.5;

/** From which level on, and which shares of the time that is worked out the truth lies between, in nine of ten cases. */
type Shares = readonly [from: number, least: number, most: number];

/** With earlier runs of the device. Measured on charge models of many kinds (docs/numbers.md, *Forecast band*; `npm run truth`). */
const KNOWN: Readonly<Record<'to80' | 'to100', readonly Shares[]>> = {
  to80: [
    [0, 0.89, 1.09],
    [40, 0.88, 1.09],
    [60, 0.78, 1.19],
  ],
  to100: [
    [0, 0.94, 1.07],
    [40, 0.94, 1.08],
    [80, 0.93, 1.1],
    [90, 0.92, 1.13],
    [95, 0.35, 1.9],
  ],
};
/** Without: the least share of the time that the pace now would take. */
const UNKNOWN: typeof KNOWN = {
  to80: [
    [0, 0.33, Infinity],
    [40, 0.76, Infinity],
    [60, 0.53, Infinity],
  ],
  to100: [
    [0, 0.47, Infinity],
    [80, 0.97, Infinity],
    [95, 0.11, Infinity],
  ],
};

/**
 * When a live run will show levels.
 *
 * At each level ahead the slower of the pace now and the middle pace of the earlier runs there; summed to the goal. The truth has lain between
 * certain shares of that. Without an earlier run, or where the band would be wider than half of what remains, only the earliest is said.
 *
 * @param earlier levels of earlier runs of the device
 * @returns one for each level that is still to come; none while it stands still, or too little was seen
 * @see docs/numbers.md, *Forecast band*.
 */
export function forecasts(run: RunRecord, earlier: readonly Track[] = [], levels: readonly number[] = FORECAST_LEVELS): Forecast[] {
  const { percent } = run.tracks;
  const begins = beginsAt(run);
  const [first, last] = [sighting(percent, begins), sighting(percent, percent.seconds.length - 1)];
  if (!first || !last || run.falls.length > 0 || run.unplugged.at(-1)?.to === Infinity) return [];
  if (last.seconds - first.seconds < SOONEST.seconds || last.value - first.value < SOONEST.gain) return [];
  const held = holds(run);
  if (held.some(({ to }) => to >= last.seconds)) return [];
  const now = paceNow(percent, begins, first, last);
  if (now === undefined) return [];
  const fast = AS_FAST * highestPace(percent);
  const alike = earlier.filter((track) => highestPace(track) >= fast);
  const [ahead, open] = [secondsPerPercent(alike), leftOpen(alike)];
  return levels.flatMap((level): Forecast[] => {
    if (last.value >= level) return [];
    const linear = (level - last.value) * now;
    const band = alike.length > 0 && bandOf(level, last, now, ahead, open);
    if (band) return [{ level, ...band }];
    const [, least] = sharesAt(UNKNOWN, level, last.value);
    return [{ level, low: last.seconds + least * linear }];
  });
}

function bandOf(
  level: number,
  last: Sighting,
  now: number,
  ahead: readonly (number | undefined)[],
  open: number,
): { low: number; high: number } | undefined {
  // A displayed level stands for the middle of its percent.
  const paces = range(Math.floor(last.value), level).map((each) => ahead[each]);
  if (paces.some((pace) => pace === undefined)) return undefined;
  const from = last.value + 0.5 - Math.floor(last.value);
  const remaining = paces.reduce<number>((sum, pace, index) => sum + Math.max(now, pace ?? 0) * Math.max(0, index === 0 ? 1 - from : 1), 0);
  const [, least, most] = sharesAt(KNOWN, level, last.value);
  if (most - least > WIDEST * most) return undefined;
  const [sooner, later] = [(1 - least) * remaining, (most - 1) * remaining];
  return { low: last.seconds + remaining - Math.hypot(sooner, open), high: last.seconds + remaining + Math.hypot(later, open) };
}

/** Between two checks a level of an earlier run can have come anywhere: so much of their interval belongs into the band of a single one. */
const LEFT_OPEN = 0.4;

/** What the checks of earlier runs leave open of the time to come, in seconds. More runs narrow it down slowly: measured, as the shares are. */
const leftOpen = (earlier: readonly Track[]): number =>
  earlier.length === 0 ? 0 : (LEFT_OPEN / earlier.length ** 0.25) * (median(earlier, usualInterval) ?? 0);

/** How far apart the checks of a run lie, in the middle of them, in seconds. */
const usualInterval = ({ seconds }: Track): number =>
  median(Array.from({ length: Math.max(0, seconds.length - 1) }, (_, row) => (seconds[row + 1] ?? 0) - (seconds[row] ?? 0))) ?? 0;

function sharesAt(table: typeof KNOWN, level: number, from: number): Shares {
  const rows = table[level > 80 ? 'to100' : 'to80'];
  return rows.findLast(([begin]) => from >= begin) ?? [0, 0, Infinity];
}

/** Seconds for one percent over the last so many; of a run that has gained less on this source, since its start. */
function paceNow(percent: Track, begins: number, first: Sighting, last: Sighting): number | undefined {
  let index = percent.seconds.length - 1;
  while (index > begins && last.value - (percent.values[index] ?? 0) < RECENT) index -= 1;
  const since = sighting(percent, index) ?? first;
  return last.value > since.value ? (last.seconds - since.seconds) / (last.value - since.value) : undefined;
}

/** How long each percent took earlier runs, in the middle of them, in seconds: by level, from 0; `undefined` where none went through it. */
function secondsPerPercent(earlier: readonly Track[]): (number | undefined)[] {
  const curves = earlier.map(throughMiddles);
  return range(0, 100).map((level) => median(curves.flatMap((curve) => spanOf(curve, level) ?? [])));
}

/** When a run stood at true levels: through the middle of the time for which each level was displayed; at 100 half-way between the checks around it. */
function throughMiddles({ seconds, values }: Track): { at: number; level: number }[] {
  const curve: { at: number; level: number }[] = [];
  for (let row = 0, first = 0; row < seconds.length; row += 1) {
    const value = values[row] ?? 0;
    if (value < (curve.at(-1)?.level ?? 0)) return curve;
    if (value >= 100) return [...curve, { at: ((seconds[row - 1] ?? seconds[row] ?? 0) + (seconds[row] ?? 0)) / 2, level: 100 }];
    if (values[row + 1] === value) continue;
    curve.push({ at: ((seconds[first] ?? 0) + (seconds[row] ?? 0)) / 2, level: value + 0.5 });
    first = row + 1;
  }
  return curve;
}

/** How long the percent from a level on took, in seconds, on straight lines. */
function spanOf(curve: readonly { at: number; level: number }[], level: number): number | undefined {
  const [begin, end] = [timeAt(curve, level), timeAt(curve, level + 1)];
  return begin === undefined || end === undefined ? undefined : end - begin;
}

function timeAt(curve: readonly { at: number; level: number }[], level: number): number | undefined {
  const after = curve.findIndex((each) => each.level >= level);
  const [one, other] = [curve[after - 1], curve[after]];
  if (!one || !other) return undefined;
  return one.at + ((other.at - one.at) * (level - one.level)) / (other.level - one.level);
}

/** How fast it was at its fastest, over so many percent at least: from check to check a display steps by whole percents, whatever charges it. */
const FASTEST_OVER = 5;

/** In % a second. */
function highestPace({ seconds, values }: Track): number {
  let highest = 0;
  for (let row = 0, end = 0; row < seconds.length; row += 1) {
    while (end < seconds.length && (values[end] ?? 0) < (values[row] ?? 0) + FASTEST_OVER) end += 1;
    if (end === seconds.length) break;
    const time = (seconds[end] ?? 0) - (seconds[row] ?? 0);
    if (time > 0) highest = Math.max(highest, ((values[end] ?? 0) - (values[row] ?? 0)) / time);
  }
  return highest;
}
