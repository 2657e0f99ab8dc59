import { expect, it } from 'vitest';
import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import { cellsOf } from '../plan/matrix';
import { columnsIn, isBlank, blankGrid, pastedAt, restLikeFirst, withCell, withColumn, withFact, withoutColumn } from './paperEdit';
import { gearOf, setupIn } from './paperSetup';
import { cellFor, studyOfPaper } from './paperStudy';
import type { PaperGrid } from './paper';

const sedge: Device = { id: 's', name: 'Sedge 5', kind: 'phone' };
const cobble: Charger = {
  id: 'c',
  name: 'Cobble 20',
  kind: 'adapter',
  ports: [{ connector: 'USB-C', name: 'left' }, { connector: 'USB-A' }],
};
const puddle: Charger = { id: 'p', name: 'Puddle', kind: 'pad', fedBy: 'c' };
const short: Cable = { id: 'k', name: 'Short one', chargerEnd: 'USB-C', deviceEnd: 'USB-C', marker: 'none' };
const SHELF = { devices: [sedge], chargers: [cobble, puddle], cables: [short] };
const moment = (typed: string) => (typed === '' ? undefined : Date.parse(typed));
const read = (facts: Record<string, string>) =>
  setupIn({ facts: Object.fromEntries(Object.entries(facts).map(([name, text]) => [name, [text]])) }, 0, SHELF, moment);

it('reads what stands above a column off the shelf, whatever its capitals', () => {
  const setup = read({
    ...{ device: 'sedge 5', charger: 'Cobble 20', cable: 'SHORT ONE', port: '2', state: 'Awake' },
    ...{ 'plugged in': '2026-11-26T14:05Z', screen: 'on', 'minutes left off before': '20' },
  });
  expect(setup).toMatchObject({
    device: sedge,
    charger: cobble,
    cable: short,
    port: 1,
    state: 'awake',
    plugInAt: Date.UTC(2026, 10, 26, 14, 5),
  });
  expect(setup.conditions).toEqual([
    { name: 'screen', value: 'on' },
    { name: 'minutes left off before', value: '20' },
  ]);
  expect([setup.unknown, setup.faults]).toEqual([[], []]);
  expect(read({ charger: 'Cobble 20', port: 'LEFT' }).port).toBe(0);
});

it('feeds a pad by what is said, else by what the shelf says, and nothing else', () => {
  expect(read({ charger: 'Puddle' }).feed).toEqual({ charger: cobble });
  expect(read({ charger: 'Puddle', 'fed by': 'Puddle' }).feed).toEqual({ charger: puddle });
  expect(read({ charger: 'Cobble 20', 'fed by': 'Puddle' })).toMatchObject({ feed: undefined, faults: { length: 3 } });
});

it('assumes no device, no time and no name: each is asked, and a name that is not there stays as typed', () => {
  expect(read({}).faults.map(({ fact }) => fact)).toEqual(['device', 'charger', 'plugged in']);
  const { unknown } = read({ device: 'Heron 3', charger: 'Brick 9', cable: 'blue' });
  expect(unknown).toEqual([
    { shelf: 'device', name: 'Heron 3' },
    { shelf: 'charger', name: 'Brick 9' },
    { shelf: 'cable', name: 'blue' },
  ]);
  const gear = gearOf([...unknown, { shelf: 'device', name: 'heron 3' }], () => 'new');
  expect(gear.map(({ shelf, gear: { name } }) => [shelf, name])).toEqual([
    ['device', 'heron 3'],
    ['charger', 'Brick 9'],
    ['cable', 'blue'],
  ]);
  expect(read({ charger: 'Cobble 20', port: '3' }).faults).toContainEqual({ fact: 'port', says: 'Cobble 20 has ports left and port 2.' });
  expect(read({ state: 'tired' }).faults).toContainEqual({ fact: 'state', says: 'Write asleep, awake, off or case on.' });
});

it('makes a study of what is on the paper: a setup twice is a repeat, what is not there is left out of it', () => {
  const other: Device = { ...sedge, id: 'h', name: 'Heron 3' };
  const setup = (device: Device, charger: Charger) => ({ device, charger, cable: undefined, feed: undefined, state: 'asleep' as const });
  const columns = [setup(sedge, cobble), setup(sedge, cobble), setup(other, cobble), setup(other, puddle)];
  const study = studyOfPaper(columns);
  expect(study).toMatchObject({
    devices: ['s', 'h'],
    chargers: ['c', 'p'],
    cables: [],
    repeats: 1,
    more: [{ cell: 's/c//asleep', runs: 1 }],
  });
  expect(study.crossed).toEqual([{ cell: 's/p//asleep', reason: 'not on the paper' }]);
  for (const each of columns) expect(cellFor(study, each)?.reason).toBeUndefined();
  expect(cellsOf(study).filter(({ reason }) => reason === undefined)).toHaveLength(3);
  // Cables are a part of the question only where each is known.
  const through = (cable: Cable | undefined) => ({ ...setup(sedge, cobble), cable });
  expect(studyOfPaper([through(short), through({ ...short, id: 'l' })]).cables).toEqual(['k', 'l']);
  expect(studyOfPaper([through(short), through(undefined)]).cables).toEqual([]);
});

const grid = blankGrid(3);
const taken = (found: PaperGrid | { refused: string }) => {
  if ('refused' in found) throw new Error(found.refused);
  return found;
};

it('writes a block from the cell on where it is pasted, and grows by what it needs', () => {
  const found = taken(pastedAt(grid, { row: 5, column: 2 }, '40\t50\n60\t70\n'));
  expect([columnsIn(found), found.times.length]).toEqual([4, 7]);
  expect(found.cells.slice(5)).toEqual([
    ['', '', '40', '50'],
    ['', '', '60', '70'],
  ]);
  expect(found.facts.device).toHaveLength(4);
  expect(taken(pastedAt(grid, { row: 1, column: -1 }, '7\t42')).times[1]).toBe('7');
  expect(taken(pastedAt(grid, { fact: 'cable', column: 1 }, 'a\tb')).facts.cable).toEqual(['', 'a', 'b']);
  expect(pastedAt(grid, { row: 0, column: 59 }, '1\t2')).toEqual({ refused: expect.stringContaining('61 setups') as string });
});

it('changes one cell and leaves every other row as it was', () => {
  const found = withCell(grid, 2, 1, '42');
  expect(found.cells[2]).toEqual(['', '42', '']);
  expect(found.cells[1]).toBe(grid.cells[1]);
  expect([isBlank(grid), isBlank(found)]).toEqual([true, false]);
  const wide = withColumn(withFact(found, 'cable', 0, 'blue'));
  expect(restLikeFirst(withFact(wide, 'cable', 2, 'red'), 'cable').facts.cable).toEqual(['blue', 'blue', 'red', 'blue']);
  expect(withoutColumn(wide, 0)).toMatchObject({ facts: { cable: ['', '', ''] }, cells: { 2: ['42', '', ''] } });
});
