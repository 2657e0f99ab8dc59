import { expect, it } from 'vitest';
import type { Entry, Trial } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { compatibility, likelyStatus } from './compatibility';

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
  expect(rows.map(({ charger, awake, asleep }) => [charger, awake?.status, asleep?.status])).toEqual([
    ['Cobble 20', 'fast', 'fast'],
    ['Old brick', 'not charging', undefined],
  ]);
  expect(rows[0]?.asleep?.watts).toBeCloseTo(18.9);
  expect(rows[0]?.awake?.disagrees).toBeUndefined();
  expect(rows[1]?.awake?.disagrees).toBe('chime and icon yes, meter no');
});

// trade.md: a minute cannot tell holding from draining; some wait 10–15 min to see the level move.
it('leaves open whether a slow charger holds or drains until a second look at the level', () => {
  const first = tryOut('Port of a computer', 0, { percent: 47, watts: 2.5 });
  expect(tableOf(first)[0]?.awake).toMatchObject({ isSure: false, says: 'charges slowly; whether the level moves was not seen' });
  const look = (percent: number) => tableOf(first, tryOut('Port of a computer', 12, { confirms: first.id, percent }))[0]?.awake;
  expect(look(46)).toMatchObject({ status: 'drains', isSure: true, says: 'drains while plugged in; −1 % in 12 min' });
  expect(look(47)).toMatchObject({ status: 'holds', says: 'holds the level; the level stood still in 12 min' });
  expect(look(49)).toMatchObject({ status: 'slow', says: 'charges slowly; +2 % in 12 min' });
});

it('suggests a status from what the meter shows', () => {
  const laptop = { inputLimit: 60, awakeWatts: 9 };
  const seen = (watts: number, state: 'awake' | 'asleep' = 'awake') => likelyStatus(laptop, { state, watts });
  expect([seen(0), seen(5), seen(9), seen(15), seen(45), seen(5, 'asleep')]).toEqual([
    'not charging',
    'drains',
    'holds',
    'slow',
    'fast',
    'slow',
  ]);
  expect(likelyStatus({}, { state: 'awake', volts: 9, amps: 1.4 })).toBe('fast');
  expect(likelyStatus({}, { state: 'awake' })).toBeUndefined();
});
