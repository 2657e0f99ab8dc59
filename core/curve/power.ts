import type { Quantity } from '../quantity/quantity';
import type { RunRecord } from '../ink/fold';
import { sighting, type Track } from '../ink/track';
import { rowsBetween, type SampleColumn } from '../samples/column';
import { gapsOf, gapWalk, type Span } from '../samples/gaps';
import { energy, unseenSpans, type Accuracy } from './energy';
import { levelTime } from './levelTime';

/** Mean power over a part of a charge. */
export interface MeanPower extends Span {
  watts: number;
  /** Its standard uncertainty, in W. */
  uncertainty: number;
  /** Share of the time in which power was seen, 0 to 1. */
  seen: number;
}

/** Mean power between two moments, on the line between readings; gaps are left out. `undefined` where less than half was seen. */
export function meanPower(run: RunRecord, span: Span, accuracy: Accuracy): MeanPower | undefined {
  const { watts } = run.tracks;
  const unseen = unseenSpans(run).filter(({ from, to }) => from >= span.from && to <= span.to);
  const found = energy(trackOf(rowsBetween(watts, span.from, span.to)), span.to - span.from, unseen, accuracy);
  const seen = span.to > span.from ? found.covered / (span.to - span.from) : 0;
  if (found.averageWatts === undefined || seen < 0.5) return undefined;
  return { ...span, watts: found.averageWatts, uncertainty: found.averageUncertainty, seen: Math.min(1, seen) };
}

const trackOf = ({ seconds, values }: SampleColumn): Track => ({ seconds, values });

/** Mean power from plug-in to 80 % and to 100 %, where those were shown. */
export function averagesTo(run: RunRecord, levels: readonly number[], accuracy: Accuracy): (MeanPower & { level: number })[] {
  return levels.flatMap((level) => {
    const reached = levelTime(run.tracks.percent, level);
    const mean = reached && meanPower(run, { from: 0, to: reached.at }, accuracy);
    return mean ? [{ ...mean, level }] : [];
  });
}

/**
 * For how long a track lay above a limit, on the line between its rows, in seconds; gaps are left out.
 *
 * @returns undefined of a track without two rows
 */
export function timeAbove(column: SampleColumn, limit: number, unseen: readonly Span[] = gapsOf(column)): number | undefined {
  const { seconds, values } = column;
  if (seconds.length < 2) return undefined;
  const isUnseen = gapWalk(unseen);
  let above = 0;
  for (let row = 1; row < seconds.length; row += 1) {
    const from = seconds[row - 1] ?? 0;
    const to = seconds[row] ?? 0;
    if (isUnseen(from, to)) continue;
    const before = (values[row - 1] ?? 0) - limit;
    const after = (values[row] ?? 0) - limit;
    if (before > 0 && after > 0) above += to - from;
    else if (before > 0 || after > 0) above += ((to - from) * Math.max(before, after)) / Math.abs(after - before);
  }
  return above;
}

/** Points of a curve of watts by level at most. */
const MOST_POINTS = 400;

/**
 * A quantity by level: what was read while the display stood at each, for a curve of watts or of heat against percent. The level is taken on the line
 * between its readings; of a meter's stream, each point is the mean of what was read at a level.
 *
 * @returns points of level in % and the value, in order of time
 */
export function byLevel({ tracks }: Pick<RunRecord, 'tracks'>, quantity: Quantity): [level: number, value: number][] {
  const { seconds, values } = tracks[quantity];
  const { seconds: times, values: levels } = tracks.percent;
  const stride = Math.max(1, Math.ceil(seconds.length / MOST_POINTS));
  const points: [number, number][] = [];
  let at = 0;
  for (let first = 0; first < seconds.length && times.length > 0; first += stride) {
    const last = Math.min(first + stride, seconds.length);
    let sum = 0;
    let when = 0;
    for (let row = first; row < last; row += 1) {
      sum += values[row] ?? 0;
      when += seconds[row] ?? 0;
    }
    const moment = when / (last - first);
    while (at + 1 < times.length && (times[at + 1] ?? 0) <= moment) at += 1;
    const from = times[at] ?? 0;
    const isLast = at + 1 === times.length;
    // No level is known before the first, or after the last.
    if (moment < from || (isLast && moment > from)) continue;
    const share = isLast ? 0 : (moment - from) / Math.max((times[at + 1] ?? 0) - from, 1e-9);
    const level = levels[at] ?? 0;
    points.push([level + share * ((levels[at + 1] ?? level) - level), sum / (last - first)]);
  }
  return points;
}

/** What still flows once it is full: mean power after the level first showed 100, while power was read for five minutes at least. */
export function idleDraw(run: RunRecord, accuracy: Accuracy, full: number | undefined): MeanPower | undefined {
  const { watts } = run.tracks;
  const end = watts.seconds[watts.seconds.length - 1] ?? 0;
  return full === undefined || end - full < 300 ? undefined : meanPower(run, { from: full, to: end }, accuracy);
}

/** What came in of charge, in mAh, by the counter where it ran on without beginning anew, else by the amps at the cable. */
export function chargeIn(run: RunRecord): { milliampHours: number; isCounted: boolean } | undefined {
  const { milliampHours, amps } = run.tracks;
  const [first, last] = [sighting(milliampHours, 0), sighting(milliampHours, milliampHours.seconds.length - 1)];
  let falls = false;
  for (let row = 1; row < milliampHours.values.length; row += 1)
    falls ||= (milliampHours.values[row] ?? 0) < (milliampHours.values[row - 1] ?? 0);
  if (first && last && last.seconds > first.seconds && !falls) return { milliampHours: last.value - first.value, isCounted: true };
  const { wattHours, covered } = energy(amps, run.end);
  return covered > 0 ? { milliampHours: wattHours * 1000, isCounted: false } : undefined;
}

/** Energy that had come in by each row of power, in Wh: its running total, on which gaps add nothing. */
export function runningTotal(run: RunRecord): SampleColumn {
  const { seconds, values } = run.tracks.watts;
  const isUnseen = gapWalk(unseenSpans(run));
  const total = new Float64Array(values.length);
  for (let row = 1; row < values.length; row += 1) {
    const from = seconds[row - 1] ?? 0;
    const to = seconds[row] ?? 0;
    total[row] = (total[row - 1] ?? 0) + (isUnseen(from, to) ? 0 : ((to - from) * ((values[row - 1] ?? 0) + (values[row] ?? 0))) / 7200);
  }
  return { seconds, values: total };
}
