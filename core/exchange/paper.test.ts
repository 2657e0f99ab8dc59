import { expect, it } from 'vitest';
import { figuresOf } from '../curve/figures';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { runMisfit } from './runMisfit';
import { cadenceOf, readColumns, readGrid, readTime, runFromPaper } from './paper';

let id = 0;
const nextId = () => `id${(id += 1)}`;
const runOf = (text: string, column: number) => {
  const grid = readGrid(text);
  const { columns, faults } = readColumns(grid);
  const found = columns[column] ?? { drafts: [] };
  const header = exampleHeader({ cadence: cadenceOf(grid, found), source: 'paper' });
  return { faults, run: runFromPaper(found, header, nextId, header.plugInAt) };
};

// Common practice, no source: three phones on 10 / 20 / 50 W, from 0 %, readings at 5, 10, 14:25, 20, 30 min (checks.md).
const PHONES = [
  '\t10 W\t20 W\t50 W',
  '0\tdead\t0\t0',
  '5\t5\t8\t11',
  '10\t8\t16\t33',
  '14:25\t13\t24\t50',
  '20\t18\t33\t67',
  '30\t28\t50\t93',
].join('\n');

it('reads a grid off the clipboard: the time down, a setup in each column', () => {
  expect(readGrid(PHONES)).toMatchObject({ headings: ['10 W', '20 W', '50 W'], times: ['0', '5', '10', '14:25', '20', '30'] });
  const { faults, run } = runOf(PHONES, 2);
  expect(faults).toEqual([]);
  expect(runMisfit(run)).toBeUndefined();
  const record = foldRun(run.header, run.entries);
  expect(record.readings.map(({ seconds, reading }) => [seconds, reading.percent, reading.paper])).toEqual([
    [0, 0, true],
    [300, 11, true],
    [600, 33, true],
    [865, 50, true],
    [1200, 67, true],
    [1800, 93, true],
  ]);
  expect(run.header.cadence).toEqual({ kind: 'marks', at: [300, 600, 865, 1200, 1800] });
  expect(record.stop).toMatchObject({ seconds: 1800, because: 'window over', remark: 'from paper' });
});

it('has the gains of a phone that was dead from 0 %, assumed', () => {
  const { run } = runOf(PHONES, 0);
  const [gain] = figuresOf(foldRun(run.header, run.entries), { levels: [], marks: [1800] }).gains;
  expect(gain).toMatchObject({ state: 'known', value: 28, isAssumed: true });
});

// Common practice, no source: one phone on 5 and 20 W, full at 215 and 95 min; a run ends where it was full.
it('ends a run with its last cell, by what that says; what is empty before is a check that was missed', () => {
  const text = '"";A;B\n0;1;1\n1 h 30;40;90\n95 min;;100\n2 h;60;\n3 h 35;100;';
  const [slow, fast] = [0, 1].map((column) => runOf(text, column).run);
  expect(slow?.entries.at(-1)).toMatchObject({ kind: 'stop', because: 'full' });
  expect(slow?.header.cadence).toEqual({ kind: 'marks', at: [5400, 5700, 7200, 12_900] });
  expect(fast?.header.cadence).toEqual({ kind: 'marks', at: [5400, 5700] });
  const lit = runOf('0,0.5a\n206,light out', 0).run;
  expect(lit.entries.map((entry) => entry.kind)).toEqual(['reading', 'event', 'stop']);
  expect(lit.entries.at(-1)).toMatchObject({ because: 'light out' });
});

it('says of each cell that it cannot read why, and where', () => {
  const { faults } = readColumns(readGrid('\tA\tB\n5\t42x\t@3 4\n5\t7\t8\nsoon\t9\t10\n20\tdead\t140'));
  expect(faults.map(({ row, column }) => [row, column])).toEqual([
    [0, 0],
    [0, 1],
    [1, undefined],
    [2, undefined],
    [3, 0],
    [3, 1],
  ]);
  expect(faults[2]?.says).toContain('in order');
});

it('takes the times of a clip for those of the run', () => {
  const grid = readGrid('0:12\t2\n1:12\t4\n2:12\t6');
  const { columns } = readColumns(grid, { offset: 12, speed: 60, cuts: [] });
  expect(columns[0]?.drafts.map(({ seconds }) => seconds)).toEqual([0, 3600, 7200]);
});

it.each([
  ['10', 600],
  ['14:25', 865],
  ['1:02:05', 3725],
  ['1 h 30', 5400],
  ['2h', 7200],
  ['2,5 min', 150],
  ['40 s', 40],
  ['soon', undefined],
  ['', undefined],
])('reads %j as a time', (text, seconds) => {
  expect(readTime(text)).toBe(seconds);
});
