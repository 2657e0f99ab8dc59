import { describe, expect, it } from 'vitest';
import { readRun, writeFigures, type ReadRun } from '../curve';
import { chargedBy, foldRun, inkOf, type Draft, type Entry } from '../ink';
import { exampleHeader } from '../ink/example';
import { columnsOf } from './measures';
import { compareRuns, whenOf } from './compare';
import { matrixOf } from './matrix';
import { setupsOf } from './setups';
import { standingsOf } from './words';
import { namesOf } from './names';

const drumlin = { id: 'drumlin', name: 'Drumlin', kind: 'dock' as const, watts: 45 };
const quern = { id: 'quern', name: 'Quern 65', kind: 'adapter' as const, watts: 65 };

/** A run read every ten minutes, that gains so many % in each. */
function run(
  id: string,
  charger: typeof drumlin | typeof quern,
  percents: readonly number[],
  watts: readonly number[],
  swap?: Draft,
): ReadRun {
  const header = exampleHeader({ id, charger, cable: undefined });
  const rows = percents.map((percent, index) => ({ seconds: 600 * index, percent, watts: watts[index] }));
  const ink: Entry[] = inkOf(header, rows);
  if (swap) ink.push({ ...swap, at: header.plugInAt + swap.at, seq: 900, id: 'swap', written: header.plugInAt });
  return readRun(foldRun(header, ink));
}
const SLOW = [10, 20, 30, 40, 50, 60, 70, 80, 90, 100];
const FAST = [10, 30, 50, 70, 80, 90, 95, 98, 99, 100];
const at45 = SLOW.map(() => 40);
const at65 = FAST.map(() => 62);
const toQuern = (seconds: number): Draft => ({ kind: 'event', at: seconds * 1000, event: 'swapped', source: { charger: quern } });

describe('a run that several sources fed', () => {
  const swapped = run('swapped', drumlin, FAST, [40, ...at65.slice(1)], toQuern(60));
  const [one, other] = [run('one', drumlin, SLOW, at45), run('other', drumlin, SLOW, at45)];
  const all = [swapped, one, other, run('quern', quern, FAST, at65)];

  it('is a sequence by its name, and no repeat of either source', () => {
    expect(chargedBy(swapped.run)).toBe('Drumlin, then Quern 65 from 1 min');
    const setups = setupsOf(all);
    expect(setups.map(({ runs }) => runs.map((each) => each.run.header.id))).toEqual([['one', 'other'], ['quern'], ['swapped']]);
    const rows = compareRuns(all, 'swapped', 80);
    expect(namesOf(rows)).toEqual(['Drumlin', 'Quern 65', 'Drumlin, then Quern 65 from 1 min']);
    // It had been pooled with the true runs of its first source.
    expect(rows[0]?.milestones.find(({ each }) => each[0]?.level === 80)?.mean?.value).toBeCloseTo(4200, -2);
    expect(rows.map(({ standing }) => standing.state)).toEqual(['baseline', 'told apart', 'sequence']);
    expect(standingsOf(rows, namesOf(rows), 0, undefined)[2]?.rest).toEqual(['several sources fed it: not ranked']);
  });

  it('has its own figures, and no place', () => {
    const setups = setupsOf(all);
    const peak = columnsOf(setups, '%').find(({ measure }) => measure.id === 'peak');
    expect(peak?.cells.map(({ value, place }) => [value?.replace(/\..*/, ''), place])).toEqual([
      ['40 W', '2'],
      ['62 W', '1'],
      ['62 W', undefined],
    ]);
    if (!peak) throw new Error('no peak');
    expect(matrixOf(setups, peak.measure).sources.map(({ name }) => name)).toEqual(['Drumlin', 'Quern 65']);
    expect(writeFigures(swapped.figures).find(({ id }) => id === 'peak')?.detail).toContain('on Quern 65');
  });

  it('gives its first source the times and gains that came wholly before the swap, and no others', () => {
    // Drumlin to 70 % at 60 min, and Quern 65 from 65 min on.
    const late = run('late', drumlin, SLOW, at45, toQuern(65 * 60));
    const setups = setupsOf([late, one]);
    expect(setups.map(({ runs }) => runs.length)).toEqual([2, 1]);
    const columns = new Map(columnsOf(setups, '%').map(({ measure, cells }) => [measure.id, cells]));
    expect(columns.get('level-50')?.[0]?.mean?.runs).toBe(2);
    expect(columns.get('level-80')?.[0]?.mean).toBeUndefined();
    expect(columns.get('peak')?.[0]?.mean).toBeUndefined();
    expect(columns.get('gain-3600')?.[0]?.mean?.runs).toBe(2);
  });

  it('says so where nobody said to what it was swapped, and not where it was swapped to what it had', () => {
    const unsaid = run('unsaid', drumlin, SLOW, at45, { kind: 'event', at: 60_000, event: 'swapped' });
    expect(chargedBy(unsaid.run)).toBe('Drumlin, then another source from 1 min');
    const same = run('same', drumlin, SLOW, at45, { kind: 'event', at: 60_000, event: 'swapped', source: { charger: drumlin } });
    expect([chargedBy(same.run), same.figures.feeds]).toEqual(['Drumlin', []]);
  });

  it('is no repeat of a run on which other work was done', () => {
    const working: Draft = { kind: 'event', at: 0, event: 'work started', remark: 'rendering' };
    expect(setupsOf([one, run('work', drumlin, SLOW, at45, working)])).toHaveLength(2);
  });
});

it('ranks no light that nobody saw lit', () => {
  const working = { formula: '', unit: '', uses: [] };
  const out = { what: 'light out' as const, bounds: { low: 0, high: 14_340 }, uncertainty: 4140, working };
  expect([whenOf(out)?.value, whenOf({ ...out, hasNoEarliest: true })]).toEqual([7170, undefined]);
});
