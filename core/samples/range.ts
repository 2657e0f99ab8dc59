import { firstAfter, type Column } from './column';
import type { Span } from './gaps';
import { levelsOf } from './levels';

/** A point of a line: seconds from plug-in and value; without a value the line breaks there, for nothing was seen. */
export type Dot = [seconds: number, value: number | undefined];

export interface Range {
  /** Seconds from plug-in; the whole column where they are left out. */
  from?: number;
  to?: number;
  /** About how many points the line may have. */
  most: number;
  /** Where nothing was seen for too long, from a row to the next one: the line breaks there. By default nowhere. */
  gaps?: readonly Span[];
}

/**
 * What of a column to draw between two moments, and the row to either side, so that the line runs on to the edge.
 *
 * Where it has more rows than the line may have points, of every stretch its lowest and highest are drawn, so that no spike is lost, and both
 * sides of every gap that is wide enough to be seen. Costs points, not rows: the levels above the column answer for whole stretches.
 *
 * @example rangeOf(watts, { most: 1500, gaps: gapsOf(watts) }) // the whole of it for a strip 750 pixels wide
 */
export function rangeOf(column: Column, { from = -Infinity, to = Infinity, most, gaps = [] }: Range): Dot[] {
  const { seconds } = column;
  const first = Math.max(0, firstAfter(column, from) - 1);
  const last = Math.min(seconds.length, firstAfter(column, to) + 1);
  if (first >= last) return [];
  if (last - first <= most)
    return joined(
      column,
      Array.from({ length: last - first }, (_, index) => first + index),
      gaps,
    );
  const stretches = Math.max(1, Math.floor(most / 2) - 1);
  const pixel = ((seconds[last - 1] ?? 0) - (seconds[first] ?? 0)) / stretches;
  const visible = gaps.filter((gap) => gap.to - gap.from > pixel);
  const kept = new Set([first, last - 1]);
  for (const gap of visible) {
    const after = firstAfter(column, gap.from);
    if (after > first && after < last) kept.add(after - 1).add(after);
  }
  for (let stretch = 0; stretch < stretches; stretch += 1) {
    const begin = first + Math.floor((stretch * (last - first)) / stretches);
    const end = first + Math.floor(((stretch + 1) * (last - first)) / stretches);
    for (const row of extremes(column, begin, end)) kept.add(row);
  }
  return joined(
    column,
    [...kept].sort((one, other) => one - other),
    visible,
  );
}

/** The rows of a stretch with its lowest and its highest value. */
function extremes(column: Column, begin: number, end: number): [lowest: number, highest: number] {
  const { values } = column;
  const levels = levelsOf(column);
  let [lowest, highest] = [begin, begin];
  for (let row = begin; row < end;) {
    const here = row;
    // The coarsest level with a bucket that begins here and lies within the stretch; without one, the row itself.
    const level = levels.findLast(({ rows }) => here % rows === 0 && here + rows <= end);
    const bucket = level ? here / level.rows : 0;
    const [low, high] = level ? [level.lowest[bucket] ?? here, level.highest[bucket] ?? here] : [here, here];
    if ((values[low] ?? 0) < (values[lowest] ?? 0)) lowest = low;
    if ((values[high] ?? 0) > (values[highest] ?? 0)) highest = high;
    row += level?.rows ?? 1;
  }
  return [lowest, highest];
}

/** Rows as points of a line, with a break in the middle of every gap. */
function joined({ seconds, values }: Column, rows: readonly number[], gaps: readonly Span[]): Dot[] {
  let next = 0;
  return rows.flatMap((row): Dot[] => {
    const at = seconds[row] ?? 0;
    const dot: Dot = [at, values[row]];
    const gap = gaps[next];
    if (!gap || gap.to > at) return [dot];
    while (next < gaps.length && (gaps[next]?.to ?? 0) <= at) next += 1;
    // A range that begins after a gap has no break before it.
    return row === rows[0] ? [dot] : [[(gap.from + gap.to) / 2, undefined], dot];
  });
}
