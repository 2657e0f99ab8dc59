import { expect, it } from 'vitest';
import { penOf, PEN_COUNT, distinctPens } from './pens';

it('makes twelve pens that differ without colour', () => {
  const looks = Array.from({ length: PEN_COUNT }, (_, number) => {
    const { dash, nib, hollow } = penOf(number, 'paper');
    return JSON.stringify([dash, nib, hollow]);
  });
  expect(new Set(looks).size).toBe(12);
});

it('lets every setup keep its pen, and lends the next free one to a repeat', () => {
  expect(distinctPens([3, 0, 7])).toEqual([3, 0, 7]);
  expect(distinctPens([0, 0, 1])).toEqual([0, 2, 1]);
  expect(distinctPens([11, 11])).toEqual([11, 0]);
});
