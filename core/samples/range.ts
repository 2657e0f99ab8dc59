import { firstAfter, type Column } from './column';
import { levelsOf } from './levels';

/** A point of a line: seconds from plug-in and value; without a value the line breaks there, for nothing was seen. */
export type Dot = [seconds: number, value: number | undefined];

export interface Range {
  /** Seconds from plug-in; the whole column where they are left out. */
  from?: number;
  to?: number;
  /** About how many points the line may have. */
  most: number;
  /** Rows further apart than this, in seconds, are not joined; by default all are. */
  bridge?: number;
}

/**
 * What of a column to draw between two moments, and the row to either side, so that the line runs on to the edge.
 *
 * Where it has more rows than the line may have points, of every stretch its lowest and highest are drawn, so that no spike is lost; gaps are kept
 * as long as they are wide enough to be seen. Costs points, not rows: the levels above the column are asked for whole stretches.
 *
 * @example rangeOf(watts, { most: 1500, bridge: longestBridge(watts) }) // the whole of it for a strip 750 pixels wide
 */
export function rangeOf(column: Column, { from = -Infinity, to = Infinity, most, bridge = Infinity }: Range): Dot[] {
  const { seconds } = column;
  const first = Math.max(0, firstAfter(column, from) - 1);
  const last = Math.min(seconds.length, firstAfter(column, to) + 1);
  if (first >= last) return [];
  if (last - first <= most) return joined(column, range(first, last), bridge);
  const stretches = Math.max(1, Math.floor(most / 2) - 1);
  const visible = Math.max(bridge, ((seconds[last - 1] ?? 0) - (seconds[first] ?? 0)) / stretches);
  const kept = new Set([first, last - 1]);
  for (let stretch = 0; stretch < stretches; stretch += 1) {
    const begin = first + Math.floor((stretch * (last - first)) / stretches);
    const end = first + Math.floor(((stretch + 1) * (last - first)) / stretches);
    for (const row of notable(column, begin, end, visible)) kept.add(row);
  }
  return joined(
    column,
    [...kept].sort((one, other) => one - other),
    bridge,
  );
}

const range = (first: number, last: number) => Array.from({ length: last - first }, (_, index) => first + index);

/** Of a stretch of rows: its lowest, its highest, and either side of every gap. */
function notable(column: Column, begin: number, end: number, bridge: number): number[] {
  const { seconds, values } = column;
  const levels = levelsOf(column);
  const sides: number[] = [];
  let [lowest, highest] = [begin, begin];
  for (let row = begin; row < end;) {
    const here = row;
    // The coarsest level with a bucket that begins here, lies within the stretch and holds no gap; without one, the row itself.
    const level = levels.findLast(({ rows, longest }) => here % rows === 0 && here + rows <= end && (longest[here / rows] ?? 0) <= bridge);
    const bucket = level ? here / level.rows : 0;
    const [low, high] = level ? [level.lowest[bucket] ?? here, level.highest[bucket] ?? here] : [here, here];
    if ((values[low] ?? 0) < (values[lowest] ?? 0)) lowest = low;
    if ((values[high] ?? 0) > (values[highest] ?? 0)) highest = high;
    if (!level && (seconds[here + 1] ?? -Infinity) - (seconds[here] ?? 0) > bridge) sides.push(here, here + 1);
    row += level?.rows ?? 1;
  }
  return [lowest, highest, ...sides];
}

/** Rows as points of a line, with a break in the middle of every gap between neighbours. */
function joined({ seconds, values }: Column, rows: readonly number[], bridge: number): Dot[] {
  return rows.flatMap((row, index): Dot[] => {
    const dot: Dot = [seconds[row] ?? 0, values[row]];
    const before = rows[index - 1];
    const since = before === row - 1 ? (seconds[before] ?? 0) : dot[0];
    return dot[0] - since > bridge ? [[(since + dot[0]) / 2, undefined], dot] : [dot];
  });
}
