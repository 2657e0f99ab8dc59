import { bisectRight } from 'd3-array';
import type { Quantity } from '../quantity/quantity';

/** One quantity over time: two columns of equal length, ascending in time. A moment without a value has no row. */
export interface Column {
  /** Seconds from plug-in. */
  seconds: ArrayLike<number>;
  values: ArrayLike<number>;
}

/** A meter's stream: a pair of typed columns for each quantity it gave. */
export type Samples = Partial<Record<Quantity, { seconds: Float64Array; values: Float64Array }>>;

/** Index of the first row later than a moment: rows before it were seen at or before. */
export const firstAfter = ({ seconds }: Pick<Column, 'seconds'>, moment: number): number => bisectRight(seconds, moment);

/** The rows from one moment to another, both counted in; of typed columns a view, not a copy. */
export function rowsBetween(column: Column, from: number, to: number): Column {
  const [first, last] = [firstAfter(column, from - 1e-6), firstAfter(column, to)];
  return { seconds: cut(column.seconds, first, last), values: cut(column.values, first, last) };
}

const cut = (rows: ArrayLike<number>, first: number, last: number): ArrayLike<number> =>
  rows instanceof Float64Array ? rows.subarray(first, last) : Array.prototype.slice.call(rows, first, last);
