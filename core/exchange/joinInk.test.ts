import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldRun, inkOf, type Entry } from '../ink';
import { finishedRuns } from '../../demo/finished';
import { conflictsIn, differencesOf, joinInk, settleInk, type Choice } from './joinInk';

const header = finishedRuns()[0]?.header as NonNullable<ReturnType<typeof finishedRuns>[0]>['header'];
const inkOfRun = (levels: readonly number[]) =>
  inkOf(
    header,
    levels.map((percent, index) => ({ seconds: 60 * index, percent })),
  );
const readings = (entries: readonly Entry[]) => foldRun(header, entries).readings.map(({ reading }) => [reading.id, reading.percent]);
const merged = (mine: readonly Entry[], theirs: readonly Entry[], choices: Record<string, Choice>) => {
  const { entries, instead } = settleInk(mine, theirs, choices, 'Ada’s logbook', 1_800_000_000_000);
  return joinInk(
    mine.filter(({ id }) => !instead.has(id)),
    entries,
    'the run',
  );
};

describe('two copies of a run that contradict each other', () => {
  const mine = inkOfRun([5, 20, 40]);
  const theirs = mine.map((entry, index) => (index === 1 && entry.kind === 'reading' ? { ...entry, percent: 22 } : entry));
  const [conflict] = conflictsIn(mine, theirs);

  it('are said entry by entry, with what differs', () => {
    expect(conflictsIn(mine, theirs)).toHaveLength(1);
    expect(conflict && differencesOf(conflict)).toEqual([{ part: 'percent', mine: '20', theirs: '22' }]);
    expect(() => settleInk(mine, theirs, {}, 'x', 0)).toThrow(/Entry 2 differs from the one already here. Nothing was imported/);
  });

  it('are settled by what was chosen: it keeps the id, and the other stays under one that names its origin, struck', () => {
    const id = conflict?.id ?? '';
    const here = merged(mine, theirs, { [id]: 'mine' });
    expect(readings(here)).toEqual(readings(mine));
    const { struck } = foldRun(header, here);
    expect(struck.map(({ reading }) => [reading.percent, /^Adaslogbook-\w+$/.test(reading.id)])).toEqual([[22, true]]);
    expect(struck[0]?.strike.reason).toBe('two copies differed, and the other was chosen (this one from Ada’s logbook)');
    const there = merged(mine, theirs, { [id]: 'theirs' });
    expect(readings(there)).toEqual(readings(theirs));
    expect(foldRun(header, there).struck.map(({ reading }) => reading.percent)).toEqual([20]);
  });

  it('come together whatever is chosen, once and for all, and nothing of either is lost (property)', () => {
    const levels = fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 1, maxLength: 12 });
    const change = fc.record({ at: fc.nat(11), percent: fc.integer({ min: 0, max: 100 }) });
    fc.assert(
      fc.property(
        levels,
        fc.array(change, { maxLength: 6 }),
        fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
        (all, changes, takes) => {
          const one = inkOfRun(all);
          const other = one.map((entry, index) => {
            const found = changes.find(({ at }) => at === index);
            return found && entry.kind === 'reading' ? { ...entry, percent: found.percent } : entry;
          });
          const conflicts = conflictsIn(one, other);
          const choices = Object.fromEntries(conflicts.map(({ id }, index) => [id, takes[index] ? 'mine' : 'theirs'] as const));
          const whole = merged(one, other, choices);
          expect(new Set(whole.map(({ id }) => id)).size).toBe(whole.length);
          expect(whole.length).toBe(one.length + 2 * conflicts.length);
          const chosen = new Map(conflicts.map(({ id, mine: own, theirs: its }) => [id, choices[id] === 'mine' ? own : its]));
          for (const entry of one) expect(whole.find(({ id }) => id === entry.id)).toEqual(chosen.get(entry.id) ?? entry);
          // The same file again, and the file of what came of it: nothing is left to choose.
          expect(conflictsIn(whole, other)).toEqual([]);
          expect(merged(whole, other, {})).toEqual(whole);
          expect(merged(whole, whole, {})).toEqual(whole);
        },
      ),
    );
  });
});
