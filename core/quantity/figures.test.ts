import { expect, it } from 'vitest';
import { decimalsFor, fixed, signedShare } from './figures';

it('writes a minus that is a minus, and no negative zero', () => {
  expect(fixed(-3.14159, 2)).toBe('−3.14');
  expect(fixed(-0.001, 1)).toBe('0.0');
});

it('keeps no digit that the margin cannot support', () => {
  expect(decimalsFor(0.6, 2)).toBe(0);
  expect(decimalsFor(0.05, 2)).toBe(1);
  expect(decimalsFor(0.001, 2)).toBe(2);
  expect(decimalsFor(0, 1)).toBe(1);
  expect(decimalsFor(7, 1)).toBe(0);
});

it('signs a share either way', () => {
  expect(signedShare(0.1)).toBe('+10 %');
  expect(signedShare(-0.302)).toBe('−30 %');
  expect(signedShare(0.001)).toBe('0 %');
});
