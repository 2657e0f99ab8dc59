import { expect, it } from 'vitest';
import { runsFound, runsInOrder } from './runList';
import type { Summary } from './summary';

const run = (id: string, rest: Partial<Summary>): Summary => ({
  ...{ id, plugInAt: Number(id), device: 'Sedge 5', charger: 'Cobble 20', pen: 0, end: 3600, timeTo80: '', timeTo100: '', outline: [] },
  ...rest,
});
const ids = (all: readonly Summary[]) => all.map(({ id }) => id);
const all = [
  run('1', { charger: 'Cobble 12', reached: { eighty: 90, full: undefined }, tags: ['hot day'], stop: 'full', method: 'top-up-window' }),
  run('2', { charger: 'Cobble 7', reached: { eighty: 60, full: 120 }, end: 7200, study: { id: 's', cell: 'x' } }),
  run('3', { device: 'Heron 3', note: 'beside the oven' }),
];

it('stands in natural order of numbers, and by what was reached; what was not comes last', () => {
  expect(ids(runsInOrder(all, 'newest'))).toEqual(['3', '2', '1']);
  expect(ids(runsInOrder(all, 'oldest'))).toEqual(['1', '2', '3']);
  expect(ids(runsInOrder([...all].reverse(), 'oldest'))).toEqual(['1', '2', '3']);
  expect(ids(runsInOrder(all, 'charger'))).toEqual(['2', '1', '3']);
  expect(ids(runsInOrder(all, 'device'))).toEqual(['3', '2', '1']);
  expect(ids(runsInOrder(all, 'eighty'))).toEqual(['2', '1', '3']);
  expect(ids(runsInOrder(all, 'full'))).toEqual(['2', '3', '1']);
  expect(ids(runsInOrder(all, 'longest'))).toEqual(['2', '3', '1']);
  // Each by the other where it is the same; a summary of an older program knows nothing that was reached.
  const phones = [run('4', { device: 'Sedge 12' }), run('5', { device: 'Sedge 7', charger: 'Quern' }), run('6', { device: 'Sedge 7' })];
  for (const given of [phones, [...phones].reverse()]) {
    expect(ids(runsInOrder(given, 'device'))).toEqual(['6', '5', '4']);
    expect(ids(runsInOrder(given, 'charger'))).toEqual(['6', '4', '5']);
    expect(ids(runsInOrder([...given, ...all], 'eighty')).slice(0, 2)).toEqual(['2', '1']);
    expect(ids(runsInOrder([...given, ...all], 'full'))).toEqual(['2', '6', '5', '4', '3', '1']);
  }
});

it('is looked through by words in names, tags and notes, and by every fact', () => {
  expect(ids(runsFound(all, { words: 'cobble HOT' }))).toEqual(['1']);
  expect(ids(runsFound(all, { words: 'oven' }))).toEqual(['3']);
  expect(ids(runsFound(all, { device: 'Sedge 5', study: 's' }))).toEqual(['2']);
  expect(ids(runsFound(all, { tag: 'hot day' }))).toEqual(['1']);
  expect(ids(runsFound(all, { ending: 'full', method: 'top-up-window' }))).toEqual(['1']);
  expect(ids(runsFound(all, { from: 2, before: 3 }))).toEqual(['2']);
  expect(ids(runsFound(all, {}))).toEqual(['1', '2', '3']);
});
