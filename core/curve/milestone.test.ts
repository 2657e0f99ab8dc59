import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { milestone } from './milestone';

/** Levels by minute. */
const levels = (...rows: [minutes: number, percent: number][]) =>
  trackOf(rows.map(([minutes, value]) => ({ seconds: minutes * 60, value })));
const reached = (...given: Parameters<typeof milestone>) => {
  const found = milestone(...given);
  if (found.state !== 'reached') throw new Error(found.state);
  return found;
};

describe('when a level was first shown', () => {
  // Common practice, no source: a 12 W charger passes 50 % near 50 min on a phone with 85 % health.
  it('lies between the check before it and the first that shows it', () => {
    const fifty = reached(levels([0, 0], [45, 46], [50, 51], [55, 56]), 50);
    expect(fifty.bounds).toEqual({ low: 2700, high: 3000 });
    expect(fifty.estimate).toBeCloseTo(2700 + (300 * (50 - 46.5)) / 5, 9);
    // GUM 4.3.7, from memory: interval ÷ √12.
    expect(fifty.uncertainty).toBeCloseTo(300 / Math.sqrt(12), 9);
    expect(fifty.working.uses.map(({ value }) => value)).toEqual([46, 51]);
  });

  it('is the midpoint of the bounds for 100 %, and first seen at the later', () => {
    const full = reached(levels([0, 2], [105, 99], [115, 100]), 100);
    expect(full.bounds.high).toBe(115 * 60);
    expect(full.estimate).toBe(110 * 60);
  });

  it('stays inside the bounds where the middles would leave them', () => {
    expect(reached(levels([0, 79.9], [5, 80]), 80).estimate).toBe(0);
  });

  it('has no time when it started above or was never shown', () => {
    expect(milestone(levels([0, 55], [5, 60]), 50).state).toBe('started above');
    const never = milestone(levels([0, 10], [60, 81]), 100);
    expect(never).toMatchObject({ state: 'not reached', bounds: { low: 3600, high: Infinity } });
    expect(milestone(levels(), 50).state).toBe('no levels');
  });

  it('counts the first passage when percentages fall again', () => {
    expect(reached(levels([0, 70], [5, 81], [10, 78], [15, 83]), 80).bounds.high).toBe(300);
  });
});

const rising = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 0, max: 9 })), { minLength: 2, maxLength: 30 })
  .map((steps) => {
    let [seconds, value] = [0, 0];
    return [
      { seconds, value },
      ...steps.map(([wait, gain]) => ({ seconds: (seconds += wait), value: (value = Math.min(100, value + gain)) })),
    ];
  });

it('never puts the estimate outside the bounds', () => {
  fc.assert(
    fc.property(rising, fc.integer({ min: 1, max: 100 }), (rows, level) => {
      const found = milestone(trackOf(rows), level);
      return found.state !== 'reached' || (found.estimate >= found.bounds.low && found.estimate <= found.bounds.high);
    }),
  );
});

it('never widens its bounds for a further reading of rising percentages', () => {
  fc.assert(
    fc.property(rising, fc.integer({ min: 1, max: 100 }), fc.nat(), (rows, level, pick) => {
      const extra = rows[pick % rows.length];
      const fewer = milestone(trackOf(rows.filter((row) => row !== extra)), level);
      const more = milestone(trackOf(rows), level);
      if (!('bounds' in fewer) || !('bounds' in more)) return true;
      return more.bounds.low >= fewer.bounds.low && more.bounds.high <= fewer.bounds.high;
    }),
  );
});
