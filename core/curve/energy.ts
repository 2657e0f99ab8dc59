import { averagePower } from '../quantity/electric';
import type { Track } from '../ink/track';

/** Times between two values further apart than this many median intervals are unseen, not bridged. */
const LONGEST_BRIDGE = 3;

/** A span of time, in seconds from plug-in. */
export interface Span {
  from: number;
  to: number;
}

/** Energy under a track of watts, over the time that values cover. */
export interface Energy {
  wattHours: number;
  /** Covered energy ÷ covered time, in W; `undefined` when no time is covered. */
  averageWatts?: number | undefined;
  covered: number;
  whole: number;
  /** Spans without values, left out of the sum. */
  unseen: Span[];
}

/** The middle of the times between rows, in seconds; `undefined` with fewer than two rows. */
export function medianInterval({ seconds }: Track): number | undefined {
  if (seconds.length < 2) return undefined;
  const waits = Float64Array.from({ length: seconds.length - 1 }, (_, index) => (seconds[index + 1] ?? 0) - (seconds[index] ?? 0)).sort();
  const middle = waits.length >> 1;
  return waits.length % 2 === 1 ? waits[middle] : ((waits[middle - 1] ?? 0) + (waits[middle] ?? 0)) / 2;
}

/** Spans longer than three median intervals: nothing is known of them. Two rows alone leave none. */
export function unseenSpans(track: Track): Span[] {
  const longest = LONGEST_BRIDGE * (medianInterval(track) ?? Infinity);
  const spans: Span[] = [];
  for (let index = 1; index < track.seconds.length; index += 1) {
    const [from = 0, to = 0] = [track.seconds[index - 1], track.seconds[index]];
    if (to - from > longest) spans.push({ from, to });
  }
  return spans;
}

/**
 * Energy by the trapezoid rule over the times at which watts were seen.
 *
 * A gap longer than three times the median interval is left out and named (numbers.md, *Energy*).
 *
 * @param watts power, in W
 * @param whole length of the run, in seconds, against which coverage is counted
 */
export function energy(watts: Track, whole: number): Energy {
  const unseen = unseenSpans(watts);
  const gaps = new Set(unseen.map(({ to }) => to));
  let [joules, covered] = [0, 0];
  for (let index = 1; index < watts.seconds.length; index += 1) {
    const to = watts.seconds[index] ?? 0;
    if (gaps.has(to)) continue;
    const step = to - (watts.seconds[index - 1] ?? 0);
    joules += (step * ((watts.values[index - 1] ?? 0) + (watts.values[index] ?? 0))) / 2;
    covered += step;
  }
  const wattHours = joules / 3600;
  return { wattHours, averageWatts: averagePower(wattHours, covered), covered, whole, unseen };
}
