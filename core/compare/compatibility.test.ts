import { expect, it } from 'vitest';
import type { Entry, Trial } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { compatibility } from './compatibility';

const header = exampleHeader();
let seq = 0;
const tryOut = (name: string, minutes: number, rest: Partial<Trial> = {}): Trial => {
  const at = header.plugInAt + minutes * 60_000;
  seq += 1;
  return {
    ...{ kind: 'trial', seq, id: `t${seq}`, at, written: at, state: 'awake', status: 'slow' },
    source: { charger: { id: name, name, kind: 'adapter', watts: 20 } },
    ...rest,
  };
};
const tableOf = (...entries: Entry[]) => compatibility(foldRun(header, entries));

it('has a row for each charger in the order tried, awake and asleep apart, and counts the last of two', () => {
  const rows = tableOf(
    tryOut('Cobble 20', 0, { status: 'fast', watts: 18, chime: true, icon: true, meter: true }),
    tryOut('Old brick', 2, { status: 'refuses', chime: true, icon: false, meter: false }),
    tryOut('Cobble 20', 4, { state: 'asleep', status: 'fast', volts: 9, amps: 2.1 }),
    tryOut('Old brick', 5, { status: 'not charging', chime: true, icon: true, meter: false }),
  );
  expect(rows.map(({ name, awake, asleep }) => [name, awake?.status, asleep?.status])).toEqual([
    ['Cobble 20', 'fast', 'fast'],
    ['Old brick', 'not charging', undefined],
  ]);
  expect(rows[0]?.asleep?.watts).toBeCloseTo(18.9);
  expect(rows[0]?.awake?.disagrees).toBeUndefined();
  expect(rows[1]?.awake?.disagrees).toBe('chime and icon yes, meter no');
});

it('keeps the ports of one charger apart, and says through which and by which cable', () => {
  const ports = [{ connector: 'USB-C' as const }, { connector: 'USB-A' as const, name: 'side' }];
  const source = { charger: { id: 'two', name: 'Quern two', kind: 'adapter' as const, watts: 45, ports } };
  const cable = { id: 'c', name: 'grey, 1 m', chargerEnd: 'USB-C', deviceEnd: 'USB-C', marker: 'none' } as const;
  const rows = tableOf(
    tryOut('', 0, { source: { ...source, port: 0, cable } }),
    tryOut('', 2, { source: { ...source, port: 1 } }),
    tryOut('', 4, { source: { charger: { ...source.charger, id: 'one' }, cable } }),
  );
  expect(rows.map(({ through }) => through)).toEqual(['port 1, grey, 1 m', 'side', 'grey, 1 m']);
});

// trade.md: a minute cannot tell holding from draining; some wait 10–15 min to see the level move.
it('leaves open whether a slow charger holds or drains until a second look at the level', () => {
  const first = tryOut('Port of a computer', 0, { percent: 47, watts: 2.5 });
  expect(tableOf(first)[0]?.awake).toMatchObject({ isSure: false, says: 'charges slowly' });
  const look = (percent: number) => tableOf(first, tryOut('Port of a computer', 12, { confirms: first.id, percent }))[0]?.awake;
  expect(look(46)).toMatchObject({ status: 'drains', isSure: true, says: 'drains while plugged in; −1 % in 12 min' });
  expect(look(47)).toMatchObject({ status: 'holds', says: 'holds the level; the level stood still in 12 min' });
  expect(look(49)).toMatchObject({ status: 'slow', says: 'charges slowly; +2 % in 12 min' });
});

it('keeps a second look when its trial is written again, takes one that connects and does not charge for doubtful, and follows the list', () => {
  const first = tryOut('Cobble 20', 0, { percent: 47, status: 'not charging', state: 'off' });
  const look = tryOut('Cobble 20', 12, { confirms: first.id, percent: 47, state: 'off' });
  const again = { ...tryOut('Cobble 20', 0, { percent: 46, status: 'not charging', state: 'off' }) };
  const strike: Entry = { kind: 'strike', seq: 90, id: 'x', at: first.at, written: first.at, target: first.id, reason: 'misread' };
  const old = tryOut('Old brick', 20, { status: 'fast' });
  const list: Entry = { kind: 'list', seq: 91, id: 'l', at: first.at, written: first.at, sources: [old.source, first.source] };
  expect(tableOf(first).at(0)?.off?.isSure).toBe(false);
  expect(tableOf(first, look).at(0)?.off).toMatchObject({ status: 'not charging', isSure: true });
  const rows = tableOf(first, look, again, strike, old, list);
  expect(rows.map(({ name }) => name)).toEqual(['Old brick', 'Cobble 20']);
  expect(rows[1]?.off).toMatchObject({ status: 'slow', isSure: true });
});

// Common practice, no source: a pad that draws 19 W and is taken to give 15 W passes on 79 %; 0.95 A at 5 V is 5.26 Ω (checks.md).
it('works out what a pad passes on, and the load that a meter shows', () => {
  const pad = (wattsOut: number) => tableOf(tryOut('Puddle', 0, { watts: 19, wattsOut, wattsOutAssumed: true })).at(0)?.awake?.efficiency;
  expect(pad(15)?.share).toBeCloseTo(0.79, 2);
  expect(pad(14)).toMatchObject({ isAssumed: true });
  expect(pad(20)).toBeUndefined();
  expect(tableOf(tryOut('Quern', 0, { volts: 5, amps: 0.95 })).at(0)?.awake?.ohms).toBeCloseTo(5.26, 2);
});

it('tells sources of one charger apart by what feeds them, and by the voltage they are held to', () => {
  const pad = { id: 'pad', name: 'Puddle', kind: 'pad', watts: 15 } as const;
  const brick = (watts: number) => ({ charger: { id: `b${watts}`, name: `Cobble ${watts}`, kind: 'adapter', watts } as const });
  const rows = tableOf(
    tryOut('', 0, { source: { charger: pad, feed: brick(20) } }),
    tryOut('', 1, { source: { charger: pad, feed: brick(12) } }),
    tryOut('', 2, { source: { ...brick(20), held: 9 } }),
    tryOut('', 3, { source: { ...brick(20), held: 5 } }),
  );
  expect(rows.map(({ name }) => name)).toEqual([
    'Puddle fed by Cobble 20',
    'Puddle fed by Cobble 12',
    'Cobble 20 held to 9 V',
    'Cobble 20 held to 5 V',
  ]);
});
