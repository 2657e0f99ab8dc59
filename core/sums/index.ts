export { typeFigure } from './figure';
export { fieldError, noteOf, SUMS, usualTexts, workOut, type Sum, type SumField, type SumLine, type SumSource } from './sums';
