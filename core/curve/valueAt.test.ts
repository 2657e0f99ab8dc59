import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { trackOf } from '../ink/track';
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
    expect(gain.bounds).toEqual({ low: values[3], high: values[4] });
    const slope = ((values[4] ?? 0) - (values[3] ?? 0)) / 335;
    expect(gain.margin).toBeCloseTo(Math.sqrt((35 * slope) ** 2 + 1 / 12), 9);
  });

  it('is what was seen, give or take the display, when a reading falls on it', () => {
    expect(known(gainAt(at(times, [2, 8, 16, 24, 33, 50]), 1800))).toMatchObject({ value: 48, bounds: { low: 48, high: 48 } });
  });

  it('is a gain, not a level: it wants the level at plug-in', () => {
    expect(gainAt(at([150, 900], [1, 30]), 600).state).toBe('start unknown');
    expect(levelAt(at([150, 900], [1, 30]), 525)?.value).toBeCloseTo(15.5, 9);
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
