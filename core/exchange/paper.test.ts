import fc from 'fast-check';
import { expect, it } from 'vitest';
import { figuresOf } from '../curve/figures';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { runMisfit } from './runMisfit';
import { cadenceOf, gearNamedIn, readColumns, readGrid, readTime, runFromPaper } from './paper';
import { withoutRow, withRowAsFact } from './paperEdit';

let id = 0;
const nextId = () => `id${(id += 1)}`;
const gridOf = (text: string, shelf?: Parameters<typeof readGrid>[1]) => {
  const grid = readGrid(text, shelf);
  if ('refused' in grid) throw new Error(grid.refused);
  return grid;
};
const runOf = (text: string, column: number) => {
  const grid = gridOf(text);
  const { columns, faults } = readColumns(grid);
  const found = columns[column] ?? { drafts: [] };
  const header = exampleHeader({ cadence: cadenceOf(found), source: 'paper' });
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
  expect(readGrid(PHONES)).toMatchObject({ facts: { charger: ['10 W', '20 W', '50 W'] }, times: ['0', '5', '10', '14:25', '20', '30'] });
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
it('ends a run with its last cell, by what that says; what is empty is no check', () => {
  const text = '"";A;B\n0;1;1\n1 h 30;40;90\n95 min;;100\n2 h;60;\n3 h 35;100;';
  const [slow, fast] = [0, 1].map((column) => runOf(text, column).run);
  expect(slow?.entries.at(-1)).toMatchObject({ kind: 'stop', because: 'full' });
  expect(slow?.header.cadence).toEqual({ kind: 'marks', at: [5400, 7200, 12_900] });
  expect(fast?.header.cadence).toEqual({ kind: 'marks', at: [5400, 5700] });
  expect(runOf('\tA\tB\n5\t7\t\n10\t\t9\n15\t20\t30', 1).run.header.cadence).toEqual({ kind: 'marks', at: [600, 900] });
  const lit = runOf('0,0.5a\n206,light out', 0).run;
  expect(lit.entries.map((entry) => entry.kind)).toEqual(['reading', 'event', 'stop']);
  expect(lit.entries.at(-1)).toMatchObject({ because: 'light out' });
});

it('says of each cell that it cannot read why, and where', () => {
  const { faults } = readColumns(gridOf('\tA\tB\n5\t42x\t@3 4\n5\t7\t8\nsoon\t9\t10\n20\tdead\t140'));
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
  const grid = gridOf('0:12\t2\n1:12\t4\n2:12\t6');
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

const SHELF = {
  devices: ['Sedge 5', 'Sedge 5 Max'].map((name) => ({ id: name, name })),
  chargers: ['Cobble 1', 'Cobble 12', 'Puddle'].map((name) => ({ id: name, name })),
};
it.each([
  ['Sedge 5 on Cobble 12', 'Sedge 5', 'Cobble 12'],
  ['sedge 5 max / cobble 12', 'Sedge 5 Max', 'Cobble 12'],
  ['Cobble 12 - Sedge 5', 'Sedge 5', 'Cobble 12'],
  ['Cobble 12', '', 'Cobble 12'],
  // What is not on the shelf stays as it is written, also where a name of the shelf stands in it.
  ['Cobble 120', '', 'Cobble 120'],
  ['Sedge 5 Mini on Cobble 12', 'Sedge 5 Mini', 'Cobble 12'],
  ['Heron 3 from Brick 45', 'Heron 3', 'Brick 45'],
  ['Cobble 12 Pro', '', 'Cobble 12 Pro'],
  ['10 W', '', '10 W'],
  ['', '', ''],
])('takes the heading %j for the device %j and the charger %j', (heading, device, charger) => {
  expect(gearNamedIn(heading, SHELF.devices, SHELF.chargers)).toEqual({ device, charger });
});

it('reads rows that say what a setup was, wherever they stand', () => {
  const grid = gridOf(
    '\tCobble 12\tPuddle\nCable:\tshort one\t\nFed by\t\tCobble 12\n0\t2\t2\n30\t40\t20\nScreen\ton\toff\nRoom\t21\t22',
    SHELF,
  );
  expect(grid.facts).toEqual({
    device: ['', ''],
    charger: ['Cobble 12', 'Puddle'],
    cable: ['short one', ''],
    'fed by': ['', 'Cobble 12'],
    screen: ['on', 'off'],
    'ambient, °C': ['21', '22'],
  });
  expect(grid.times).toEqual(['0', '30']);
});

it('takes a day and a time of day from rows of their own, whichever is above', () => {
  const times = (rows: string) => gridOf(`${rows}\n0\t5\t6`).facts['plugged in'];
  expect(times('Date\t5/11/2026\t6/11/2026\nStart time\t14:05\t9:10 pm')).toEqual(['5/11/2026 14:05', '6/11/2026 9:10 pm']);
  expect(times('Time of day\t14:05\t\nDay\t5/11/2026\t6/11/2026')).toEqual(['5/11/2026 14:05', '6/11/2026']);
});

it('leaves a row that is of no time to a person: left out, or a condition of each setup', () => {
  const grid = gridOf('Phone\tSedge 5\tSedge 5\nRun\t1\t2\nLamp:\ton\toff\n0\t5\t6\n10\t20\t21');
  expect(readColumns(grid).faults).toMatchObject([
    { row: 0, isNoTime: true },
    { row: 1, isNoTime: true },
  ]);
  const mended = withRowAsFact(withoutRow(grid, 0), 0);
  expect(readColumns(mended).faults).toEqual([]);
  expect(mended.facts).toMatchObject({ device: ['Sedge 5', 'Sedge 5'], Lamp: ['on', 'off'] });
  expect(mended.times).toEqual(['0', '10']);
});

it('takes 60 setups and 2,000 rows; of more it says how many, and takes nothing', () => {
  const text = (rows: number, columns: number) =>
    Array.from({ length: rows }, (_, row) => [row, ...Array.from({ length: columns }, () => 5)].join('\t')).join('\n');
  expect(gridOf(text(2000, 60))).toMatchObject({ times: { length: 2000 }, cells: { 0: { length: 60 } } });
  expect(readGrid(text(2, 61))).toEqual({ refused: expect.stringMatching(/^That is 61 setups, and 60 are the most/) as string });
  expect(readGrid(text(2001, 1))).toEqual({ refused: expect.stringMatching(/^That is 2001 rows, and 2000 are the most/) as string });
});

it('takes a full time alone, found or seen turning, in a cell or in a row of them', () => {
  for (const text of ['\tA\tB\n0\t2\t2\nfull\t95 min\t1 h 30!', '\tA\tB\n0\t2\t2\n10\tfull 95 min\tfull! at 1 h 30']) {
    const [found, seen] = [0, 1].map((column) => runOf(text, column).run.entries.filter(({ kind }) => kind === 'reading'));
    expect(found?.[1]).toMatchObject({ percent: 100, at: (found?.[0]?.at ?? 0) + 5_700_000 });
    expect(found?.[1]).not.toHaveProperty('turning');
    expect(seen?.[1]).toMatchObject({ percent: 100, turning: true, at: (seen?.[0]?.at ?? 0) + 5_400_000 });
  }
  expect(runOf('0\t2\n90\tfull', 0).run.entries.at(-1)).toMatchObject({ because: 'full' });
  expect(runOf('0\t2\n90\t80\nfull\t85', 0).faults).toEqual([
    { row: 2, column: 0, says: 'It was not full at 1 h 30 min: it cannot have been before.' },
  ]);
  expect(runOf('0\t2\nfull\tsoon', 0).faults).toHaveLength(1);
});

it('files what it accepts, cell for cell', () => {
  const cell = fc.oneof(
    fc.constant(''),
    fc.integer({ min: 1, max: 99 }).map((percent) => ({ text: String(percent), percent })),
    fc.tuple(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 990 })).map(([percent, deci]) => ({
      text: `${percent} ${deci / 10}w`,
      percent,
      watts: deci / 10,
    })),
  );
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 1, max: 3000 }), { minLength: 1, maxLength: 30 }),
      fc.integer({ min: 1, max: 8 }),
      fc.infiniteStream(cell),
      (minutes, columns, stream) => {
        const times = minutes.sort((one, other) => one - other);
        const cells = times.map(() =>
          Array.from({ length: columns }, () => stream.next().value as '' | { text: string; percent: number; watts?: number }),
        );
        const text = times
          .map((time, row) => [time, ...(cells[row] ?? []).map((each) => (each === '' ? '' : each.text))].join('\t'))
          .join('\n');
        const grid = gridOf(text);
        const { columns: read, faults } = readColumns(grid);
        expect(faults).toEqual([]);
        for (const [column, found] of read.entries()) {
          const header = exampleHeader({ cadence: cadenceOf(found), source: 'paper' });
          const run = runFromPaper(found, header, nextId, header.plugInAt);
          if (found.drafts.length > 0) expect(runMisfit(run)).toBeUndefined();
          const filed = foldRun(run.header, run.entries).readings.map(({ seconds, reading }) => [
            seconds / 60,
            reading.percent,
            reading.watts,
          ]);
          const typed = times.flatMap((time, row) => {
            const each = cells[row]?.[column] ?? '';
            return each === '' ? [] : [[time, each.percent, each.watts]];
          });
          expect(filed).toEqual(typed);
        }
      },
    ),
  );
});
