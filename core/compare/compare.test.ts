import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf, type Jotted } from '../ink/build';
import { readRun } from '../curve/figures';
import { writeRank } from '../margin/bounds';
import { compareRuns } from './compare';
import { speedUp } from './speedUp';

/** A run by minute and level; watts as far as a test needs them. */
const runOf = (id: string, ...rows: [minutes: number, percent: number, watts?: number][]) => {
  const header = exampleHeader({ id });
  const jotted = rows.map(([minutes, percent, watts]): Jotted => ({
    seconds: minutes * 60,
    percent,
    ...(watts !== undefined && { watts }),
  }));
  return readRun(foldRun(header, inkOf(header, jotted)));
};

describe('time saved', () => {
  // Common practice, no source: one tablet, 1→100 %, 3 h 21 on 18 W against 2 h 37: 44 min saved.
  it('is 44 min, 22 % of the time and a rate 28 % higher for 2 h 37 against 3 h 21', () => {
    const { saved, share, rate, level } = speedUp(100, 157 * 60, 201 * 60);
    expect(saved / 60).toBe(44);
    expect(share).toBeCloseTo(-0.219, 3);
    expect(rate).toBeCloseTo(0.28, 2);
    expect(level).toBe(100);
  });

  it('is half as fast again when two thirds of the time is left', () => {
    expect(speedUp(80, 60, 90).rate).toBeCloseTo(0.5, 12);
    // A run that starts at 79.6 % shows 80 at once: of no time there is no rate.
    expect(speedUp(80, 0, 90)).toEqual({ level: 80, saved: 90, share: undefined, rate: undefined });
  });
});

describe('runs laid beside each other', () => {
  // Common practice, no source: 5 / 12 / 20 / 30 / 35 W on one phone, full at 215, 115, 95, 90, 95 min, checks every 5 min at the end.
  const fives = [215, 115, 95, 90, 95].map((full, index) => runOf(`w${index}`, [0, 1], [full - 5, 99], [full, 100]));
  it('ranks the full times 5, 4 and a tie of three', () => {
    const rows = compareRuns(fives, 'w0', 100);
    expect(rows.map(({ milestones }) => milestones[2]?.rank && writeRank(milestones[2].rank))).toEqual(['5', '4', '1=', '1=', '1=']);
  });

  it('sets each against the baseline at the level asked for', () => {
    const rows = compareRuns(fives, 'w3', 100);
    expect(rows.map(({ standing }) => standing.state)).toEqual(['told apart', 'told apart', 'tie', 'baseline', 'tie']);
    expect(rows[1]?.standing).toMatchObject({ level: 100, saved: -25 * 60 });
  });

  // Common practice, no source: gains of 10 / 20 / 50 W on three phones at uneven times.
  it('tells gains apart where their margins do not meet', () => {
    const times = [0, 5, 10, 865 / 60, 20, 30];
    const levels = [
      [0, 5, 8, 13, 18, 28],
      [0, 8, 16, 24, 33, 50],
      [0, 11, 33, 50, 67, 93],
    ];
    const runs = levels.map((each, index) =>
      runOf(`p${index}`, ...times.map((minutes, at) => [minutes, each[at] ?? 0] as [number, number])),
    );
    const rows = compareRuns(runs, 'p0', 100);
    expect(rows.map(({ gains }) => gains[0]?.rank?.place)).toEqual([3, 2, 1]);
    expect(rows.map(({ gains }) => gains[1]?.found)).toMatchObject([{ value: 28 }, { value: 50 }, { value: 93 }]);
    expect(rows[0]?.gainedWattHours[1]).toBeCloseTo(4.5 * 3.85 * 0.28, 9);
    expect(rows[0]?.gains[2]?.found.state).toBe('not covered');
  });

  it('says when only one of two got there, and by how much at least', () => {
    const both = [runOf('pad', [0, 2], [300, 81]), runOf('brick', [0, 2], [85, 99], [90, 100])];
    const rows = compareRuns(both, 'brick', 100);
    expect(rows[0]?.standing).toEqual({ state: 'only the baseline', level: 100, atLeast: 210 * 60 });
    const turned = compareRuns(both, 'pad', 100);
    expect(turned[1]?.standing).toMatchObject({ state: 'only this one', atLeast: 210 * 60 });
  });

  it('has no time to compare where one started above the level', () => {
    const rows = compareRuns([runOf('low', [0, 2], [30, 60]), runOf('high', [0, 55], [30, 90])], 'low', 50);
    expect(rows[1]?.standing).toEqual({ state: 'no time', level: 50 });
    expect(rows.map(({ startLevel }) => startLevel)).toEqual([2, 55]);
  });
});

it('ranks no time that an adaptive setting decided', () => {
  const held = runOf('held', [0, 60, 18], [5, 80, 9], [10, 80, 0.4], [20, 80, 0.3], [30, 80, 0.4], [40, 100, 1]);
  const [first, other] = compareRuns([held, runOf('free', [0, 60], [50, 100])], 'free', 100);
  expect(first?.standing).toMatchObject({ state: 'no time' });
  expect([first?.milestones[2]?.rank, other?.milestones[2]?.rank]).toEqual([undefined, { place: 1, shared: false }]);
});
