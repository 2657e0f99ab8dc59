import { sum } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { accuracyOf, countedEnergy, energy, unseenSpans } from './energy';

const watts = (...rows: [seconds: number, watts: number][]) => trackOf(rows.map(([seconds, value]) => ({ seconds, value })));

it('by a counter is off by its share, and by its last digit at either end', () => {
  // JCGM 100:2008 (GUM) 4.3.7 and 5.1.2: half-widths of 1 % of 10 Wh and of 0.1 Wh twice, as rectangles: √((0.1² + 2 × 0.1²) ÷ 3).
  const found = countedEnergy(10, 1800, 3600, 0.01, 0.1);
  expect(found.uncertainty).toBeCloseTo(0.1, 9);
  expect(found).toMatchObject({ wattHours: 10, averageWatts: 20, covered: 1800, whole: 3600, unseen: [], isCounted: true });
  expect(found.averageUncertainty).toBeCloseTo(0.2, 9);
  expect(countedEnergy(0, 0, 3600, 0.01, 0.1).averageUncertainty).toBe(0);
});

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

  it('leaves out a gap over three times the longer interval beside it, and says so', () => {
    const { wattHours, unseen, covered, averageWatts } = energy(watts([0, 10], [300, 10], [600, 10], [1800, 10], [2100, 10]), 2100);
    expect(unseen).toEqual([{ from: 600, to: 1800 }]);
    expect(covered).toBe(900);
    expect(wattHours).toBeCloseTo(2.5, 9);
    expect(averageWatts).toBeCloseTo(10, 9);
  });

  it('knows nothing from a single value', () => {
    expect(energy(watts([0, 10]), 600)).toMatchObject({ wattHours: 0, averageWatts: undefined, covered: 0 });
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

describe('what of the watts is unseen', () => {
  const run = (cadence: { kind: 'fixed'; every: number } | undefined, ...minutes: number[]) => {
    const header = exampleHeader({ cadence });
    return foldRun(
      header,
      inkOf(
        header,
        minutes.map((minute) => ({ seconds: minute * 60, percent: 1, watts: 10 })),
      ),
    );
  };
  // The fault that led to the rule: ten-minute checks, fine near the end, left nine tenths of a charge out.
  it('goes by the plan, so that fine checks near the end discard nothing', () => {
    const times = [0, 10, 20, 30, 40, 41, 42, 43, 44, 45, 46, 47, 48, 49, 50];
    expect(unseenSpans(run({ kind: 'fixed', every: 600 }, ...times))).toEqual([]);
    expect(unseenSpans(run(undefined, ...times))).toEqual([]);
    expect(unseenSpans(run({ kind: 'fixed', every: 600 }, 0, 10, 45, 55))).toEqual([{ from: 600, to: 2700 }]);
  });
});

describe('the margin of an energy', () => {
  // GUM 4.3.7: a meter off by at most 1 % + 2 digits of 0.1 W, and a sum between its lower and its upper rectangles, each ÷ √3.
  it('is that of the meter and of what lies between readings', () => {
    const rows = watts([0, 20.1], [3600, 10.1]);
    const { uncertainty, wattHours } = energy(rows, 3600);
    expect(wattHours).toBeCloseTo(15.1, 9);
    expect(uncertainty).toBeCloseTo(Math.hypot(0.151 + 0.2, (20.1 - 10.1) / 2) / Math.sqrt(3), 9);
  });

  it('goes by what the meter states, of volts and of amps', () => {
    const meter = { id: 'm', name: 'one', accuracyPercent: 0.5, accuracyDigits: 1 };
    expect(accuracyOf(meter, watts([0, 20.15]))).toEqual({ share: 0.01, watts: 0.01 });
    expect(accuracyOf(undefined, watts([0, 20]))).toEqual({ share: 0.01, watts: 0.7 });
  });

  it('shrinks as readings are taken closer', () => {
    const taper = (step: number) =>
      watts(...Array.from({ length: 3600 / step + 1 }, (_, index): [number, number] => [index * step, 18 - (index * step) / 300]));
    expect(energy(taper(60), 3600, [], { share: 0, watts: 0 }).uncertainty).toBeLessThan(
      energy(taper(600), 3600, [], { share: 0, watts: 0 }).uncertainty / 9,
    );
  });
});
