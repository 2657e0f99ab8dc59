// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, stored } from '../ledger/testBrowser';
import { beforeEach, expect, it } from 'vitest';
import { SCHEMA } from '@core/ink';
import { SCHOOLS, type OwnMethod } from '@core/method';
import { useMethods } from './methods';

const mine: OwnMethod = {
  id: 'mine',
  name: 'Every three minutes',
  start: '5 %',
  startLevel: 5,
  cadence: { kind: 'fixed', every: 180 },
  records: 'the level',
  stops: 'at 80 %',
  goodFor: '',
  weakAt: '',
  rule: { ends: 'full', wants: ['level'] },
  conditions: [{ name: 'case', value: 'off' }],
};

beforeEach(async () => {
  await emptyBrowser();
});

it('keeps methods of one’s own beside the schools of the trade, and throws one away', async () => {
  await useMethods().put(mine);
  expect(await stored('method/mine')).toEqual({ schema: SCHEMA, method: mine });
  newTab();
  const methods = useMethods();
  await methods.load();
  expect(methods.all).toHaveLength(SCHOOLS.length + 1);
  expect(methods.byId('mine')).toEqual(mine);
  expect([methods.isOwn('mine'), methods.isOwn('fixed-interval')]).toEqual([true, false]);
  // One kept before methods said what ends a run.
  await methods.put({ ...mine, id: 'old', rule: undefined } as unknown as OwnMethod);
  expect(methods.byId('old')?.rule).toEqual({ ends: 'full', wants: ['level'] });
  await methods.remove('old');
  await methods.remove('mine');
  expect(methods.own).toEqual([]);
});
