/** A number as typed, with a decimal comma or point. Nothing typed is 0; what is no number is NaN. */
export const readDecimal = (typed: string): number => Number(typed.trim().replace(',', '.'));
