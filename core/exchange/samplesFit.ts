import { LONGEST_RUN, toTick } from '../ink/ranges';
import type { Samples } from '../samples/column';
import type { Misfit } from './fits';
import { MOST_VALUES } from './limits';
import { QUANTITIES, type Quantity, quantityOf } from '../quantity/quantity';

type Column = { seconds: ArrayLike<number>; values: ArrayLike<number> };

/**
 * Whether a meter's columns are what a run can hold: of equal length, ascending in time from plug-in on, every value within what is kept of its
 * quantity, and no more of them than are kept. A loop of its own, for there may be millions.
 */
export function samplesMisfit(samples: unknown): Misfit | undefined {
  if (typeof samples !== 'object' || samples === null || Array.isArray(samples)) return { path: '', says: 'is not a set of columns' };
  let count = 0;
  const known = new Set<ArrayLike<number>>();
  for (const [name, column] of Object.entries(samples) as [string, unknown][]) {
    const quantity = QUANTITIES.find((each) => each === name);
    if (!quantity) return { path: name, says: 'is no quantity that is kept' };
    if (!isColumn(column)) return { path: name, says: 'does not have as many seconds as values' };
    count += column.values.length;
    const found = columnMisfit(quantity, column, known);
    if (found) return found;
    known.add(column.seconds);
  }
  return count > MOST_VALUES ? { path: '', says: `has ${count} values; up to ${MOST_VALUES} are kept of a run` } : undefined;
}

const isList = (value: unknown): value is ArrayLike<number> => Array.isArray(value) || value instanceof Float64Array;

function isColumn(column: unknown): column is Column {
  if (typeof column !== 'object' || column === null || !('seconds' in column) || !('values' in column)) return false;
  const { seconds, values } = column;
  return isList(seconds) && isList(values) && seconds.length === values.length && Object.keys(column).length === 2;
}

/** @param known times that were looked through already: what a meter told together shares them */
function columnMisfit(quantity: Quantity, { seconds, values }: Column, known: ReadonlySet<ArrayLike<number>>): Misfit | undefined {
  const { min, max } = quantityOf(quantity);
  const at = (name: 'seconds' | 'values', row: number) => `${quantity}.${name}[${row}]`;
  const second = known.has(seconds) ? -1 : firstNotAscending(seconds);
  if (second >= 0) return { path: at('seconds', second), says: 'is before the row above it, or no time of a run' };
  const value = firstOutside(values, min, max);
  if (value >= 0) return { path: at('values', value), says: `is not a number from ${min} to ${max}` };
  return undefined;
}

/** The first row that is before the one above it, or no time of a run; -1 where there is none. Written so that what is no number fails too. */
function firstNotAscending(seconds: ArrayLike<number>): number {
  let before = 0;
  for (let row = 0; row < seconds.length; row += 1) {
    const second: unknown = seconds[row];
    if (typeof second !== 'number' || !(second >= before && second <= LONGEST_RUN)) return row;
    before = second;
  }
  return -1;
}

/** The first row that is no number from one to another; -1 where there is none. */
function firstOutside(values: ArrayLike<number>, min: number, max: number): number {
  for (let row = 0; row < values.length; row += 1) {
    const value: unknown = values[row];
    if (typeof value !== 'number' || !(value >= min && value <= max)) return row;
  }
  return -1;
}

/** Columns as typed arrays, from lists of numbers; times as they are kept. */
export function typedSamples(samples: Partial<Record<Quantity, Column>>): Samples {
  const columns = Object.entries(samples) as [Quantity, Column][];
  return Object.fromEntries(
    columns.map(([quantity, { seconds, values }]) => [
      quantity,
      { seconds: Float64Array.from(seconds, toTick), values: Float64Array.from(values) },
    ]),
  );
}
