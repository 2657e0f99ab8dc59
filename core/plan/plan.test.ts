import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SCHOOLS } from '../method/schools';
import type { Cadence } from '../method/cadenceSchema';
import { surelyBelow } from '../margin/bounds';
import { costOf, runLength } from './cost';
import { cellsOf, nextRun, progressOf, runsOf } from './matrix';
import { QUESTIONS } from './questions';
import { CONDITIONS, ORDERS, STATES, studySchema, type Study } from './study';
import { cheapestChange, smallestDifference, tell, widthAt } from './tell';

const everyFive: Cadence = { kind: 'fixed', every: 300 };
const study: Study = {
  schema: 2,
  id: 's',
  name: 'Van chargers',
  question: 'Which charger?',
  method: 'fixed-interval',
  cadence: everyFive,
  startLevel: 2,
  devices: ['sedge', 'slate'],
  chargers: ['c12', 'c20', 'c30'],
  cables: [],
  states: ['asleep'],
  crossed: [{ cell: 'slate/c12//asleep', reason: 'known too weak' }],
  repeats: 2,
  order: 'as listed',
  seed: 7,
  conditions: [...CONDITIONS],
};

describe('the matrix of a study', () => {
  it('is every combination, those left out with their reason', () => {
    expect(cellsOf(study)).toHaveLength(6);
    expect(cellsOf({ ...study, cables: ['short', 'long'], states: ['asleep', 'awake'] })).toHaveLength(24);
    expect(
      cellsOf(study)
        .filter(({ reason }) => reason)
        .map(({ key }) => key),
    ).toEqual(['slate/c12//asleep']);
    expect(runsOf(study)).toHaveLength(10);
  });

  it('runs each cell as often as asked, in any order, repeat by repeat', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ORDERS), fc.integer({ min: 1, max: 5 }), fc.nat(), (order, repeats, seed) => {
        const runs = runsOf({ ...study, order, repeats, seed });
        expect(runs.map(({ repeat }) => repeat)).toEqual([...runs.map(({ repeat }) => repeat)].sort((one, other) => one - other));
        for (const { key, reason } of cellsOf(study))
          expect(runs.filter(({ cell }) => cell.key === key)).toHaveLength(reason === undefined ? repeats : 0);
        expect(runsOf({ ...study, order, repeats, seed })).toEqual(runs);
      }),
    );
  });

  it('turns every other repeat round when counterbalanced', () => {
    const keys = runsOf({ ...study, order: 'counterbalanced' }).map(({ cell }) => cell.key);
    expect(keys.slice(5)).toEqual(keys.slice(0, 5).reverse());
  });

  it('knows what was tested, and what comes next', () => {
    const made = ['sedge/c12//asleep', 'sedge/c12//asleep', 'sedge/c20//asleep'];
    expect(progressOf(study, made).map(({ state }) => state)).toEqual(['tested', 'part', 'untested', 'crossed', 'untested', 'untested']);
    expect(nextRun(study, made)).toMatchObject({ cell: { key: 'sedge/c30//asleep' }, repeat: 1 });
    expect(
      nextRun(
        study,
        runsOf(study).map(({ cell }) => cell.key),
      ),
    ).toBeUndefined();
  });

  it('says what is missing of a study', () => {
    const complaint = (changes: object) => () => studySchema.validateSync({ ...study, ...changes });
    expect(complaint({})).not.toThrow();
    expect(complaint({ devices: [] })).toThrow(/at least one device/);
    expect(complaint({ chargers: [] })).toThrow(/at least one charger/);
    expect(complaint({ repeats: 0 })).toThrow(/at least once/);
    expect(complaint({ crossed: [{ cell: 'x', reason: ' ' }] })).toThrow(/why it is left out/);
    expect(complaint({ states: ['asleep', ...STATES, 'upside down'] })).toThrow();
  });
});

it('offers for every question methods that exist', () => {
  const known = new Set(SCHOOLS.map(({ id }) => id));
  for (const { methods } of QUESTIONS) expect(methods.every((method) => known.has(method))).toBe(true);
  expect(QUESTIONS).toHaveLength(9);
});

describe('what a study can tell', () => {
  // A straight charge: one percent a minute.
  const reaches = (level: number) => level * 60;

  // Common practice, no source: checks every 5 min: a time is uncertain by up to one interval; 85–90 and 90–95 min tie.
  it('is, with five-minute checks, no less than two intervals and what runs vary by', () => {
    expect(widthAt(everyFive, 88 * 60)).toBe(300);
    expect(tell(everyFive, 1, [50, 80], reaches)).toEqual([
      { level: 50, expected: 3000, margin: 300, smallest: 690 },
      { level: 80, expected: 4800, margin: 300, smallest: 744 },
    ]);
  });

  it('is nothing after the last mark', () => {
    expect(tell({ kind: 'marks', at: [900, 1800] }, 1, [20, 50], reaches)).toMatchObject([
      { margin: 900 },
      { margin: undefined, smallest: undefined },
    ]);
    expect(tell({ kind: 'coarse then fine', every: 600, level: 40, then: 300 }, 1, [30, 50], reaches)).toMatchObject([
      { margin: 600 },
      { margin: 300 },
    ]);
    expect(widthAt({ kind: 'sampled', every: 1 }, 500)).toBe(1);
  });

  // GUM 4.3.7 and a published t table (from memory): t for 4 degrees of freedom is 2.776.
  it('shrinks with repeats as a 95 % interval does', () => {
    const [spread, width] = [0.03 * 4800, 300];
    expect(smallestDifference(4800, width, 3)).toBeCloseTo(2.776 * Math.sqrt((2 * (spread ** 2 + width ** 2 / 12)) / 3), 9);
    for (let repeats = 2; repeats < 10; repeats += 1)
      expect(smallestDifference(4800, width, repeats + 1)).toBeLessThan(smallestDifference(4800, width, repeats));
  });

  it('is told apart for sure whatever the moments of the checks, once two single runs differ by more', () => {
    const minutes = fc.double({ min: 20, max: 300, noNaN: true });
    fc.assert(
      fc.property(minutes, minutes, fc.constantFrom(60, 300, 600), (one, other, every) => {
        const [sooner, later] = [Math.min(one, other) * 60, Math.max(one, other) * 60];
        const boundsOf = (time: number) => ({ low: Math.floor(time / every) * every, high: (Math.floor(time / every) + 1) * every });
        if (later - sooner > smallestDifference(later, every, 1)) expect(surelyBelow(boundsOf(sooner), boundsOf(later))).toBe(true);
      }),
    );
  });

  it('names the cheapest change that would tell a difference apart', () => {
    expect(cheapestChange(everyFive, 1, 80, 800, reaches)).toEqual({ kind: 'none' });
    expect(cheapestChange(everyFive, 1, 80, 400, reaches)).toMatchObject({ kind: 'finer', every: 120, from: 72, to: 88 });
    expect(cheapestChange(everyFive, 1, 80, 170, reaches)).toMatchObject({ kind: 'repeats' });
    expect(cheapestChange(everyFive, 1, 80, 10, reaches)).toEqual({ kind: 'out of reach' });
    expect(cheapestChange(everyFive, 1, 80, 800, () => undefined)).toEqual({ kind: 'out of reach' });
  });
});

it('counts what a study costs: one reading at plug-in, and one at every check', () => {
  expect(costOf(everyFive, [{ length: 3600 }, { length: 1000 }])).toEqual({ runs: 2, length: 4600, readings: 17, attended: 17 * 20 + 360 });
  expect(runLength(everyFive, 5000)).toBe(5000);
  expect(runLength({ kind: 'marks', at: [300, 1800] }, 5000)).toBe(1800);
  expect(runLength({ kind: 'spot', settle: 60 }, 5000)).toBe(60);
});
