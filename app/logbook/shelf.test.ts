// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, plant, stored } from '../ledger/testBrowser';
import { beforeEach, expect, it } from 'vitest';
import { type Kept } from '@core/bench';
import { SCHEMA } from '@core/ink';
import { useShelf } from './shelf';

beforeEach(async () => {
  await emptyBrowser();
});

const cobble: Kept = { shelf: 'charger', gear: { id: 'c', name: 'Cobble 20', kind: 'adapter', watts: 20 } };
const sedge: Kept = { shelf: 'device', gear: { id: 'd', name: 'Sedge 5', kind: 'phone' } };

it('keeps gear with its schema, and lists it by shelf and name', async () => {
  await useShelf().put(cobble, sedge, { ...cobble, gear: { ...cobble.gear, id: 'c2', name: 'Cobble 12' } });
  expect(await stored('charger/c')).toMatchObject({ schema: SCHEMA, shelf: 'charger' });
  newTab();
  await useShelf().load();
  expect(useShelf().all.map(({ gear }) => gear.name)).toEqual(['Sedge 5', 'Cobble 12', 'Cobble 20']);
  expect(useShelf().everything()).toMatchObject({ devices: [{ id: 'd' }], cables: [], meters: [] });
});

it('raises gear that was stored before it said its schema', async () => {
  await plant('charger/old', { shelf: 'charger', gear: { id: 'old', name: 'Puddle', kind: 'pad', watts: 15, label: '15W' } });
  await useShelf().load();
  expect(useShelf().chargers).toEqual([{ id: 'old', name: 'Puddle', kind: 'pad', watts: 15, ports: [{ connector: 'pad', label: '15W' }] }]);
});

it('offers what is retired no longer, keeps it, and brings it back', async () => {
  await useShelf().put(cobble);
  await useShelf().retire(cobble);
  expect(useShelf().chargers).toEqual([]);
  expect(useShelf().everything().chargers).toMatchObject([{ id: 'c', retired: true }]);
  const [retired] = useShelf().all;
  if (retired) await useShelf().retire(retired, false);
  expect(useShelf().chargers).toEqual([cobble.gear]);
  await useShelf().remove(cobble);
  expect(await stored('charger/c')).toBeUndefined();
});
