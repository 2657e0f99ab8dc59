import { TABLE, type QuantityRow } from './quantities';

/** What can be read or sampled, by the name it has in a reading. */
export type Quantity = keyof typeof TABLE;

export const QUANTITIES = Object.keys(TABLE) as readonly Quantity[];

/** The row of a quantity. */
export const quantityOf = (quantity: Quantity): QuantityRow => TABLE[quantity];

/** Temperatures: of a surface, and of the battery. */
export const TEMPERATURES = QUANTITIES.filter((quantity) => quantityOf(quantity).unit === '°C');

/** Those that are drawn on the strip, from the top down. */
export const TRACKED = QUANTITIES.filter((quantity) => quantityOf(quantity).track !== undefined);

/** Whether a value is one that is kept of a quantity. What is not a number is not. */
export function isKept(quantity: Quantity, value: number): boolean {
  const { min, max } = TABLE[quantity];
  return value >= min && value <= max;
}

/** Those that are drawn on the paper of another quantity. */
export const sharersOf = (quantity: Quantity): Quantity[] => TRACKED.filter((each) => quantityOf(each).track?.on === quantity);
