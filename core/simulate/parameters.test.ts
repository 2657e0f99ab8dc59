import fc from 'fast-check';
import { expect, it } from 'vitest';
import { meanOf, valueOn, type Curve } from './parameters';
import { seeded } from './seeded';

const steps: Curve = [
  [0, 1],
  [0.4, 1],
  [0.4, 0.5],
  [1, 0],
];

it('reads a curve between its points, and takes a step at once', () => {
  expect([0, 0.2, 0.399, 0.4, 0.7, 1, 2].map((share) => Number(valueOn(steps, share).toFixed(6)))).toEqual([1, 1, 1, 0.5, 0.25, 0, 0]);
  expect(valueOn([[0.5, 3]], 0.2)).toBe(3);
});

it('takes the mean by the area under it', () => {
  expect(meanOf(steps)).toBeCloseTo(0.4 + 0.15, 12);
  expect(meanOf([[0, 2]])).toBe(2);
  const points = fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 2, maxLength: 9 });
  fc.assert(
    fc.property(points, (values) => {
      const curve: Curve = values.map((value, index) => [index / (values.length - 1), value] as const);
      const mean = meanOf(curve);
      expect(mean).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
      expect(mean).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
    }),
  );
});

it('draws the same noise from the same seed, spread over 0 to 1', () => {
  const [one, same] = [seeded(7), seeded(7)];
  const drawn = Array.from({ length: 2000 }, one);
  expect(drawn.slice(0, 50)).toEqual(Array.from({ length: 50 }, same));
  expect(drawn.every((each) => each >= 0 && each < 1)).toBe(true);
  expect(drawn.reduce((sum, each) => sum + each, 0) / 2000).toBeCloseTo(0.5, 1);
});
