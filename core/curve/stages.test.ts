import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf } from '../ink/build';
import { segmentsOf, type Penalty, type Segment, type Series } from './segments';
import { stagesOf, writeStages } from './stages';
import { timeMeans } from './timeMeans';

const header = exampleHeader();

/** A log once a second of a power that is a function of the second. */
function logged(length: number, watts: (second: number) => number, volts?: (second: number) => number) {
  const seconds = Float64Array.from({ length: length + 1 }, (_, index) => index);
  const column = (of: (second: number) => number) => ({ seconds, values: Float64Array.from(seconds, of) });
  return foldRun(header, [], { watts: column(watts), ...(volts && { volts: column(volts) }) });
}
/** Normal noise that is the same at every run of the tests: a linear congruence (Numerical Recipes, 7.1) by Box and Muller. */
function random(seed: number): () => number {
  let state = seed;
  const even = () => (state = (state * 1664525 + 1013904223) % 2 ** 32) / 2 ** 32;
  return () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even());
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
      'holds about 26.0 W for 17 min, then 19.0 W for 14 min, then 14.0 W for 16 min, then tapers from 9.5 to 0.9 W over 1 h 01',
    );
  });

  it('are one where power never changes, and the taper alone where it only falls', () => {
    expect(stagesOf(logged(3600, (second) => 18 + 0.2 * wobble(second))).map(({ kind }) => kind)).toEqual(['steady']);
    // Closed form: the constant-voltage phase of an ideal cell falls as exp(−t ÷ τ).
    const [only, ...others] = stagesOf(logged(3600, (second) => 20 * Math.exp(-second / 900)));
    expect([only?.kind, others]).toEqual(['taper', []]);
    expect(only?.first).toBeCloseTo(20, 0);
  });

  it('are told apart by what they are: one that is held, one that rests, one that falls, and one that falls too little', () => {
    // Held at 80 % for 50 min with little power, as an adaptive setting does, then on to full.
    const kinds = (length: number, watts: (second: number) => number, percent: (second: number) => number) => {
      const seconds = Float64Array.from({ length: length / 10 + 1 }, (_, index) => index * 10);
      const column = (of: (second: number) => number) => ({ seconds, values: Float64Array.from(seconds, of) });
      return stagesOf(foldRun(header, [], { watts: column(watts), percent: column((second) => Math.floor(percent(second))) }));
    };
    const held = kinds(
      6600,
      (second) => (second < 1800 ? 20 : second < 4800 ? 0.4 : 15),
      (second) => (second < 1800 ? 20 + second / 30 : second < 4800 ? 80 : 80 + (second - 4800) / 90),
    );
    expect(held.map(({ kind }) => kind)).toEqual(['steady', 'hold', 'steady']);
    expect(writeStages(held)).toBe('holds about 20.0 W for 30 min, then is held for 50 min, then 15.0 W for 30 min');
    // The same at 60 %, where no setting holds: it rests.
    const rests = kinds(
      6600,
      (second) => (second < 1800 ? 20 : second < 4800 ? 0.02 : 15),
      (second) => (second < 1800 ? second / 30 : second < 4800 ? 60 : 60 + (second - 4800) / 90),
    );
    expect(rests.map(({ kind }) => kind)).toEqual(['steady', 'idle', 'steady']);
    // No more than half of what is called steady was a hold, if it was held for less than half of it.
    const briefly = kinds(
      7200,
      (second) => (second < 7200 ? 1.2 : 15),
      (second) => (second < 1500 ? 80 : Math.min(99, 80 + (second - 1500) / 200)),
    );
    expect(briefly.map(({ kind }) => kind)).toEqual(['steady']);
    // 2 % less after half an hour is steady; a quarter less is a taper.
    expect(stagesOf(logged(1800, (second) => 20 - (0.3 * second) / 1800)).map(({ kind }) => kind)).toEqual(['steady']);
    const [taper, ...more] = stagesOf(logged(1800, (second) => 20 - (5 * second) / 1800));
    expect(more).toEqual([]);
    expect(taper).toMatchObject({ kind: 'taper', share: 1 });
    expect(taper?.first).toBeCloseTo(20, 1);
    expect(taper?.last).toBeCloseTo(15, 1);
    // Power that rises is no taper.
    expect(stagesOf(logged(1800, (second) => 15 + (5 * second) / 1800)).map(({ kind }) => kind)).not.toContain('taper');
  });

  it('are a minute long at least in a short charge that was read closely, else two', () => {
    const stepped = (second: number) => (second < 600 ? 20 : second < 690 ? 12 : 6);
    const watts = (length: number, step: number) => {
      const seconds = Float64Array.from({ length: length / step + 1 }, (_, index) => index * step);
      return stagesOf(foldRun(header, [], { watts: { seconds, values: Float64Array.from(seconds, stepped) } })).map((each) =>
        Math.round(each.watts),
      );
    };
    expect(watts(1500, 1)).toEqual([20, 12, 6]);
    expect(watts(1500, 15)).toEqual([20, 6]);
    expect(watts(3600, 1)).toEqual([20, 6]);
  });

  it('that are alike but for a moment between them are one, and three checks are none', () => {
    const blink = stagesOf(logged(3600, (second) => (second > 1800 && second < 1830 ? 4 : 20 + 0.1 * wobble(second))));
    expect(blink.map(({ kind, from, to }) => [kind, from, to])).toEqual([['steady', 0, 3600]]);
    const checks = (...watts: number[]) =>
      stagesOf(
        foldRun(
          header,
          inkOf(
            header,
            watts.map((each, index) => ({ seconds: index * 300, watts: each })),
          ),
        ),
      );
    expect(checks(20, 20, 20)).toEqual([]);
    expect(checks(20, 20, 20, 20).map(({ kind, watts }) => [kind, watts])).toEqual([['steady', 20]]);
  });

  it('are read from checks five minutes apart as well, as finely as those are', () => {
    const rows = Array.from({ length: 20 }, (_, index) => ({ seconds: index * 300, percent: 5 + 4 * index, watts: index < 8 ? 25 : 15 }));
    const stages = stagesOf(foldRun(header, inkOf(header, rows)));
    expect(stages).toHaveLength(2);
    expect(Math.abs((stages[0]?.to ?? 0) - 7.5 * 300)).toBeLessThanOrEqual(300);
    expect(stages[1]?.level.to).toMatchObject({ percent: 81, isRead: true });
  });

  it('are one taper where power falls all along, however it does, and one stage where it is flat in noise', () => {
    const noise = random(7);
    const shapes: ((share: number) => number)[] = [
      (share) => 28 * (1 - share),
      (share) => 28 * (1 - share) ** 2,
      (share) => 28 * (1 - share ** 2),
      (share) => 28 * Math.cos((share * Math.PI) / 2),
      (share) => 28 * Math.exp(-4 * share),
    ];
    let [invented, runs] = [0, 0];
    for (const shape of shapes)
      for (const off of [0, 0.003, 0.01, 0.03])
        for (const length of [1200, 3600, 7200]) {
          const found = stagesOf(logged(length, (second) => Math.max(0, shape(second / length) + off * 28 * noise())));
          // Power that is all but gone at the end is told as idle.
          invented += found.filter(({ kind }) => kind === 'steady').length;
          expect(found.filter(({ kind }) => kind === 'taper').length).toBeGreaterThanOrEqual(1);
          runs += 1;
        }
    expect(invented / runs).toBeLessThanOrEqual(0.2);
    // 28 W to nothing, evenly: it was 13 or 14 stages.
    expect(stagesOf(logged(6000, (second) => 28 * (1 - second / 6000))).map(({ kind }) => kind)).toEqual(['taper']);
    expect(stagesOf(logged(7200, () => 20 + 2 * noise())).map(({ kind }) => kind)).toEqual(['steady']);
  });

  it('are every true step of 8 % that lasts 3 min, at its second', () => {
    const noise = random(99);
    let [steps, seen, near] = [0, 0, 0];
    for (let round = 0; round < 40; round += 1) {
      const levels = [40, 34, 40, 22, 9].slice(0, 2 + (round % 4));
      const lengths = levels.map((_, index) => 180 + ((round * 97 + index * 389) % 2400));
      const edges = lengths.map((_, index) => lengths.slice(0, index + 1).reduce((all, each) => all + each, 0));
      const off = [0.003, 0.01, 0.03][round % 3] ?? 0;
      const watts = (second: number) => levels[edges.findIndex((edge) => second < edge)] ?? levels.at(-1) ?? 0;
      const found = stagesOf(logged(edges.at(-1) ?? 0, (second) => watts(second) + off * 40 * noise()));
      for (const edge of edges.slice(0, -1)) {
        const far = Math.min(...found.slice(1).map(({ from }) => Math.abs(from - edge)));
        [steps, seen, near] = [steps + 1, seen + (far <= 60 ? 1 : 0), near + (far <= 10 ? 1 : 0)];
      }
    }
    expect(seen / steps).toBeGreaterThanOrEqual(0.95);
    expect(near / seen).toBeGreaterThanOrEqual(0.95);
  });

  it('never show more watts than were read, nor a level that nobody looked at', () => {
    const rows = Array.from({ length: 30 }, (_, index) => ({
      seconds: index * 60,
      watts: index < 15 ? 27 : 12,
      ...(index === 0 && { percent: 85 }),
    }));
    const stages = stagesOf(foldRun(header, inkOf(header, rows)));
    expect(Math.max(...stages.flatMap(({ watts, first, last }) => [watts, first, last]))).toBeLessThanOrEqual(27);
    expect(stages.map(({ level }) => [level.from?.percent, level.to?.percent])).toEqual([
      [85, undefined],
      [undefined, undefined],
    ]);
  });
});

/** Series of steps, slopes and noise, with bins in which nothing was seen. */
const SERIES = fc
  .array(
    fc.record({ level: fc.integer({ min: 0, max: 30 }), slope: fc.constantFrom(0, 0, -0.3, 0.2), bins: fc.integer({ min: 1, max: 25 }) }),
    {
      minLength: 2,
      maxLength: 5,
    },
  )
  .chain((pieces) => {
    const levels = pieces.flatMap(({ level, slope, bins }) => Array.from({ length: bins }, (_, at) => level + slope * at));
    const whole = { minLength: levels.length, maxLength: levels.length };
    return fc.record({
      values: fc.array(fc.double({ min: -2, max: 2, noNaN: true }), whole).map((all) => all.map((each, bin) => each + (levels[bin] ?? 0))),
      weights: fc.array(fc.constantFrom(0, 0.5, 1, 1, 1), whole),
    });
  });

/** Least squares of some bins by their normal equations: of a constant, or of a straight line. */
function misfit({ values, weights }: Series, from: number, to: number, isLine: boolean): number {
  const bins = Array.from({ length: to - from }, (_, index) => from + index).filter((bin) => (weights[bin] ?? 0) > 0);
  const total = (of: (bin: number) => number) => bins.reduce((all, bin) => all + (weights[bin] ?? 0) * of(bin), 0);
  const y = (bin: number) => values[bin] ?? 0;
  const mass = total(() => 1);
  if (mass === 0) return 0;
  const [x, mean] = [total((bin) => bin) / mass, total(y) / mass];
  const wide = total((bin) => (bin - x) ** 2);
  const slope = isLine && wide > 0 ? total((bin) => (bin - x) * (y(bin) - mean)) / wide : 0;
  return total((bin) => (y(bin) - mean - slope * (bin - x)) ** 2);
}

/** The dynamic programme once more, plainly: every border of every piece is weighed. */
function plainly(series: Series, { constant, line }: Penalty): number {
  const cheapest = [0];
  for (let to = 1; to <= series.values.length; to += 1) {
    const every = cheapest.map(
      (spent, from) => spent + Math.min(misfit(series, from, to, false) + constant, misfit(series, from, to, true) + line),
    );
    cheapest.push(Math.min(...every));
  }
  return cheapest.at(-1) ?? Infinity;
}

it('are described as cheaply as by an exact dynamic programme, on 300 series', () => {
  const costOf = (series: Series, pieces: readonly Segment[], { constant, line }: Penalty) =>
    pieces.reduce((total, { from, to, isLine }) => total + misfit(series, from, to, isLine) + (isLine ? line : constant), 0);
  fc.assert(
    fc.property(
      SERIES,
      fc.double({ min: 0.5, max: 100, noNaN: true }),
      fc.double({ min: 1, max: 2, noNaN: true }),
      (series, constant, dearer) => {
        const penalty = { constant, line: constant * dearer };
        const pieces = segmentsOf(series, penalty);
        expect(pieces.map(({ from }) => from)).toEqual([0, ...pieces.slice(0, -1).map(({ to }) => to)]);
        expect(pieces.at(-1)?.to).toBe(series.values.length);
        const [found, best] = [costOf(series, pieces, penalty), plainly(series, penalty)];
        expect(Math.abs(found - best)).toBeLessThan(1e-6 * (1 + best));
      },
    ),
    { numRuns: 300 },
  );
});

it('rest on time means whose sum is the area under the line', () => {
  const column = { seconds: [0, 4, 25, 61, 100, 1000, 1010], values: [3, 5, 4, 8, 8, 1, 0] };
  const { width, means, seen } = timeMeans(column, [{ from: 100, to: 1000 }]);
  const area = means.reduce((sum, mean, bin) => sum + mean * (seen[bin] ?? 0) * width, 0);
  // Trapezoids by hand: 16 + 94.5 + 216 + 312 + 5.
  expect(area).toBeCloseTo(643.5, 6);
});
