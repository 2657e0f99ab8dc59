import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { inkOf, type Jotted } from '../ink/build';
import { readRun, type ReadRun } from '../curve/figures';
import { assumedSpread } from '../margin/assumed';
import { difference, writeRank, type Pooled } from '../margin/told';
import { compareRuns } from './compare';
import { measuresOf } from './measures';
import { setupsOf } from './setups';
import { speedUp } from './speedUp';

/** A run by minute and level; watts as far as a test needs them. */
const runOf = (id: string, ...rows: [minutes: number, percent: number, watts?: number][]) => {
  const header = exampleHeader({ id, charger: { id: `on ${id.split('/')[0] ?? id}`, name: 'Cobble', kind: 'adapter', watts: 20 } });
  const jotted = rows.map(([minutes, percent, watts]): Jotted => ({
    seconds: minutes * 60,
    percent,
    ...(watts !== undefined && { watts }),
  }));
  return readRun(foldRun(header, inkOf(header, jotted)));
};

/** The figures of setups in one column of the table. */
const cellsOf = (all: readonly ReadRun[], id: string) =>
  measuresOf(all, '%')
    .find((measure) => measure.id === id)
    ?.compare(setupsOf(all)) ?? [];

describe('time saved', () => {
  /** A time in seconds, known to so many. */
  const time = (value: number, uncertainty: number): Pooled => ({
    value,
    scale: value,
    runs: 1,
    checks: 1,
    uncertainty,
    spread: assumedSpread(),
    varies: 0,
    isLeast: false,
  });
  const between = (mine: Pooled, theirs: Pooled) => difference(mine, theirs);
  // Common practice, no source: one tablet, 1→100 %, 3 h 21 on 18 W against 2 h 37: 44 min saved.
  it('is 44 min, 22 % of the time and a rate 28 % higher for 2 h 37 against 3 h 21', () => {
    const [mine, theirs] = [time(157 * 60, 283), time(201 * 60, 362)];
    const { saved, share, rate, level } = speedUp(100, mine, theirs, between(mine, theirs));
    expect(saved.value / 60).toBe(44);
    expect(share?.value).toBeCloseTo(-0.219, 3);
    expect(rate?.value).toBeCloseTo(0.28, 2);
    expect(level).toBe(100);
    // GUM 5.1.6: 3 % of each add as squares to 4.2 % of the quotient; 95 % lie within ±1.96 of it.
    expect(saved.margin / 60).toBeCloseTo((1.96 * Math.hypot(283, 362)) / 60, 2);
    expect(rate?.margin).toBeCloseTo((201 / 157) * 1.96 * Math.hypot(283 / 9420, 362 / 12060), 3);
  });

  it('is half as fast again when two thirds of the time is left', () => {
    const pair = [time(60, 1), time(90, 1)] as const;
    expect(speedUp(80, ...pair, between(...pair)).rate?.value).toBeCloseTo(0.5, 12);
    // A run that starts at 79.6 % shows 80 at once: of no time there is no rate.
    const none = [time(0, 1), time(90, 1)] as const;
    expect(speedUp(80, ...none, between(...none))).toMatchObject({ level: 80, saved: { value: 90 }, share: undefined, rate: undefined });
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
    expect(rows[1]?.standing).toMatchObject({ level: 100, saved: { value: -25 * 60 } });
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
    expect(rows.map(({ gains }) => gains[1]?.each[0])).toMatchObject([{ value: 28 }, { value: 50 }, { value: 93 }]);
    expect(rows[0]?.gains[2]?.each[0]?.state).toBe('not covered');
  });

  it('says when only one of two got there, and by how much at least', () => {
    const both = [runOf('pad', [0, 2], [300, 81]), runOf('brick', [0, 2], [85, 99], [90, 100])];
    const rows = compareRuns(both, 'brick', 100);
    expect(rows[0]?.standing).toEqual({ state: 'only the baseline', level: 100, atLeast: 210 * 60 });
    const turned = compareRuns(both, 'pad', 100);
    expect(turned[1]?.standing).toMatchObject({ state: 'only this one', atLeast: 210 * 60 });
  });

  it('tells no time saved of one that is not known to have got there', () => {
    const [sure, least] = [runOf('sure', [0, 2], [85, 99], [90, 100]), runOf('least', [0, 2], [80, 99])];
    const rows = compareRuns([sure, least], 'sure', 100);
    expect(rows[1]?.standing).toEqual({ state: 'tie', level: 100 });
    expect(compareRuns([sure, runOf('alike', [0, 2], [86, 99], [91, 100])], 'sure', 100)[1]?.standing).toMatchObject({
      state: 'tie',
      saved: { told: 'tie' },
    });
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

describe('repeats of one setup', () => {
  const repeats = [runOf('strong/1', [0, 1], [90, 99], [95, 100]), runOf('strong/2', [0, 1], [96, 99], [101, 100])];
  const weak = runOf('weak', [0, 1], [195, 99], [200, 100]);

  it('are one row, with their mean, and never ranked against each other', () => {
    const rows = compareRuns([...repeats, weak], 'weak', 100);
    expect(rows.map(({ runs }) => runs.length)).toEqual([2, 1]);
    expect(rows[0]?.milestones[2]).toMatchObject({ mean: { runs: 2, value: 95.5 * 60 }, rank: { place: 1, shared: false } });
    expect(rows[0]?.standing).toMatchObject({ state: 'told apart', saved: { value: 102 * 60 } });
    const [written] = cellsOf([...repeats, weak], 'level-100');
    expect(written?.value).toBe('1 h 36');
    expect(written?.range).toMatch(/^± \d+ min, mean of 2$/);
  });

  it('have no place where one of them was not seen at the level', () => {
    const all = [...repeats, runOf('strong/3', [0, 1], [60, 70]), weak];
    expect(compareRuns(all, 'weak', 100)[0]?.milestones[2]).toMatchObject({ rank: undefined, mean: { isLeast: true } });
    expect(cellsOf(all, 'level-100')[0]).toMatchObject({ value: '2 of 3', isBest: false });
  });

  it('do not depend on the order in which runs are laid', () => {
    const all = [...repeats, weak, runOf('other', [0, 1], [120, 99], [125, 100])];
    const ranks = (runs: readonly ReadRun[]) =>
      Object.fromEntries(
        compareRuns(runs, 'weak', 100).map((row) => [row.run.header.charger.id, row.milestones.map(({ rank }) => rank?.place)]),
      );
    expect(ranks([...all].reverse())).toEqual(ranks(all));
  });
});

// Common practice, no source: 28 % and 93 % at one check, 10 and 50 W: told apart at 80 %, for the one that stood at 28 cannot get there in five minutes.
it('tells 28 % and 93 % at one check apart at 80 %', () => {
  const every = (id: string, ...levels: number[]) => runOf(id, ...levels.map((level, index): [number, number] => [index * 5, level]));
  const rows = compareRuns([every('ten', 0, 5, 10, 15, 20, 24, 28, 82), every('fifty', 0, 17, 33, 50, 64, 76, 93, 100)], 'ten', 80);
  expect(rows.map(({ milestones }) => milestones[1]?.rank?.place)).toEqual([2, 1]);
});

// Common practice, no source: a camera's light was out after 3 h 26 on its own charger, and after 3 h 46 from a bank.
it('ranks and bounds the light out of devices without a percentage', () => {
  const camera = (id: string, lit: number, out: number) => {
    const header = exampleHeader({ id, charger: { id: `on ${id}`, name: id, kind: 'adapter', watts: 5 } });
    const mark = (seq: number, minutes: number) => ({ seq, id: `${id}-${seq}`, at: header.plugInAt + minutes * 60_000, written: 0 });
    return readRun(
      foldRun(header, [
        { ...mark(1, lit), kind: 'event', event: 'light on' },
        { ...mark(2, out), kind: 'event', event: 'light off' },
      ]),
    );
  };
  const cells = cellsOf([camera('own', 205, 206), camera('bank', 225, 226), camera('slow', 299, 300)], 'light out');
  expect(cells.map(({ value }) => value)).toEqual(['3 h 26', '3 h 46', '5 h 00']);
  expect(cells.map(({ place }) => place)).toEqual(['1', '2', '3']);
  expect(cells[0]?.range).toBe('3 h 25–3 h 26');
});
