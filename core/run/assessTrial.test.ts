import { expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { assessTrial, type InHand } from './assessTrial';
import { likelyStatus } from './likelyStatus';

const header = exampleHeader();
const run = foldRun(header, []);
const now = header.plugInAt + 600_000;
const inHand: InHand = { source: { charger: { id: 'c', name: 'Cobble 20', kind: 'adapter', watts: 20 } }, state: 'awake' };

it('keeps all that is typed of a trial, at the time it was seen', () => {
  const values = { percent: 41, volts: 9, amps: 2, celsius: 31, batteryWatts: 12, seen: 300, note: 'warm' };
  expect(assessTrial(values, { ...inHand, status: 'fast', sights: { chimes: 2, chime: true } }, run, now)).toMatchObject({
    verdict: 'log',
    draft: { kind: 'trial', at: header.plugInAt + 300_000, celsius: 31, batteryWatts: 12, percent: 41, chimes: 2, remark: 'warm' },
  });
});

it('asks about what can hardly be, as elsewhere, and refuses what cannot', () => {
  expect(assessTrial({ watts: 45 }, inHand, run, now)).toMatchObject({ verdict: 'ask', draft: { sure: true } });
  expect(assessTrial({ volts: 9, amps: 2, watts: 12 }, inHand, run, now)).toMatchObject({ verdict: 'ask' });
  const pad: InHand = { ...inHand, source: { charger: { id: 'p', name: 'Puddle', kind: 'pad', watts: 5 }, feed: inHand.source } };
  expect(assessTrial({ watts: 12.6 }, pad, run, now)).toMatchObject({ verdict: 'log' });
  expect(assessTrial({ watts: 12 }, { ...pad, sights: { wattsOut: 15 } }, run, now)).toMatchObject({ verdict: 'ask' });
  expect(assessTrial({ watts: 12, seen: 6000 }, inHand, run, now)).toMatchObject({ verdict: 'refuse' });
  expect(assessTrial({ percent: 40 }, inHand, run, now)).toMatchObject({ verdict: 'refuse' });
});

it('keeps the moment of a trial that is written again', () => {
  const old = { ...inHand, kind: 'trial', status: 'fast', seq: 1, id: 't', at: now - 400_000, written: now } as const;
  expect(assessTrial({ watts: 18 }, { ...inHand, instead: old }, run, now)).toMatchObject({ draft: { at: old.at } });
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
