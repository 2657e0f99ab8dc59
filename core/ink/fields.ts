import { number } from 'yup';
import { MOMENTS } from './ranges';
import { type Quantity, quantityOf } from '../quantity/quantity';

export { idField } from '../bench/fields';

/** A value of a quantity, within what is kept of it. */
export function fieldFigure(quantity: Quantity) {
  const { min, max } = quantityOf(quantity);
  return number().min(min).max(max);
}

/** A moment, epoch milliseconds. */
export const instantField = () => number().integer().min(MOMENTS.min).max(MOMENTS.max);
