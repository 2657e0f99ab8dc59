import { averagePower } from '../quantity/electric';
import type { Track } from '../ink/track';
import { longestBridge } from '../samples/column';

/** A span of time, in seconds from plug-in. */
export interface Span {
  from: number;
  to: number;
}

/** Energy under a track of watts, over the time that values cover. */
export interface Energy {
  /** Into the device. */
  wattHours: number;
  /** Out of it, which a meter tells as power below zero: counted apart. */
  wattHoursOut: number;
  /** What went in less what came out ÷ covered time, in W; `undefined` when no time is covered. */
  averageWatts?: number | undefined;
  covered: number;
  whole: number;
  /** Spans without values, left out of the sum. */
  unseen: Span[];
}

/** Spans longer than three median intervals: nothing is known of them. Two rows alone leave none. */
export function unseenSpans(track: Track): Span[] {
  const longest = longestBridge(track);
  const spans: Span[] = [];
  for (let index = 1; index < track.seconds.length; index += 1) {
    const [from = 0, to = 0] = [track.seconds[index - 1], track.seconds[index]];
    if (to - from > longest) spans.push({ from, to });
  }
  return spans;
}

/** Area above zero under the line from one value to the next, over one unit of time. */
function areaAbove(before: number, after: number): number {
  if (before >= 0 && after >= 0) return (before + after) / 2;
  const highest = Math.max(before, after);
  return highest <= 0 ? 0 : (highest * highest) / (2 * Math.abs(after - before));
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
  let [joules, joulesOut, covered] = [0, 0, 0];
  for (let index = 1; index < watts.seconds.length; index += 1) {
    const to = watts.seconds[index] ?? 0;
    if (gaps.has(to)) continue;
    const step = to - (watts.seconds[index - 1] ?? 0);
    const [before, after] = [watts.values[index - 1] ?? 0, watts.values[index] ?? 0];
    if (before >= 0 && after >= 0) joules += (step * (before + after)) / 2;
    else {
      joules += step * areaAbove(before, after);
      joulesOut += step * areaAbove(-before, -after);
    }
    covered += step;
  }
  const [wattHours, wattHoursOut] = [joules / 3600, joulesOut / 3600];
  return { wattHours, wattHoursOut, averageWatts: averagePower(wattHours - wattHoursOut, covered), covered, whole, unseen };
}
