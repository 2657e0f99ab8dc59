import jstat from 'jstat';

/** Quantile of the normal distribution that 97.5 % lie below: of Student’s t with what is known rather than estimated. */
export const KNOWN = 1.959963984540054;

/**
 * Quantile of Student’s t that 97.5 % lie below, so that 95 % lie between it and its negative.
 *
 * @param freedom degrees of freedom, above 0; a fraction of one as Welch and Satterthwaite give it; `Infinity` for what is known
 */
export const student = (freedom: number): number => (freedom > 1e6 ? KNOWN : jstat.studentt.inv(0.975, freedom));
