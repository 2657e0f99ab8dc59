// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, stored } from '../ledger/testBrowser';
import { beforeEach, expect, it } from 'vitest';
import { exampleHeader } from '../../core/ink/example';
import { STUDIES } from '../../demo/finished';
import { SCHEMA } from '@core/ink';
import { type Study } from '@core/plan';
import { useLanes } from './lanes';
import { plannedStart, startAgain } from './planned';
import { useLogbook } from './runs';
import { useShelf } from './shelf';
import { useStudies } from './studies';

const study = STUDIES[0] as Study;

beforeEach(async () => {
  await emptyBrowser();
});

it('keeps studies with their schema, and throws one away', async () => {
  await useStudies().put(study, { ...study, id: 'b', name: 'A later round' });
  expect(await stored(`study/${study.id}`)).toMatchObject({ schema: SCHEMA, devices: ['sedge-5', 'heron-3'] });
  newTab();
  await useStudies().load();
  expect(useStudies().all.map(({ name }) => name)).toEqual(['A later round', 'Van chargers, round one']);
  await useStudies().remove('b');
  expect(useStudies().all).toHaveLength(1);
});

it('knows which cells runs have filled, live and filed', async () => {
  const cell = 'sedge-5/quern-30//asleep';
  const header = exampleHeader({ study: { id: study.id, cell } });
  await useLanes().start(header, []);
  await useLanes().start(exampleHeader({ id: 'run-2', study: { id: 'another', cell } }), []);
  expect(useStudies().made(study.id)).toEqual([cell]);
  await useLanes().stop(header.id, { kind: 'stop', at: header.plugInAt + 1000, because: 'other' });
  expect(useLogbook().summaries).toMatchObject([{ study: { cell } }]);
  expect(useStudies().made(study.id)).toEqual([cell]);
});

it('opens a planned run with everything that the start asks for', async () => {
  const ids = { study: study.id, cell: 'sedge-5/quern-30//asleep' };
  await useStudies().put(study);
  expect(plannedStart(ids, useStudies(), useShelf())).toBeUndefined();
  await useShelf().put(
    { shelf: 'device', gear: { id: 'sedge-5', name: 'Sedge 5', kind: 'phone' } },
    { shelf: 'charger', gear: { id: 'quern-30', name: 'Quern 30', kind: 'adapter', watts: 30 } },
  );
  expect(plannedStart(ids, useStudies(), useShelf())).toMatchObject({
    title: 'As planned in Van chargers, round one',
    device: 'sedge-5',
    charger: 'quern-30',
    level: '2',
    method: { school: 'fixed-interval', timing: { every: '5' } },
    study: { id: study.id, cell: ids.cell },
    conditions: [{ name: 'state', value: 'asleep' }, { name: 'airplane mode' }, ...study.conditions.slice(1)],
  });
  expect(plannedStart({ ...ids, cell: 'sedge-5/gone//asleep' }, useStudies(), useShelf())).toBeUndefined();
  expect(plannedStart({ ...ids, study: 'gone' }, useStudies(), useShelf())).toBeUndefined();
});

it('takes a run again as it was, with the gear that is still on the shelf', () => {
  const header = exampleHeader({ method: 'Every three, case off' });
  const again = startAgain(header, 'the first run', useShelf(), [{ id: 'own-1', name: 'Every three, case off' }]);
  expect(again).toMatchObject({ title: 'As in the first run', device: '', charger: '', level: '', study: header.study });
  expect(again.method?.school).toBe('own-1');
});
