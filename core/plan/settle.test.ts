import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { progressOf, runsLeft } from './matrix';
import { NotPlannable, studyToSettle, withSettling } from './settle';
import { studySchema, type Study } from './study';

const study: Study = {
  ...studyToSettle('s1', 'Vans', exampleHeader(), 2, [{ device: 'd1', charger: 'c1', runs: 1 }]),
  devices: ['d1', 'd2'],
  chargers: ['c1', 'c2'],
  repeats: 2,
  crossed: [{ cell: 'd2/c2//asleep', reason: 'no coil' }],
};
const asked = (of: Study, made: string[] = []) =>
  Object.fromEntries(progressOf(of, made).flatMap(({ cell, of: runs }) => (runs > 0 ? [[cell.key, runs]] : [])));
const ALL = ['d1/c1//asleep', 'd1/c2//asleep', 'd2/c1//asleep'];

describe('runs that settle something', () => {
  it('are asked of their cell beyond the repeats, once however often they are asked for', () => {
    const made = ALL.flatMap((key) => [key, key]);
    const wanted = [{ device: 'd1', charger: 'c2', runs: 2 }];
    const once = withSettling(study, wanted, made);
    expect(asked(once, made)).toEqual({ 'd1/c1//asleep': 2, 'd1/c2//asleep': 4, 'd2/c1//asleep': 2 });
    expect(withSettling(once, wanted, made)).toEqual(once);
    expect(runsLeft(once, made).map(({ cell, repeat }) => [cell.key, repeat])).toEqual([
      ['d1/c2//asleep', 3],
      ['d1/c2//asleep', 4],
    ]);
    expect(studySchema.isValidSync(once)).toBe(true);
  });

  it('change nothing where the study asks for them already', () => {
    expect(withSettling(study, [{ device: 'd1', charger: 'c1', runs: 1 }], [])).toEqual(study);
  });

  it('take up a cell that was left out, and bring gear with no other cell', () => {
    expect(asked(withSettling(study, [{ device: 'd2', charger: 'c2', runs: 1 }], []))).toHaveProperty(['d2/c2//asleep'], 2);
    const grown = withSettling(study, [{ device: 'd2', charger: 'c9', runs: 1 }], []);
    expect(asked(grown)).toEqual({ ...asked(study), 'd2/c9//asleep': 2 });
  });

  it('take up a cable or a state that the study does not have yet, where it varies them: never another in its place', () => {
    const varied = { ...study, cables: ['w1'], crossed: [] };
    const grown = withSettling(varied, [{ device: 'd1', charger: 'c1', cable: 'w2', state: 'awake', runs: 3 }], []);
    expect(asked(grown)).toEqual({ ...asked(varied), 'd1/c1/w2/awake': 3 });
    expect(studySchema.isValidSync(grown)).toBe(true);
  });

  it('are refused past what a cell may have', () => {
    expect(() => withSettling(study, [{ device: 'd1', charger: 'c1', runs: 13 }], [])).toThrow(NotPlannable);
  });

  it('make a study of their own, taken as the run was', () => {
    const { cadence } = exampleHeader();
    const own = studyToSettle('s2', 'Settle', exampleHeader(), 5, [
      { device: 'd1', charger: 'c1', runs: 2 },
      { device: 'd1', charger: 'c2', runs: 1 },
    ]);
    expect(studySchema.isValidSync(own)).toBe(true);
    expect(own).toMatchObject({ cadence, startLevel: 5, devices: ['d1'], chargers: ['c1', 'c2'] });
    expect(asked(own)).toEqual({ 'd1/c1//asleep': 2, 'd1/c2//asleep': 1 });
    // Over their own cables, and read more finely where that is what was asked for.
    const finer: Study['cadence'] = { kind: 'coarse then fine', every: 600, level: 40, then: 120 };
    const fine = studyToSettle('s3', 'Settle', exampleHeader(), 5, [
      { device: 'd1', charger: 'c1', cable: 'w1', runs: 1, as: { cadence: finer } },
      { device: 'd1', charger: 'c2', cable: 'w2', runs: 1, as: { cadence: finer } },
    ]);
    expect(fine.cadence).toEqual(finer);
    expect(asked(fine)).toEqual({ 'd1/c1/w1/asleep': 1, 'd1/c2/w2/asleep': 1 });
  });
});
