import { bisectRight, median } from 'd3-array';
import type { Quantity } from '../quantity/quantity';

/** One quantity over time: two columns of equal length, ascending in time. A moment without a value has no row. */
export interface Column {
  /** Seconds from plug-in. */
  seconds: ArrayLike<number>;
  values: ArrayLike<number>;
}

/** A meter's stream: a pair of typed columns for each quantity it gave. */
export type Samples = Partial<Record<Quantity, { seconds: Float64Array; values: Float64Array }>>;

/** Rows further apart than this many median intervals have a gap between them: what happened there is unseen. */
const LONGEST_BRIDGE = 3;

/** Index of the first row later than a moment: rows before it were seen at or before. */
export const firstAfter = ({ seconds }: Pick<Column, 'seconds'>, moment: number): number => bisectRight(seconds, moment);

/** The rows from one moment to another, both counted in; of typed columns a view, not a copy. */
export function rowsBetween(column: Column, from: number, to: number): Column {
  const [first, last] = [firstAfter(column, from - 1e-6), firstAfter(column, to)];
  return { seconds: cut(column.seconds, first, last), values: cut(column.values, first, last) };
}

const cut = (rows: ArrayLike<number>, first: number, last: number): ArrayLike<number> =>
  rows instanceof Float64Array ? rows.subarray(first, last) : Array.prototype.slice.call(rows, first, last);

/** The middle of the times between rows, in seconds; `undefined` with fewer than two rows. */
export function medianInterval({ seconds }: Pick<Column, 'seconds'>): number | undefined {
  if (seconds.length < 2) return undefined;
  return median(Float64Array.from({ length: seconds.length - 1 }, (_, index) => (seconds[index + 1] ?? 0) - (seconds[index] ?? 0)));
}

/** The longest time between two rows that a line may bridge, in seconds: three median intervals. Two rows alone leave no gap. */
export const longestBridge = (column: Pick<Column, 'seconds'>): number => LONGEST_BRIDGE * (medianInterval(column) ?? Infinity);
