import { firstAfter, type SampleColumn } from './column';
import type { Span } from './gaps';
import { FOLD, minMaxLevels } from './levels';

/** A point of a line: seconds from plug-in and value; without a value the line breaks there, for nothing was seen. */
export type Dot = [seconds: number, value: number | undefined];

export interface Range {
  /** Seconds from plug-in; the whole column where they are left out. */
  from?: number;
  to?: number;
  /** About how many points the line may have. */
  max: number;
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
export function rangeOf(column: SampleColumn, { from = -Infinity, to = Infinity, max, gaps = [] }: Range): Dot[] {
  const { seconds } = column;
  const first = Math.max(0, firstAfter(column, from) - 1);
  const last = Math.min(seconds.length, firstAfter(column, to) + 1);
  if (first >= last) return [];
  if (last - first <= max)
    return joined(
      column,
      Array.from({ length: last - first }, (_, index) => first + index),
      gaps,
    );
  const stretches = Math.max(1, Math.floor(max / 2) - 1);
  const pixel = ((seconds[last - 1] ?? 0) - (seconds[first] ?? 0)) / stretches;
  const visible = gaps.filter((gap) => gap.to - gap.from > pixel);
  const kept = [first];
  for (let stretch = 0, begin = first; stretch < stretches; stretch += 1) {
    const end = first + Math.floor(((stretch + 1) * (last - first)) / stretches);
    keepExtremes(kept, column, begin, end);
    begin = end;
  }
  kept.push(last - 1);
  for (const gap of visible) {
    const after = firstAfter(column, gap.from);
    if (after > first && after < last) kept.push(after - 1, after);
  }
  // They are in order but for the sides of gaps.
  if (visible.length > 0) kept.sort((one, other) => one - other);
  return joined(
    column,
    kept.filter((row, index) => row !== kept[index - 1]),
    visible,
  );
}

/** Keeps the rows of a stretch with its lowest and its highest value, in order. */
function keepExtremes(kept: number[], column: SampleColumn, begin: number, end: number): void {
  const { values } = column;
  // A short stretch asks no level: of a run of an hour none is made.
  const levels = end - begin < FOLD ? [] : minMaxLevels(column);
  let lowest = begin;
  let highest = begin;
  for (let row = begin; row < end;) {
    let low = row;
    let high = row;
    let rows = 1;
    // The coarsest level with a bucket that begins here and lies within the stretch; without one, the row itself.
    for (const level of levels) {
      if (row % level.rows !== 0 || row + level.rows > end) break;
      rows = level.rows;
      low = level.lowest[row / rows] ?? row;
      high = level.highest[row / rows] ?? row;
    }
    if ((values[low] ?? 0) < (values[lowest] ?? 0)) lowest = low;
    if ((values[high] ?? 0) > (values[highest] ?? 0)) highest = high;
    row += rows;
  }
  kept.push(Math.min(lowest, highest), Math.max(lowest, highest));
}

/** Rows as points of a line, with a break in the middle of every gap. */
function joined({ seconds, values }: SampleColumn, rows: readonly number[], gaps: readonly Span[]): Dot[] {
  const dots: Dot[] = [];
  let next = 0;
  for (const row of rows) {
    const at = seconds[row] ?? 0;
    const gap = gaps[next];
    if (gap && gap.to <= at) {
      while (next < gaps.length && (gaps[next]?.to ?? 0) <= at) next += 1;
      // A range that begins after a gap has no break before it.
      if (dots.length > 0) dots.push([(gap.from + gap.to) / 2, undefined]);
    }
    dots.push([at, values[row]]);
  }
  return dots;
}
