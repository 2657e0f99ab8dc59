import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf } from '../ink/build';
import { segmentsOf, taperOf, type Penalty, type Segment, type Series } from './segments';
import { stagesOf, writeStages } from './stages';
import { timeMeans } from './timeMeans';

const header = exampleHeader();

/** A log once a second of a power that is a function of the second. */
function logged(length: number, watts: (second: number) => number, volts?: (second: number) => number) {
  const seconds = Float64Array.from({ length: length + 1 }, (_, index) => index);
  const column = (of: (second: number) => number) => ({ seconds, values: Float64Array.from(seconds, of) });
  return foldRun(header, [], { watts: column(watts), ...(volts && { volts: column(volts) }) });
}
/** Noise that is the same at every run of the tests, from −1 to 1. */
const wobble = (second: number) => Math.sin(second * 12.9898) * Math.cos(second * 78.233);

describe('the stages of a charge', () => {
  it('are those of the phone limited to 9 V and 3 A, within 1 min and 1 W', () => {
    // Common practice, no source: 26 W held 17 min, then 19 and 14 W, 5 V from 47 min, full at 108 min.
    const phone = logged(
      108 * 60,
      (second) => {
        const minute = second / 60;
        const power = minute < 17 ? 26 : minute < 31 ? 19 : minute < 47 ? 14 : 0.6 + 9 * Math.exp(-(minute - 47) / 18);
        return power + 0.15 * wobble(second);
      },
      (second) => (second < 47 * 60 ? 9 : 5),
    );
    const stages = stagesOf(phone);
    expect(stages.map(({ kind }) => kind)).toEqual(['steady', 'steady', 'steady', 'taper']);
    for (const [index, [minute, watts, volts]] of (
      [
        [17, 26, 9],
        [31, 19, 9],
        [47, 14, 9],
      ] as const
    ).entries()) {
      expect(Math.abs((stages[index]?.to ?? 0) - minute * 60)).toBeLessThanOrEqual(60);
      expect(Math.abs((stages[index]?.watts ?? 0) - watts)).toBeLessThanOrEqual(1);
      expect(stages[index]?.volts).toBeCloseTo(volts, 1);
    }
    expect(stages.at(-1)?.first).toBeCloseTo(9.6, 0);
    expect(writeStages(stages)).toBe(
      'holds about 26.0 W for 17 min, then 19.0 W for 14 min, then 14.0 W for 16 min, then tapers from 9.6 to 0.9 W over 1 h 01',
    );
  });

  it('are one where power never changes, and the taper alone where it only falls', () => {
    expect(stagesOf(logged(3600, (second) => 18 + 0.2 * wobble(second))).map(({ kind }) => kind)).toEqual(['steady']);
    // Closed form: the constant-voltage phase of an ideal cell falls as exp(−t ÷ τ).
    const [only, ...others] = stagesOf(logged(3600, (second) => 20 * Math.exp(-second / 900)));
    expect([only?.kind, others]).toEqual(['taper', []]);
    expect(only?.first).toBeCloseTo(20, 0);
  });

  it('are read from checks five minutes apart as well, as finely as those are', () => {
    const rows = Array.from({ length: 20 }, (_, index) => ({ seconds: index * 300, percent: 5 + 4 * index, watts: index < 8 ? 25 : 15 }));
    const stages = stagesOf(foldRun(header, inkOf(header, rows)));
    expect(stages).toHaveLength(2);
    expect(Math.abs((stages[0]?.to ?? 0) - 7.5 * 300)).toBeLessThanOrEqual(300);
    expect(stages[1]?.level.to).toBe(81);
  });
});

/** What the best taper from one bin to the end leaves. */
const taperFrom = (series: Series, bin: number): number =>
  taperOf(
    series,
    Array.from({ length: series.values.length }, (_, each) => (each === bin ? 0 : Infinity)),
    Infinity,
  )?.total ?? Infinity;

/** Every way to cut a series, with the same cost: what the dynamic programme must not be beaten by. */
function exhaustive(series: Series, { each, taper, least }: Penalty): number {
  const count = series.values.length;
  const constant = (from: number, to: number) => {
    let [mass, sum] = [0, 0];
    for (let bin = from; bin < to; bin += 1) {
      mass += series.weights[bin] ?? 0;
      sum += (series.weights[bin] ?? 0) * (series.values[bin] ?? 0);
    }
    let cost = 0;
    for (let bin = from; bin < to; bin += 1)
      cost += (series.weights[bin] ?? 0) * ((series.values[bin] ?? 0) - (mass > 0 ? sum / mass : 0)) ** 2;
    return cost;
  };
  const from = (start: number): number => {
    if (start === count) return 0;
    let best = count - start >= least ? taperFrom(series, start) + taper : Infinity;
    for (let to = start + least; to <= count; to += 1) best = Math.min(best, constant(start, to) + each + from(to));
    return best;
  };
  return from(0);
}

function costOf(series: Series, pieces: readonly Segment[], { each, taper }: Penalty): number {
  return pieces.reduce((total, { from, to, first, isTaper }) => {
    if (isTaper) return total + taperFrom(series, from) + taper;
    let cost = each;
    for (let bin = from; bin < to; bin += 1) cost += (series.weights[bin] ?? 0) * ((series.values[bin] ?? 0) - first) ** 2;
    return total + cost;
  }, 0);
}

it('are the cheapest of all ways to cut a series (exhaustive search)', () => {
  const bin = fc.record({ value: fc.double({ min: 0, max: 30, noNaN: true }), weight: fc.constantFrom(0, 0.5, 1, 1, 1) });
  fc.assert(
    fc.property(
      fc.array(bin, { minLength: 4, maxLength: 11 }),
      fc.integer({ min: 1, max: 3 }),
      fc.double({ min: 0.1, max: 60, noNaN: true }),
      (bins, least, each) => {
        const series = { values: bins.map(({ value }) => value), weights: bins.map(({ weight }) => weight) };
        const penalty = { each, taper: each * 1.5, least };
        const pieces = segmentsOf(series, penalty);
        expect(pieces.map(({ from }) => from)).toEqual([0, ...pieces.slice(0, -1).map(({ to }) => to)]);
        expect(pieces.at(-1)?.to).toBe(bins.length);
        const [found, best] = [costOf(series, pieces, penalty), exhaustive(series, penalty)];
        expect(Math.abs(found - best)).toBeLessThan(1e-6 * (1 + best));
      },
    ),
    { numRuns: 150 },
  );
});

/** The cheapest constants by weighing every border of every length, which the search leaves out where it can. */
function plainly({ values, weights }: Series, { each, least }: Penalty): number {
  const cheapest = [0];
  for (let to = 1; to <= values.length; to += 1) {
    let best = Infinity;
    let [mass, sum, square] = [0, 0, 0];
    for (let from = to - 1; from >= 0; from -= 1) {
      const [weight, value] = [weights[from] ?? 0, values[from] ?? 0];
      [mass, sum, square] = [mass + weight, sum + weight * value, square + weight * value * value];
      if (to - from >= least)
        best = Math.min(best, (cheapest[from] ?? Infinity) + each + Math.max(0, mass > 0 ? square - sum ** 2 / mass : 0));
    }
    cheapest[to] = best;
  }
  return cheapest.at(-1) ?? Infinity;
}

it('are as cheap as where no border is left out, on long series with steps and noise', () => {
  const series = fc
    .array(fc.record({ level: fc.integer({ min: 0, max: 30 }), bins: fc.integer({ min: 1, max: 40 }) }), { minLength: 2, maxLength: 8 })
    .chain((pieces) => {
      const levels = pieces.flatMap(({ level, bins }) => Array.from({ length: bins }, () => level));
      const noise = fc.array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: levels.length, maxLength: levels.length });
      const weights = fc.array(fc.constantFrom(0, 0.5, 1, 1, 1), { minLength: levels.length, maxLength: levels.length });
      return fc.record({ values: noise.map((all) => all.map((each, bin) => each + (levels[bin] ?? 0))), weights });
    })
    .filter(({ values }) => values.length >= 12);
  fc.assert(
    fc.property(series, fc.integer({ min: 1, max: 12 }), fc.double({ min: 0.5, max: 200, noNaN: true }), (all, least, each) => {
      const penalty = { each, taper: Infinity, least };
      const [found, best] = [costOf(all, segmentsOf(all, penalty), penalty), plainly(all, penalty)];
      expect(Math.abs(found - best)).toBeLessThan(1e-6 * (1 + best));
    }),
    { numRuns: 120 },
  );
});

it('rest on time means whose sum is the area under the line', () => {
  const column = { seconds: [0, 4, 25, 61, 100, 1000, 1010], values: [3, 5, 4, 8, 8, 1, 0] };
  const { width, means, seen } = timeMeans(column, [{ from: 100, to: 1000 }]);
  const area = means.reduce((sum, mean, bin) => sum + mean * (seen[bin] ?? 0) * width, 0);
  // Trapezoids by hand: 16 + 94.5 + 216 + 312 + 5.
  expect(area).toBeCloseTo(643.5, 6);
});
