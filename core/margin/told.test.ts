import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { student } from './student';
import { assumedSpread, type Spread } from './assumed';
import { checksOfRepeats, difference, pooled, poolsTo, rank, spreadOf, tells, writeRank, type Measured, type Pooled } from './told';

/** Made by core/margin/fixtures/reference.py, which names its command and version. */
const SCIPY = JSON.parse(readFileSync(new URL('fixtures/reference.json', import.meta.url), 'utf8')) as {
  quantiles: { freedom: number; t: number }[];
  welch: { one: number[]; other: number[]; freedom: number; margin: number }[];
};
const KNOWN: Spread = assumedSpread();
/** A time between two checks, in minutes. */
const checked = (latest: number, interval: number): Measured => ({
  value: latest - interval / 2,
  uncertainty: interval / Math.sqrt(12),
  bounds: { low: latest - interval, high: latest },
});
const places = (all: (Measured | undefined)[], better: 'less' | 'more' = 'less', spread = KNOWN) =>
  rank(
    all.map((each) => each && pooled([each], spread)),
    better,
  ).map((each) => each && writeRank(each));
const between = (one: Measured[], other: Measured[], spread = KNOWN) => {
  const [left, right] = [pooled(one, spread), pooled(other, spread)];
  if (!left || !right) throw new Error('no runs');
  return difference(left, right);
};

it('takes Student’s t as scipy does, at fractions of a degree of freedom too', () => {
  for (const { freedom, t } of SCIPY.quantiles) expect(student(freedom)).toBeCloseTo(t, 6);
  expect(student(Infinity)).toBeCloseTo(1.959964, 6);
});

it('counts degrees of freedom and margins as scipy’s Welch interval does, where the spread is all there is', () => {
  for (const { one, other, freedom, margin } of SCIPY.welch) {
    // One estimate of the spread for both: scipy’s pooled test, with Welch’s formula over a single estimated variance.
    const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
    const squares = (values: number[]) => values.reduce((sum, value) => sum + (value - mean(values)) ** 2, 0);
    const of = one.length + other.length - 2;
    const deviation = Math.sqrt((squares(one) + squares(other)) / of);
    const spread: Spread = { sigma: 0, freedom: of };
    const [left, right] = [one, other].map((values) => ({
      value: mean(values),
      spread,
      scale: mean(values),
      runs: values.length,
      checks: values.length,
      uncertainty: deviation / Math.sqrt(values.length),
      varies: deviation ** 2 / values.length,
      isLeast: false,
    }));
    if (!left || !right) throw new Error('no runs');
    const found = difference(left, right);
    expect(found.freedom).toBeCloseTo(freedom, 9);
    expect(found.margin).toBeCloseTo(margin, 6);
  }
});

it('of two estimates of how runs vary takes Welch’s degrees of freedom', () => {
  // Student, The probable error of a mean, Biometrika 6 (1908): hours of sleep gained; the interval is that of R’s t.test(extra ~ group, data = sleep), from memory.
  const gained = [
    [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0, 2],
    [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4],
  ];
  const [left, right] = gained.map((hours): Pooled => {
    const value = hours.reduce((total, each) => total + each, 0) / hours.length;
    const varies = hours.reduce((total, each) => total + (each - value) ** 2, 0) / (hours.length - 1) / hours.length;
    const spread: Spread = { sigma: 0, freedom: hours.length - 1 };
    return {
      value,
      scale: value,
      runs: hours.length,
      checks: hours.length,
      uncertainty: Math.sqrt(varies),
      spread,
      varies,
      isLeast: false,
    };
  });
  if (!left || !right) throw new Error('no runs');
  const { freedom, value, margin, told } = difference(left, right);
  expect(freedom).toBeCloseTo(17.776, 3);
  expect([value - margin, value + margin].map((end) => Number(end.toFixed(6)))).toEqual([-0.205483, 3.365483]);
  expect([told, tells(left, right)]).toEqual(['tie', 'tie']);
});

describe('told apart or tie', () => {
  // Common practice, no source: 5 / 12 / 20 / 30 / 35 W, full at 215, 115, 95, 90, 95 min; the last three are a tie.
  it('ties 20, 30 and 35 W on a phone that takes about 23 W', () => {
    expect(places([215, 115, 95, 90, 95].map((full) => checked(full, 5)))).toEqual(['5', '4', '1=', '1=', '1=']);
  });

  // Common practice, no source: checks every 5 min; 85–90 and 90–95 min touch, so they tie, however little runs vary.
  it('ties two single runs whose bounds touch', () => {
    expect(between([checked(90, 5)], [checked(95, 5)], { sigma: 1e-9, freedom: Infinity }).told).toBe('tie');
    expect(between([checked(90, 5)], [checked(101, 5)], { sigma: 1e-9, freedom: Infinity }).told).toBe('below');
  });

  // GUM and the normal distribution: 3 % of 100 and of 110 min, ±1.96 of their root sum of squares is 8.74 min.
  it('wants more than 95 % of what runs vary by', () => {
    expect(between([checked(100, 0)], [checked(108, 0)])).toMatchObject({ told: 'tie' });
    const apart = between([checked(100, 0)], [checked(110, 0)]);
    expect(apart).toMatchObject({ told: 'below', value: 10, freedom: Infinity });
    expect(apart.margin).toBeCloseTo(1.959964 * Math.hypot(3, 3.3), 4);
  });

  it('says of one that was not seen by the end only that it is above', () => {
    const never: Measured = { value: 300, uncertainty: 0, bounds: { low: 300, high: Infinity }, isLeast: true };
    expect(between([checked(90, 5)], [never]).told).toBe('below');
    expect(between([checked(400, 5)], [never]).told).toBe('tie');
    expect(between([never], [never]).told).toBe('tie');
    expect(places([checked(90, 5), never, checked(95, 5)])).toEqual(['1=', undefined, '1=']);
  });

  it('is the same whichever of two comes first', () => {
    fc.assert(
      fc.property(figure, figure, fc.integer({ min: 1, max: 3 }), (one, other, runs) => {
        const [left, right] = [Array.from({ length: runs }, () => one), [other]];
        const [there, back] = [between(left, right), between(right, left)];
        expect(back.told).toBe(there.told === 'below' ? 'above' : there.told === 'above' ? 'below' : 'tie');
        expect(back.margin).toBeCloseTo(there.margin, 9);
      }),
    );
  });

  // Differences near the quantiles of 8 degrees of freedom and of infinitely many, between which the quick answer has to give way to the whole one.
  it('is told of many pairs as it is told of one', () => {
    const [few, many] = [student(8), student(Infinity)];
    fc.assert(
      fc.property(
        figure,
        fc.oneof(fc.double({ min: 0.9 * many, max: 1.1 * few, noNaN: true }), fc.double({ min: 0, max: 8, noNaN: true })),
        fc.constantFrom(3, 8, 9.5, 40, Infinity),
        fc.integer({ min: 1, max: 3 }),
        (one, apart, freedom, runs) => {
          const spread = { sigma: 0.03, freedom };
          const left = pooled(
            Array.from({ length: runs }, () => one),
            spread,
          );
          const right = left && { ...left, value: left.value + apart * Math.SQRT2 * left.uncertainty, bounds: undefined };
          if (!left || !right) throw new Error('no runs');
          expect(tells(left, right)).toBe(difference(left, right).told);
          expect(tells(right, left)).toBe(difference(right, left).told);
        },
      ),
      { numRuns: 400 },
    );
  });

  it('never tells more with a wider margin', () => {
    fc.assert(
      fc.property(figure, figure, fc.double({ min: 1, max: 3, noNaN: true }), (one, other, factor) => {
        const wider = { ...one, uncertainty: one.uncertainty * factor };
        if (between([one], [other]).told === 'tie') expect(between([wider], [other]).told).toBe('tie');
      }),
    );
  });
});

const figure = fc
  .record({ value: fc.double({ min: 1, max: 500, noNaN: true }), width: fc.double({ min: 0, max: 60, noNaN: true }) })
  .map(({ value, width }) => checked(value + width / 2, width));

describe('the spread of repeats', () => {
  const exact = (value: number): Measured => ({ value, uncertainty: 0 });
  it('is what is assumed while nothing is repeated, and taken as known', () => {
    expect(spreadOf([[exact(100)], [exact(50)]])).toEqual({ sigma: 0.03, freedom: Infinity });
  });

  // docs/numbers.md, Spread: (8 · 0.03² + 1 · s² ÷ m²) ÷ 9 with s² = 8 and m = 102.
  it('is pooled and shrunk towards what is assumed', () => {
    const found = spreadOf([[exact(100), exact(104)], [exact(50)]]);
    expect(found.freedom).toBe(9);
    expect(found.sigma).toBeCloseTo(Math.sqrt((8 * 0.0009 + 8 / 102 ** 2) / 9), 12);
  });

  it('takes off what reading adds, counts coarse readings for less, and is never below 1 %', () => {
    const coarse = (value: number): Measured => ({ value, uncertainty: 3 });
    const found = spreadOf([[coarse(100), coarse(104)]]);
    const weight = (9.3636 / (9.3636 + 9)) ** 2;
    expect(found.freedom).toBeCloseTo(8 + weight, 9);
    expect(found.sigma).toBeCloseTo(Math.sqrt((8 * 0.0009 + (weight * (8 - 9)) / 102 ** 2) / (8 + weight)), 9);
    expect(spreadOf(Array.from({ length: 60 }, () => [exact(80), exact(80), exact(80)])).sigma).toBe(0.01);
  });
});

describe('ranks', () => {
  it('gives 1=, 1=, 2 where ties do not chain', () => {
    expect(places([checked(100, 0), checked(108, 0), checked(116, 0)])).toEqual(['1=', '1=', '2']);
  });

  it('leaves out what has no value, and turns round where more is better', () => {
    expect(places([checked(20, 1), undefined, checked(30, 1)], 'more')).toEqual(['2', undefined, '1']);
  });

  // By definition: 1 + the number surely better, counted one by one.
  it('is 1 + the number surely better, and always has a first', () => {
    fc.assert(
      fc.property(fc.array(figure, { minLength: 1, maxLength: 8 }), (all) => {
        const counted = all.map((mine) => 1 + all.filter((theirs) => theirs !== mine && between([theirs], [mine]).told === 'below').length);
        expect(places(all).map((place) => Number(place?.replace('=', '')))).toEqual(counted);
        expect(counted).toContain(1);
      }),
    );
  });
});

it('what was full can be shown to have gained more, never less, and ties with what was full too', () => {
  const spread = assumedSpread();
  const of = (value: number, isFull = false) =>
    pooled([{ value, uncertainty: 0.4, bounds: { low: value, high: value }, ...(isFull && { isFull }) }], spread) as Pooled;
  // Full at 45 min from 12 %, beside one that gained 87 % by 60: it had been ranked behind it.
  expect(difference(of(80, true), of(99)).told).toBe('tie');
  expect(difference(of(80, true), of(60)).told).toBe('above');
  expect(difference(of(60), of(80, true)).told).toBe('below');
  expect(difference(of(70, true), of(95, true)).told).toBe('tie');
  expect(rank([of(88, true), of(87), of(60)], 'more').map((each) => each && writeRank(each))).toEqual(['1=', '1=', '3']);
});

it('repeats that answered the same check share what reading it leaves open', () => {
  const spread = assumedSpread();
  const check = (low: number, high: number): Measured => ({
    value: (low + high) / 2,
    uncertainty: (high - low) / Math.sqrt(12),
    bounds: { low, high },
  });
  // Three runs read every 15 min, full between the same two checks: 95 % had held 81 %.
  const alike = [check(90, 105), check(90, 105), check(90, 105)];
  expect(checksOfRepeats(alike)).toBe(1);
  expect(checksOfRepeats([check(90, 105), check(105, 120), check(90, 104)])).toBe(2);
  expect(
    checksOfRepeats([
      { value: 5, uncertainty: 0.1 },
      { value: 5, uncertainty: 0.1 },
    ]),
  ).toBe(2);
  const read = 15 ** 2 / 12;
  expect(pooled(alike, spread)?.uncertainty).toBeCloseTo(Math.sqrt((0.03 * 97.5) ** 2 / 3 + read), 6);
  // Their values do not differ at all, and that is no sign that reading made them differ less.
  expect(spreadOf([alike]).sigma).toBeGreaterThan(
    spreadOf([[check(90, 105), check(106, 121), check(122, 137)].map((each) => ({ ...each, value: 97.5 }))]).sigma,
  );
});

/** Sums done by hand: each would come out otherwise by a slip in one sign or one bracket. */
describe('by hand', () => {
  const SIGMA = KNOWN.sigma;
  const read = (value: number, more: Partial<Measured> = {}): Measured => ({ value, uncertainty: 1, ...more });
  const varying =
    (spread: Spread) =>
    (value: number, more: Partial<Pooled> = {}): Pooled => {
      return { value, scale: value, runs: 1, checks: 1, uncertainty: 1, spread, varies: 0, isLeast: false, ...more };
    };

  it('the spread of three repeats: their variance over two, less what reading adds to it, weighed by what is known of them', () => {
    const found = spreadOf([[read(100), read(104), read(108)]]);
    const assumed = (SIGMA * 104) ** 2;
    const weight = 2 * (assumed / (assumed + 1)) ** 2;
    expect(found.freedom).toBeCloseTo(8 + weight, 9);
    expect(found.sigma).toBeCloseTo(Math.sqrt((8 * SIGMA ** 2 + (weight * (16 - 1)) / 104 ** 2) / (8 + weight)), 9);
    // Read at one check, they share what reading leaves open, and none of it is taken off.
    const bounds = { low: 90, high: 110 };
    const shared = spreadOf([[read(100, { bounds }), read(104, { bounds }), read(108, { bounds })]]);
    expect(shared.sigma).toBeCloseTo(Math.sqrt((8 * SIGMA ** 2 + (weight * 16) / 104 ** 2) / (8 + weight)), 9);
  });

  it('the spread of what was not seen, or comes to nothing, is not counted', () => {
    expect(spreadOf([[read(100), read(300, { isLeast: true })]])).toEqual(KNOWN);
    expect(spreadOf([[read(-3), read(3)]])).toEqual(KNOWN);
  });

  it('degrees of freedom to come grow by a share of each repeat', () => {
    expect(poolsTo(0, 4, 4)).toBe(Infinity);
    expect([poolsTo(2, 4, 4), poolsTo(3, 0, 5), poolsTo(4, 3, 1)]).toEqual([8.5, 8, 8 + 4 * 0.75 ** 2]);
  });

  it('the mean of runs: what they vary by and what reading leaves open, over their runs and over their checks', () => {
    const spread: Spread = { sigma: 0.02, freedom: Infinity };
    const mean = pooled([read(100), read(200)], spread);
    expect(mean).toMatchObject({ value: 150, scale: 150, runs: 2, checks: 2, varies: 4.5, isLeast: false });
    expect(mean?.uncertainty).toBeCloseTo(Math.sqrt(4.5 + 0.5), 9);
    expect(mean).not.toHaveProperty('bounds');
    expect(mean).not.toHaveProperty('isFull');
    const bounds = { low: 90, high: 110 };
    expect(pooled([read(100, { bounds }), read(100, { bounds })], spread)?.uncertainty).toBeCloseTo(Math.sqrt(2 + 1), 9);
    expect(pooled([read(100, { bounds })], spread)).toMatchObject({ bounds, isLeast: false });
    expect(pooled([read(100, { isLeast: true }), read(100, { isFull: true })], spread)).toMatchObject({ isLeast: true, isFull: true });
    expect(pooled([], spread)).toBeUndefined();
  });

  it('a difference is that of the figures as they are written, but for one told that would turn round', () => {
    const one = varying({ sigma: 0, freedom: Infinity });
    const shown = (left: Pooled, right: Pooled) => difference(left, right).shown;
    expect(shown(one(10, { shown: 11 }), one(20, { shown: 18 }))).toBe(7);
    expect(shown(one(10), one(20, { shown: 18 }))).toBe(8);
    expect(shown(one(10, { shown: 21 }), one(20, { shown: 18 }))).toBe(10);
    // A tie may turn round: it claims nothing.
    expect(shown(one(10, { shown: 12 }), one(11))).toBe(-1);
  });

  it('degrees of freedom are those of Welch and Satterthwaite, and no end of them where nothing varies', () => {
    const one = varying({ sigma: 0.02, freedom: 8 });
    expect(difference(one(10, { varies: 1 }), one(20, { varies: 1 })).freedom).toBeCloseTo(8, 9);
    expect(difference(one(10, { varies: 0.5 }), one(20, { varies: 0.5 })).freedom).toBeCloseTo(8 * 4, 9);
    expect(difference(one(10), one(20)).freedom).toBe(Infinity);
  });

  it('two single runs lie apart by their bounds as well; a repeat on either side needs that no more', () => {
    const one = varying({ sigma: 0.02, freedom: Infinity });
    const wide = (value: number, more: Partial<Pooled> = {}) => one(value, { bounds: { low: value - 3, high: value + 3 }, ...more });
    expect(difference(wide(100), wide(105)).told).toBe('tie');
    expect(difference(wide(100, { runs: 2 }), wide(105)).told).toBe('below');
    expect(difference(wide(100), wide(105, { runs: 2 })).told).toBe('below');
    // What runs vary by, halved: 0.01 × √(100² + 108²) is 1.47, and the bounds lie 2 apart; at 107 only 1.
    expect(difference(wide(100), wide(108)).told).toBe('below');
    expect(difference(wide(108), wide(100)).told).toBe('above');
    expect(difference(wide(100), wide(107)).told).toBe('tie');
  });

  it('what was not seen by the end is above and never below; it has no place, and loses to what it is above', () => {
    const one = varying({ sigma: 0, freedom: Infinity });
    const least = one(50, { isLeast: true });
    expect([difference(one(10), least).told, difference(one(90), least).told]).toEqual(['below', 'tie']);
    expect(difference(one(90, { isFull: true }), one(100)).told).toBe('tie');
    expect(rank([one(10), least, one(30), one(10)], 'less')).toEqual([
      { place: 1, shared: true },
      undefined,
      { place: 3, shared: false },
      { place: 1, shared: true },
    ]);
    expect(rank([one(10), one(30)], 'more')).toEqual([
      { place: 2, shared: false },
      { place: 1, shared: false },
    ]);
  });
});
