import { expect, it } from 'vitest';
import { shownMargin, standardUncertainty } from './bounds';

it('is width ÷ √12 for a value known only to lie in an interval', () => {
  // JCGM 100:2008 (GUM) 4.3.7, from memory: half-width a gives a/√3.
  expect(standardUncertainty({ low: 85, high: 90 })).toBeCloseTo(2.5 / Math.sqrt(3), 12);
  expect(standardUncertainty({ low: 85, high: Infinity })).toBeUndefined();
});

it('shows two standard uncertainties, and never more than half of what the value surely lies between', () => {
  expect(shownMargin(0.4)).toBe(0.8);
  expect(shownMargin(0.4, { low: 27, high: 28 })).toBe(0.5);
  expect(shownMargin(0.4, { low: 27, high: 27 })).toBe(0.8);
});
