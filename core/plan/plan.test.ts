import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SCHEMA } from '../ink/version';
import { SCHOOLS } from '../method/schools';
import type { Cadence } from '../method/cadenceSchema';
import { surelyBelow } from '../margin/bounds';
import { CONDITIONS } from '../method/conditions';
import { costOf, readingsOf, readingTimes } from './cost';
import { cellsOf, progressOf, runsLeft, runsOf } from './matrix';
import { QUESTIONS } from './questions';
import { setupsOf, willNotCharge, type Setup } from './setups';
import { ORDERS, STATES, studySchema, type Study } from './study';
import { changeOf, cheapestChange, powerTelling, smallestDifference, tell, tellings, widthAt } from './tell';

const everyFive: Cadence = { kind: 'fixed', every: 300 };
const study: Study = {
  schema: SCHEMA,
  id: 's',
  name: 'Van chargers',
  question: 'Which charger?',
  method: 'fixed-interval',
  cadence: everyFive,
  startLevel: 2,
  devices: ['sedge', 'slate'],
  chargers: ['c12', 'c20', 'c30'],
  cables: [],
  meters: [],
  races: false,
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
    expect(runsLeft(study, made)[0]).toMatchObject({ cell: { key: 'sedge/c30//asleep' }, repeat: 1 });
    expect(runsLeft(study, made)).toHaveLength(7);
    expect(runsLeft(study, [...made, ...runsOf(study).map(({ cell }) => cell.key)])).toEqual([]);
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
    expect(changeOf(everyFive, 1, 80, 800, reaches)).toEqual({ kind: 'none' });
    expect(changeOf(everyFive, 1, 80, 400, reaches)).toMatchObject({ kind: 'finer', every: 120, from: 72, to: 88 });
    expect(changeOf(everyFive, 1, 80, 170, reaches)).toMatchObject({ kind: 'repeats' });
    expect(changeOf(everyFive, 1, 80, 10, reaches)).toEqual({ kind: 'out of reach' });
    expect(changeOf(everyFive, 1, 80, 800, () => undefined)).toEqual({ kind: 'out of reach' });
  });
});

/** A setup that charges a straight `minutes` per percent. */
const straight = (key: string, minutes: number): Setup => ({
  cell: { key, device: 'd', charger: 'c', cable: undefined, state: 'asleep' },
  expected: { reaches: (level) => level * minutes * 60, length: minutes * 6000, watts: new Float64Array([20]), ...COLUMNS },
});
const COLUMNS = { seconds: new Float64Array(1), percent: new Float64Array(1), celsius: new Float64Array(1) };

describe('what all setups of a study can tell', () => {
  it('is the worst of them: with uneven marks, not always that of the slowest', () => {
    const marks: Study = { ...study, repeats: 1, cadence: { kind: 'marks', at: [600, 3600, 4200, 4800, 5400] } };
    const [half] = tellings(marks, [straight('slow', 1.7), straight('fast', 0.5)], [50]);
    expect(half).toMatchObject({ soonest: 1500, expected: 5100, margin: 3000, without: 0 });
    expect(tellings(marks, [straight('slow', 3), straight('fast', 0.5)], [50])[0]).toMatchObject({ margin: 3000, without: 1 });
    expect(tellings(marks, [], [50])[0]).toMatchObject({ expected: undefined, smallest: undefined });
  });

  it('asks for the dearest change that any of them needs', () => {
    const once = { ...study, repeats: 1 };
    expect(cheapestChange(once, [straight('fast', 0.5), straight('slow', 1)], 80, 400)).toMatchObject({ kind: 'finer', every: 120 });
    expect(cheapestChange(once, [straight('fast', 0.5), straight('slow', 2)], 80, 400)).toMatchObject({ kind: 'finer', every: 30 });
    expect(cheapestChange(once, [], 80, 400)).toEqual({ kind: 'out of reach' });
  });

  // A meter of ±0.5 % ± 2 digits at 9 V and 10 mA, 10 mV resolution, worst case: 20 W × 2 × 0.5 % = 0.2 W of scale; digits 2.5 × (0.01 × 20 ÷ 9 + 0.01 × 9).
  it('tells power apart by the digits of one meter, and by the accuracy of several', () => {
    const meter = { id: 'm', name: 'one', accuracyPercent: 0.5, accuracyDigits: 2, voltsResolution: 0.01, ampsResolution: 0.01 };
    const [setup] = setupsOf({ ...study, crossed: [] }, GEAR);
    const watts = Math.max(...(setup?.expected?.watts ?? []));
    const volts = setup?.negotiated?.volts ?? 0;
    const digits = 2.5 * ((0.01 * watts) / volts + 0.01 * volts);
    const one = powerTelling(1, setup ? [setup] : [], [meter]);
    expect(one).toMatchObject({ expected: watts, smallest: 4 * digits + 0.03 * watts });
    expect(one?.margin).toBeCloseTo(0.01 * watts + digits, 9);
    const two = powerTelling(1, setup ? [setup] : [], [meter, { ...meter, id: 'n' }]);
    expect(two?.smallest).toBeCloseTo(4 * (0.01 * watts + digits) + 0.03 * watts, 9);
    expect(powerTelling(1, setup ? [setup] : [], [{ id: 'x', name: 'says nothing' }])).toBeUndefined();
  });
});

const GEAR = {
  devices: [
    { id: 'sedge', name: 'Sedge 5', kind: 'phone', wattHours: 17, inputLimit: 25, deliveryVolts: 9 },
    { id: 'slate', name: 'Slate', kind: 'tablet', leastWatts: 14 },
  ] as const,
  chargers: [
    { id: 'c12', name: 'Cobble 12', kind: 'adapter', watts: 12 },
    { id: 'c20', name: 'Cobble 20', kind: 'adapter', watts: 20 },
  ] as const,
  cables: [],
  meters: [],
};

it('settles every cell of the matrix, and knows what will not charge', () => {
  const setups = setupsOf({ ...study, chargers: ['c12', 'c20'], crossed: [] }, GEAR);
  expect(setups.map(({ expected }) => expected !== undefined)).toEqual([true, true, false, false]);
  expect(setups.map(willNotCharge)).toEqual([false, false, true, false]);
  expect(setupsOf({ ...study, startLevel: 100 }, GEAR)[0]?.expected).toBeUndefined();
});

it('counts what a study costs: a reading at plug-in, at every check, and at the first check that can show it full', () => {
  const one = { ...study, devices: ['d'], chargers: ['c'], crossed: [], repeats: 2 };
  const setup = { ...straight('d/c//asleep', 0.16), cell: { ...straight('', 1).cell, key: 'd/c//asleep' } };
  // Full after 16 min: checks at 0, 5, 10, 15 and 20 min.
  expect(costOf(one, [setup])).toEqual({ runs: 2, unknown: 0, length: 2 * 1200, readings: 10, attended: 10 * 20 + 2 * 180 });
  expect(costOf(one, [{ cell: setup.cell }])).toEqual({ runs: 2, unknown: 2, length: 0, readings: 0, attended: 0 });
  expect(readingTimes({ kind: 'marks', at: [300, 1800] }, undefined)).toEqual([0, 300, 1800]);
  expect(readingTimes({ kind: 'spot', settle: 60 }, 5000)).toEqual([0, 60]);
  expect(readingTimes({ kind: 'sampled', every: 1 }, 5000)).toEqual([0, 5000]);
  expect(readingTimes({ kind: 'coarse then fine', every: 600, level: 90, then: 300 }, 1700, 1250)).toEqual([0, 600, 1200, 1500, 1800]);
  expect(readingTimes(everyFive, undefined)).toBeUndefined();
  // In a race the first that shows 90 % makes all of them fine.
  const set = [straight('slow', 1), straight('fast', 0.5)] as const;
  const coarse = { cadence: { kind: 'coarse then fine', every: 3000, level: 90, then: 600 } as const };
  expect(readingsOf(coarse, set[0])).toEqual([0, 3000, 6000]);
  expect(readingsOf(coarse, set[0], 0, set)).toEqual([0, 3000, 3600, 4200, 4800, 5400, 6000]);
});
