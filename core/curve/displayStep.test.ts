import { expect, it } from 'vitest';
import { AS_READ } from './pace';
import { displayStep } from './displayStep';
import { gainAt } from './valueAt';

const stepOf = (...values: number[]) => displayStep({ values });

it('tells by what steps a display moves, where the levels that were seen are no chance', () => {
  expect(stepOf(5, 10, 20, 25, 40, 45, 60, 70, 75, 100)).toBe(5);
  expect(stepOf(0, 3, 9, 12, 21, 24, 33, 39, 48)).toBe(3);
  expect(stepOf(5, 8, 13, 18, 28)).toBe(1);
  // A few even levels can be a chance; and who writes down every tenth percent reads an even rise.
  expect(stepOf(2, 8, 14, 20)).toBe(1);
  expect(stepOf(10, 20, 30, 40, 50, 60, 70, 80, 90, 100)).toBe(1);
  expect(stepOf()).toBe(1);
});

it('makes a gain as unsure as its steps', () => {
  const percent = { seconds: [0, 900], values: [5, 45] };
  const [whole, fives] = [1, 5].map((step) => gainAt(percent, 900, { ...AS_READ, step }));
  if (whole?.state !== 'known' || fives?.state !== 'known') throw new Error('no gain');
  // JCGM 100:2008 (GUM) 4.3.7: anywhere within a step at both ends.
  expect(whole.uncertainty).toBeCloseTo(Math.sqrt(2 / 12), 9);
  expect(fives.uncertainty).toBeCloseTo(5 * Math.sqrt(2 / 12), 9);
  expect(fives.bounds).toEqual({ low: 36, high: 44 });
});
