import { expect, it } from 'vitest';
import { elapsedIn, footageSchema } from './footage';

it('reads the time of a run off a clip by its offset, its speed-up and its cuts', () => {
  expect(elapsedIn({ offset: 12, speed: 1, cuts: [] }, 312)).toBe(300);
  // A time lapse: an hour in a minute.
  expect(elapsedIn({ offset: 2, speed: 60, cuts: [] }, 62)).toBe(3600);
  // Ten minutes were not filmed, at 5:00 of the clip; a cut before plug-in says nothing.
  const cut = {
    offset: 30,
    speed: 1,
    cuts: [
      { at: 300, missing: 600 },
      { at: 10, missing: 99 },
    ],
  };
  expect(elapsedIn(cut, 299)).toBe(269);
  expect(elapsedIn(cut, 300)).toBe(870);
  expect(elapsedIn(cut, 0)).toBeLessThan(0);
});

it('wants a speed above zero', () => {
  expect(() => footageSchema.validateSync({ offset: 0, speed: 0, cuts: [] })).toThrow(/1 as filmed/);
});
