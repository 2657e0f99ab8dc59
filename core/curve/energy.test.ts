import { sum } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { energy } from './energy';
import { medianInterval } from '../samples/column';

const watts = (...rows: [seconds: number, watts: number][]) => trackOf(rows.map(([seconds, value]) => ({ seconds, value })));

describe('energy under the watts that were seen', () => {
  // Common practice, no source: a render at 20 V × 1.8 A for 5 min takes about 3 Wh.
  it('is 3 Wh for 36 W over five minutes', () => {
    const { wattHours, averageWatts, covered } = energy(watts([0, 36], [150, 36], [300, 36]), 300);
    expect(wattHours).toBeCloseTo(3, 9);
    expect(averageWatts).toBeCloseTo(36, 9);
    expect(covered).toBe(300);
  });

  it('is the area of a triangle for a power that falls evenly', () => {
    expect(energy(watts([0, 20], [900, 15], [3600, 0]), 3600).wattHours).toBeCloseTo((17.5 * 900 + 7.5 * 2700) / 3600, 9);
  });

  // Closed form: a power falling as exp(−t ÷ τ) carries P₀ τ (1 − exp(−T ÷ τ)); trapezoids of step h err by about h² ÷ 12τ².
  it('follows the closed form of a constant-voltage taper', () => {
    const [peak, tau, step] = [18, 1500, 60];
    const rows = Array.from({ length: 121 }, (_, index) => [index * step, peak * Math.exp((-index * step) / tau)] as [number, number]);
    const closed = (peak * tau * (1 - Math.exp(-7200 / tau))) / 3600;
    expect(energy(watts(...rows), 7200).wattHours / closed - 1).toBeCloseTo(step ** 2 / (12 * tau ** 2), 6);
  });

  it('leaves out a gap over three median intervals, and says so', () => {
    const { wattHours, unseen, covered, averageWatts } = energy(watts([0, 10], [300, 10], [600, 10], [1800, 10], [2100, 10]), 2100);
    expect(unseen).toEqual([{ from: 600, to: 1800 }]);
    expect(covered).toBe(900);
    expect(wattHours).toBeCloseTo(2.5, 9);
    expect(averageWatts).toBeCloseTo(10, 9);
  });

  it('knows nothing from a single value', () => {
    expect(energy(watts([0, 10]), 600)).toMatchObject({ wattHours: 0, averageWatts: undefined, covered: 0 });
    expect(medianInterval(watts([0, 10]))).toBeUndefined();
  });

  it('adds up whichever way it is cut', () => {
    const rows = watts([0, 8], [60, 12], [120, 9], [180, 4]);
    const parts = [0, 1, 2].map((at) => {
      const pair = watts(...([at, at + 1].map((index) => [rows.seconds[index], rows.values[index]]) as [number, number][]));
      return energy(pair, 60).wattHours;
    });
    expect(sum(parts)).toBeCloseTo(energy(rows, 180).wattHours, 12);
  });
});

it('counts what flows out apart from what flows in: a meter on a device that drains tells watts below zero', () => {
  const drained = trackOf([
    { seconds: 0, value: 6 },
    { seconds: 3600, value: -6 },
    { seconds: 7200, value: -6 },
  ]);
  // Half an hour from 6 W to nothing is 1.5 Wh in; the way down to −6 W and an hour of it are 7.5 Wh out.
  const sum = energy(drained, 7200);
  expect([sum.wattHours, sum.wattHoursOut, sum.averageWatts]).toEqual([1.5, 7.5, -3]);
});
