import { bisectRight } from 'd3-array';
import type { Quantity } from '../quantity/quantity';

/** One quantity over time: two columns of equal length, ascending in time. A moment without a value has no row. */
export interface SampleColumn {
  /** Seconds from plug-in. */
  seconds: ArrayLike<number>;
  values: ArrayLike<number>;
}

/** A meter's stream: a pair of typed columns for each quantity it gave. */
export type Samples = Partial<Record<Quantity, { seconds: Float64Array; values: Float64Array }>>;

/** Logs that were laid into a run later on, by their ids, each by its own clock. */
export type Logs = Readonly<Record<string, Samples>>;

/** Index of the first row later than a moment: rows before it were seen at or before. */
export const firstAfter = ({ seconds }: Pick<SampleColumn, 'seconds'>, moment: number): number => bisectRight(seconds, moment);

/** The rows from one moment to another, both counted in; of typed columns a view, not a copy. */
export function rowsBetween(column: SampleColumn, from: number, to: number): SampleColumn {
  const [first, last] = [firstAfter(column, from - 1e-6), firstAfter(column, to)];
  return { seconds: cut(column.seconds, first, last), values: cut(column.values, first, last) };
}

const cut = (rows: ArrayLike<number>, first: number, last: number): ArrayLike<number> =>
  rows instanceof Float64Array ? rows.subarray(first, last) : Array.prototype.slice.call(rows, first, last);

/** Columns one behind another; a single one as it is. */
export function joined(parts: readonly (Float64Array | undefined | null)[]): Float64Array {
  if (parts.length === 1 && parts[0]) return parts[0];
  const whole = new Float64Array(parts.reduce((sum, part) => sum + (part?.length ?? 0), 0));
  let at = 0;
  for (const part of parts) {
    if (!part) continue;
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/** Whether two columns of times are the same, moment by moment. */
export function isSameTimes(one: Float64Array, other: Float64Array): boolean {
  if (one === other) return true;
  if (one.length !== other.length) return false;
  for (let row = 0; row < one.length; row += 1) if (one[row] !== other[row]) return false;
  return true;
}
