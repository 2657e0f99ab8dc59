import type { SampleColumn } from './column';

/** Rows, or buckets of the level below, that one bucket sums up. */
export const FOLD = 32;

/** A column seen from further off: of every `rows` rows, the row with the lowest value and the one with the highest. */
export interface Level {
  rows: number;
  lowest: Uint32Array;
  highest: Uint32Array;
}

const knownLevels = new WeakMap<object, Level[]>();

/** The levels above a column, finest first; none above one of fewer than 32 rows. Made once, in one pass, and kept as long as the column is. */
export function minMaxLevels(column: SampleColumn): Level[] {
  const kept = knownLevels.get(column.values);
  if (kept) return kept;
  const levels: Level[] = [];
  for (let below: Level | undefined, size = column.values.length; size >= FOLD; size = levels.at(-1)?.lowest.length ?? 0) {
    below = below ? folded(column, below) : finest(column);
    levels.push(below);
  }
  knownLevels.set(column.values, levels);
  return levels;
}

function finest({ values }: SampleColumn): Level {
  const size = Math.ceil(values.length / FOLD);
  const level = { rows: FOLD, lowest: new Uint32Array(size), highest: new Uint32Array(size) };
  for (let bucket = 0; bucket < size; bucket += 1) {
    const from = bucket * FOLD;
    const to = Math.min((bucket + 1) * FOLD, values.length);
    let lowest = from;
    let highest = from;
    for (let row = from; row < to; row += 1) {
      if ((values[row] ?? 0) < (values[lowest] ?? 0)) lowest = row;
      if ((values[row] ?? 0) > (values[highest] ?? 0)) highest = row;
    }
    level.lowest[bucket] = lowest;
    level.highest[bucket] = highest;
  }
  return level;
}

function folded({ values }: SampleColumn, below: Level): Level {
  const size = Math.ceil(below.lowest.length / FOLD);
  const level = { rows: below.rows * FOLD, lowest: new Uint32Array(size), highest: new Uint32Array(size) };
  for (let bucket = 0; bucket < size; bucket += 1) {
    const from = bucket * FOLD;
    const to = Math.min((bucket + 1) * FOLD, below.lowest.length);
    let lowest = below.lowest[from] ?? 0;
    let highest = below.highest[from] ?? 0;
    for (let each = from; each < to; each += 1) {
      const low = below.lowest[each] ?? 0;
      const high = below.highest[each] ?? 0;
      if ((values[low] ?? 0) < (values[lowest] ?? 0)) lowest = low;
      if ((values[high] ?? 0) > (values[highest] ?? 0)) highest = high;
    }
    level.lowest[bucket] = lowest;
    level.highest[bucket] = highest;
  }
  return level;
}
