import { number } from 'yup';
import { MOMENTS, RANGES } from './ranges';
import type { Quantity } from './track';

export { idField } from '../bench/fields';

/** A value of a quantity, within what is kept of it. */
export function figureOf(quantity: Quantity) {
  const { least, most } = RANGES[quantity];
  return number().min(least).max(most);
}

/** A moment, epoch milliseconds. */
export const instantField = () => number().integer().min(MOMENTS.least).max(MOMENTS.most);
