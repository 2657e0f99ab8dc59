import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cadenceInWords, checks, dueTimes, lastVerdict, nextDue } from './cadence';
import { cadenceSchema, type Cadence } from './cadenceSchema';
import { SCHOOLS } from './schools';

const everyFive: Cadence = { kind: 'fixed', every: 300 };
const states = (seen: number[], now: number) => checks(everyFive, seen, now).map(({ state }) => state);

describe('when the next reading is due', () => {
  it('is one interval after plug-in, then the next multiple', () => {
    expect(nextDue(everyFive, undefined, 0)).toBe(300);
    expect(nextDue(everyFive, 0, 12)).toBe(300);
    expect(nextDue(everyFive, 310, 312)).toBe(600);
  });

  it('stays due while it can still be answered, then moves on', () => {
    expect(nextDue(everyFive, 0, 330)).toBe(300);
    expect(nextDue(everyFive, 0, 449)).toBe(300);
    expect(nextDue(everyFive, 0, 450)).toBe(600);
  });

  it('is answered by a reading half a minute early, not by one taken between checks', () => {
    expect(nextDue(everyFive, 270, 271)).toBe(600);
    expect(nextDue(everyFive, 160, 161)).toBe(300);
  });
});

describe('what became of each check', () => {
  it('tells on time, late and missed apart', () => {
    expect(states([0, 270, 645, 1100], 1400)).toEqual(['on time', 'late', 'missed']);
    expect(checks(everyFive, [0, 270, 645, 1100], 1400).at(-1)).toMatchObject({ due: 900, last: 1200, count: 2, from: 750, to: 1350 });
    expect(states([0, 298, 600, 931], 900)).toEqual(['on time', 'on time', 'late']);
  });

  it('waits for one whose time has come but not gone', () => {
    expect(states([0], 310)).toEqual(['waiting']);
    expect(states([0], 460)).toEqual(['missed']);
  });
});

it('asks for an interval that a person can keep', () => {
  expect(() => cadenceSchema.validateSync({ kind: 'fixed', every: 5 })).toThrow(/use a meter/);
  expect(() => cadenceSchema.validateSync({ kind: 'fixed' })).toThrow(/how often/);
});

it('never leaves a due time that is already missed, whenever it is asked', () => {
  const times = fc.record({
    last: fc.option(fc.integer({ min: 0, max: 9000 }), { nil: undefined }),
    now: fc.integer({ min: 0, max: 9000 }),
  });
  fc.assert(
    fc.property(times, ({ last, now }) => {
      const due = nextDue(everyFive, last, Math.max(now, last ?? 0)) ?? Number.NaN;
      expect(due + 150).toBeGreaterThan(Math.max(now, last ?? 0));
      expect(due % 300).toBe(0);
    }),
  );
});

it('answers every check at most once, and says of each what became of it', () => {
  const seenTimes = fc
    .uniqueArray(fc.integer({ min: 0, max: 6000 }), { maxLength: 25 })
    .map((all) => all.sort((one, other) => one - other));
  fc.assert(
    fc.property(seenTimes, fc.integer({ min: 0, max: 7000 }), (seen, now) => {
      const all = checks(everyFive, seen, now).flatMap((check) =>
        Array.from({ length: check.count }, (_, index) => ({ ...check, due: check.due + index * 300 })),
      );
      expect(all.map(({ due }) => due)).toEqual(Array.from({ length: Math.floor(now / 300) }, (_, index) => (index + 1) * 300));
      const answered = all.flatMap((check) => (check.seen === undefined ? [] : [check.seen]));
      expect(new Set(answered).size).toBe(answered.length);
      for (const { due, seen: at, state } of all) {
        if (at === undefined) expect(state).toBe(now >= due + 150 ? 'missed' : 'waiting');
        else expect(state).toBe(at > due + 30 ? 'late' : 'on time');
      }
    }),
  );
});

it('costs by readings, not by time gone: a run left alone for 31 years is answered at once', () => {
  const years = 31 * 365.25 * 86_400;
  const coarse: Cadence = { kind: 'coarse then fine', every: 600, level: 90, then: 30 };
  expect(checks(coarse, [0, 600], years, 600).length).toBeLessThan(4);
  expect(checks(coarse, [0, 600], years, 600)[1]).toMatchObject({
    state: 'missed',
    due: 630,
    last: years - 30,
    count: Math.floor(years / 30) - 21,
  });
  expect(nextDue(coarse, 600, years, 600)).toBeGreaterThan(years - 30);
  expect(lastVerdict(coarse, years, 600)).toBeGreaterThan(years - 60);
});

// Common practice, no source: a 15-minute check lands half a minute early.
it('takes a 15-minute check that lands at 14:25 for the check at 15 min', () => {
  const quarter: Cadence = { kind: 'fixed', every: 900 };
  expect(checks(quarter, [0, 865], 900)).toMatchObject([{ due: 900, seen: 865, state: 'on time' }]);
  expect(nextDue(quarter, 865, 870)).toBe(1800);
});

const first = (count: number, cadence: Cadence, finerFrom?: number) => {
  const times: number[] = [];
  for (const due of dueTimes(cadence, finerFrom)) if (times.push(due / 60) === count) break;
  return times;
};

describe('cadences of the trade', () => {
  const topUp: Cadence = { kind: 'marks', at: [5, 10, 15, 20, 30].map((minutes) => minutes * 60) };
  const coarse: Cadence = { kind: 'coarse then fine', every: 600, level: 90, then: 300 };

  it('wants a top-up window read at its marks, and then no more', () => {
    expect(first(9, topUp)).toEqual([5, 10, 15, 20, 30]);
    expect(nextDue(topUp, 1195, 1200)).toBe(1800);
    expect(nextDue(topUp, 1790, 1795)).toBeUndefined();
    expect(checks(topUp, [300, 600, 905, 1800], 2000).map(({ state }) => state)).toEqual([
      'on time',
      'on time',
      'on time',
      'missed',
      'on time',
    ]);
  });

  it('goes on from the last mark where it is told to', () => {
    expect(first(7, { kind: 'marks', at: [900, 1800, 2700, 3600], then: 900 })).toEqual([15, 30, 45, 60, 75, 90, 105]);
  });

  // Common practice, no source: every 10 min, then every 5 min once the first of the set reaches 90 %.
  it('reads every 10 min until 90 % shows, then every 5', () => {
    expect(first(5, coarse)).toEqual([10, 20, 30, 40, 50]);
    expect(first(7, coarse, 30.2 * 60)).toEqual([10, 20, 30, 35, 40, 45, 50]);
    expect(nextDue(coarse, 1812, 1815)).toBe(2400);
    expect(nextDue(coarse, 1812, 1815, 1812)).toBe(2100);
  });

  it('asks nothing of a person while a meter samples, and once of a spot check', () => {
    expect(first(1, { kind: 'sampled', every: 1 })).toEqual([]);
    expect(nextDue({ kind: 'sampled', every: 1 }, 0, 10)).toBeUndefined();
    expect(first(3, { kind: 'spot', settle: 60 })).toEqual([1]);
  });

  it('gives a mark between unlike neighbours half the way to each', () => {
    expect(checks(topUp, [], 1800).at(-1)).toMatchObject({ due: 1800, from: 1500, to: 2100, state: 'waiting' });
    expect(lastVerdict(topUp, 1500)).toBe(1500);
    expect(lastVerdict(topUp, 1499)).toBe(1050);
    expect(lastVerdict(everyFive, 149)).toBe(0);
  });

  it('can be said in words', () => {
    expect([everyFive, coarse, topUp].map(cadenceInWords)).toEqual([
      'every 5 min',
      'every 10 min, from 90 % on every 5 min',
      'at 5, 10, 15, 20 and 30 min',
    ]);
    expect(cadenceInWords({ kind: 'marks', at: [300], of: 'run-1', then: 300 })).toBe('at the times of an earlier run, then every 5 min');
    expect(cadenceInWords({ kind: 'spot', settle: 60 })).toBe('once, after 1 min');
  });

  it('refuses marks that are out of order, none, or too many', () => {
    const said = (at: unknown[]) => () => cadenceSchema.validateSync({ kind: 'marks', at });
    expect(said([])).toThrow(/at least one time/);
    expect(said([600, 300])).toThrow(/in order/);
    expect(said([5])).toThrow(/half a minute/);
    expect(said(Array.from({ length: 400 }, (_, index) => (index + 1) * 60))).toThrow(/Up to 288/);
    expect(() => cadenceSchema.validateSync({ kind: 'guess' })).toThrow(/kind/);
  });
});

it('holds for every school of the trade a cadence that can be kept', () => {
  expect(SCHOOLS.map(({ name }) => name)).toHaveLength(10);
  expect(new Set(SCHOOLS.map(({ id }) => id)).size).toBe(10);
  for (const { cadence } of SCHOOLS) expect(() => cadenceSchema.validateSync(cadence, { strict: true })).not.toThrow();
});
