import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { coarsened, milestone } from './milestone';
import { writeMilestone, writePassage } from './timeWords';
import type { Levels } from './pace';

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

it('has bounds as much wider as the clock can be off, and never before plug-in', () => {
  expect(coarsened({ low: 600, high: 900 }, 30)).toEqual({ low: 570, high: 930 });
  expect(coarsened({ low: 10, high: 900 }, 30)).toEqual({ low: 0, high: 930 });
  expect(coarsened({ low: 600, high: 900 })).toEqual({ low: 600, high: 900 });
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

/** Levels that rise by so much each five minutes, from nothing. */
const steady = (gain: number, checks: number) =>
  levels(...Array.from({ length: checks + 1 }, (_, index): [number, number] => [index * 5, Math.floor(index * gain)]));
const paced = (highest: number, more: Partial<Levels['pace']> = {}): Levels => ({
  turning: new Set(),
  pace: { highest, drawsIn: 1.25 * highest, broken: [], ...more },
});

describe('drawn in by the pace', () => {
  it('leaves of five minutes what a display that is never faster can have taken', () => {
    // 5 % in each five minutes, at most a quarter faster: 6.25 %. From 45 to 50 %, 48 % came no sooner than 2 % and no later than 2 % before it at that pace.
    const found = reached(steady(5, 20), 48, paced(5 / 300));
    expect(found.checked).toEqual({ low: 2700, high: 3000 });
    expect(found.bounds.low).toBeCloseTo(2700 + (2 / 6.25) * 300, 9);
    expect(found.bounds.high).toBeCloseTo(3000 - (2 / 6.25) * 300, 9);
    expect(found.working.formula).toContain('drawn in by the pace');
  });

  it('never draws the latest of 100 % in, nor across what changed the pace', () => {
    expect(reached(steady(5, 20), 100, paced(5 / 300)).bounds.high).toBe(6000);
    const broken = [{ from: 2800, to: 2800 }];
    expect(reached(steady(5, 20), 48, paced(5 / 300, { broken })).bounds).toEqual({ low: 2700, high: 3000 });
  });

  it('draws the earliest on at twice the pace where the level was not seen by the end', () => {
    const found = milestone(steady(5, 10), 80, paced(5 / 300, { drawsOn: 10 / 300 }));
    expect(found).toMatchObject({ state: 'not reached', bounds: { low: 3000 + (29 / 10) * 300, high: Infinity }, checked: { low: 3000 } });
  });

  // By brute force: of all displays that never rise faster than the pace, those that show what was read put the level within the bounds.
  it('holds every display that is never faster than the pace', () => {
    const speed = fc.array(fc.double({ min: 0.02, max: 1, noNaN: true }), { minLength: 40, maxLength: 60 });
    fc.assert(
      fc.property(speed, fc.integer({ min: 120, max: 600 }), fc.integer({ min: 2, max: 99 }), (speeds, interval, level) => {
        // True levels minute by minute, never faster than one percent a minute.
        const truth = speeds.reduce<number[]>((all, each) => [...all, (all.at(-1) ?? 0) + each], [0.4]);
        const trueAt = (seconds: number) => {
          const [at, rest] = [Math.floor(seconds / 60), (seconds / 60) % 1];
          return (truth[at] ?? truth.at(-1) ?? 0) * (1 - rest) + (truth[at + 1] ?? truth.at(-1) ?? 0) * rest;
        };
        const checks = Math.floor(((truth.length - 1) * 60) / interval);
        const track = trackOf(
          Array.from({ length: checks + 1 }, (_, index) => ({ seconds: index * interval, value: Math.floor(trueAt(index * interval)) })),
        );
        const found = milestone(track, level, {
          turning: new Set(),
          pace: { highest: 1 / 60, drawsIn: 1 / 60, drawsOn: 1 / 60, broken: [] },
        });
        if (found.state !== 'reached' && found.state !== 'not reached') return;
        let came = 0;
        while (came < (truth.length - 1) * 60 && trueAt(came) < level) came += 1;
        if (trueAt(came) < level) return;
        expect(came).toBeGreaterThanOrEqual(found.bounds.low - 1);
        expect(came).toBeLessThanOrEqual(found.bounds.high + 1);
      }),
    );
  });
});

describe('a reading that was seen turning', () => {
  const turning = trackOf([
    { seconds: 0, value: 40, entry: 'a' },
    { seconds: 2700, value: 78, entry: 'b' },
    { seconds: 2815, value: 80, entry: 'c' },
    { seconds: 3000, value: 83, entry: 'd' },
  ]);
  it('is known to seconds', () => {
    const found = reached(turning, 80, { turning: new Set(['c']), pace: { highest: 0, broken: [] } });
    expect(found.bounds).toEqual({ low: 2810, high: 2815 });
    expect(found.uncertainty).toBeCloseTo(5 / Math.sqrt(12), 9);
    expect(reached(turning, 80).bounds).toEqual({ low: 2700, high: 2815 });
  });

  it('narrows its own level and no other', () => {
    expect(reached(turning, 79, { turning: new Set(['c']), pace: { highest: 0, broken: [] } }).bounds).toEqual({ low: 2700, high: 2815 });
  });
});

it('of a light is told to the second where it was watched, else by its latest or the middle, and has no earliest where it was never seen lit', () => {
  const bounds = { low: 2700, high: 3000 };
  expect(writePassage({ bounds: { low: 245, high: 245 } })).toEqual({
    value: '4 min 5 s',
    detail: 'at 4 min 5 s',
    range: '4 min 5 s',
  });
  expect(writePassage({ bounds })).toEqual({ value: '50 min', detail: 'between 45 and 50 min', range: '45–50 min' });
  expect(writePassage({ bounds }, false).value).toBe('48 min');
  expect(writePassage({ bounds: { low: 0, high: 610 }, hasNoEarliest: true })).toEqual({
    value: 'by 11 min',
    detail: 'how long before, nobody saw',
    range: 'never seen lit',
  });
});

it('is told with bounds that round outward, and as seen by its latest', () => {
  // Readings at 2 h 40 min 20 s and 2 h 44 min 40 s.
  const seen = milestone({ seconds: [0, 9620, 9880], values: [10, 99, 100] }, 100);
  expect(writeMilestone(seen)).toMatchObject({ value: '2 h 45', range: '2 h 40–2 h 45' });
  expect(writeMilestone(milestone({ seconds: [0, 3590], values: [10, 60] }, 80)).detail).toBe('not by 59 min');
});
