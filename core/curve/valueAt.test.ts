import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { AS_READ, type Levels } from './pace';
import { gainAt, levelAt, type Gain } from './valueAt';

const at = (seconds: number[], values: number[]) => trackOf(seconds.map((each, index) => ({ seconds: each, value: values[index] ?? 0 })));
const known = (gain: Gain) => {
  if (gain.state !== 'known') throw new Error(gain.state);
  return gain;
};

describe('what was gained by a nominal time', () => {
  // Common practice, no source: three phones on 10 / 20 / 50 W, read at 5, 10, 14:25, 20 and 30 min.
  const times = [0, 300, 600, 865, 1200, 1800];
  it.each([
    [10, [0, 5, 8, 13, 18, 28], 13.52],
    [20, [0, 8, 16, 24, 33, 50], 24.94],
    [50, [0, 11, 33, 50, 67, 93], 51.78],
  ])('is read off between the checks at 14:25 and 20 min on %i W', (_watts, values, expected) => {
    const gain = known(gainAt(at(times, values), 900));
    expect(gain.value).toBeCloseTo(expected, 2);
    // No faster than three times its mean up to 20 min, assumed: it has no pace here.
    expect(gain.bounds.low).toBe(values[3]);
    expect(gain.bounds.high).toBeCloseTo((values[3] ?? 0) + (3 * (values[4] ?? 0) * 35) / 1200, 9);
    // Rounding of both ends, and a quarter of what is left between the two checks ÷ √3.
    const range = gain.bounds.high - gain.bounds.low;
    expect(gain.uncertainty).toBeCloseTo(Math.hypot(1 / Math.sqrt(6), range / 4 / Math.sqrt(3)), 9);
  });

  it('is what was seen, give or take the display, when a reading falls on it', () => {
    expect(known(gainAt(at(times, [2, 8, 16, 24, 33, 50]), 1800))).toMatchObject({ value: 48, bounds: { low: 48, high: 48 } });
  });

  it('is a gain, not a level: it wants the level at plug-in', () => {
    expect(gainAt(at([150, 900], [1, 30]), 600).state).toBe('start unknown');
    expect(levelAt(at([150, 900], [1, 30]), 525)?.value).toBeCloseTo(15.5, 9);
  });

  // The fault that led to the rule: a check at 59:58 voided the hour.
  it('is carried on over a tenth of an interval that was missed, and no further', () => {
    const hour = at([0, 3300, 3598], [2, 50, 54]);
    const gain = known(gainAt(hour, 3600));
    expect(gain.value).toBeCloseTo(52 + (4 / 298) * 2, 9);
    expect(gain.working.formula).toContain('read a little before');
    expect(gainAt(at([0, 3300, 3565], [2, 50, 54]), 3600).state).toBe('not covered');
    expect(gainAt(at([0, 1800, 3530], [2, 30, 54]), 3600).state).toBe('not covered');
  });

  it('counts from nothing, assumed, where it was dead at plug-in', () => {
    const dead = at([450, 900, 1800], [1, 8, 24]);
    expect(gainAt(dead, 1800).state).toBe('start unknown');
    const gain = known(gainAt(dead, 1800, AS_READ, true));
    expect(gain).toMatchObject({ value: 24, isAssumed: true });
    expect(gain.working.formula).toContain('assumed: dead at plug-in');
    // Nothing was rounded at the start.
    expect(gain.uncertainty).toBeCloseTo(1 / Math.sqrt(12), 9);
  });

  it('is drawn in by the pace, and never known better than 0.15 %', () => {
    const rows = at([0, 300, 600, 900, 1200, 1500], [0, 5, 10, 15, 20, 25]);
    const paced: Levels = { turning: new Set(), pace: { highest: 5 / 300, drawsIn: 6.25 / 300, broken: [] } };
    expect(known(gainAt(rows, 1050, paced)).bounds).toEqual({ low: 16.875, high: 18.125 });
    const turned: Levels = { ...paced, turning: new Set(['a', 'b']) };
    const seen = trackOf([
      { seconds: 0, value: 0, entry: 'a' },
      { seconds: 900, value: 20, entry: 'b' },
    ]);
    expect(known(gainAt(seen, 900, turned)).uncertainty).toBe(0.15);
  });

  it('is not guessed past the last reading', () => {
    expect(gainAt(at(times, [0, 5, 8, 13, 18, 28]), 3600).state).toBe('not covered');
    expect(levelAt(at([300], [20]), 100)).toBeUndefined();
  });
});

it('lies within its bounds and holds them within the readings around it', () => {
  const steps = fc.array(fc.tuple(fc.integer({ min: 1, max: 600 }), fc.integer({ min: 0, max: 12 })), { minLength: 1, maxLength: 20 });
  fc.assert(
    fc.property(steps, fc.double({ min: 0, max: 1, noNaN: true }), (all, share) => {
      let [seconds, value] = [0, 3];
      const rows = [{ seconds, value }, ...all.map(([wait, more]) => ({ seconds: (seconds += wait), value: (value += more) }))];
      const gain = known(gainAt(trackOf(rows), share * seconds));
      expect(gain.value).toBeGreaterThanOrEqual(gain.bounds.low - 1e-9);
      expect(gain.value).toBeLessThanOrEqual(gain.bounds.high + 1e-9);
    }),
  );
});

describe('a window that was read a little late', () => {
  it('is known as well as two displayed levels leave it: it was anything between 0 and 45', () => {
    const late = known(gainAt(at([0, 903], [0, 45]), 900));
    expect(late.bounds.low).toBeCloseTo(45 - (3 * 45 * 3) / 903, 9);
    expect(2 * late.uncertainty).toBeLessThan(0.85);
    expect(late.value).toBeGreaterThan(44.5);
    // A minute late in 15 is another matter, and so is a swap on the way.
    expect(2 * known(gainAt(at([0, 960], [0, 45]), 900)).uncertainty).toBeGreaterThan(1);
    const swapped = { turning: new Set<string>(), pace: { highest: 0, broken: [{ from: 300, to: 300 }] } };
    expect(known(gainAt(at([0, 903], [0, 45]), 900, swapped)).bounds).toEqual({ low: 0, high: 45 });
  });

  it('has gained all that it could where it was full before, whether anybody looked again or not', () => {
    const full = at([0, 1200, 2700], [12, 70, 100]);
    expect(known(gainAt(full, 3600))).toMatchObject({ value: 88, isFull: true, bounds: { low: 88, high: 88 } });
    expect(known(gainAt(full, 2700)).isFull).toBe(true);
    expect(known(gainAt(full, 1800)).isFull).toBeUndefined();
    // It fell again later: on the line between.
    expect(known(gainAt(at([0, 2700, 4500], [12, 100, 97]), 3600)).isFull).toBeUndefined();
  });
});
