import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checks, nextDue } from './cadence';
import { cadenceSchema, type Cadence } from './cadenceSchema';

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
    expect(states([0, 270, 645, 1100], 1400)).toEqual(['on time', 'late', 'missed', 'missed']);
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
      const due = nextDue(everyFive, last, Math.max(now, last ?? 0));
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
      const all = checks(everyFive, seen, now);
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

// Common practice, no source: a 15-minute check lands half a minute early.
it('takes a 15-minute check that lands at 14:25 for the check at 15 min', () => {
  const quarter: Cadence = { kind: 'fixed', every: 900 };
  expect(checks(quarter, [0, 865], 900)).toEqual([{ due: 900, seen: 865, state: 'on time' }]);
  expect(nextDue(quarter, 865, 870)).toBe(1800);
});
