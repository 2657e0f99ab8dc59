import { describe, expect, it } from 'vitest';
import { firstPath, type SoFar } from './firstPath';

const from = (some: Partial<SoFar>) => firstPath({ devices: 0, chargers: 0, live: 0, isRead: false, finished: 0, ...some });
const leads = (some: Partial<SoFar>) => {
  const { steps, atHand } = from(some);
  return steps.flatMap(({ id, act, to }) => (id === atHand ? [[id, act, to]] : [])).flat();
};

describe('the short path', () => {
  it('marks the step at hand, from nothing to the verdict, and one press leads there', () => {
    expect(leads({})).toEqual(['gear', 'Name a device and a charger', '/live/new']);
    expect(leads({ devices: 1 })).toEqual(['gear', 'Add a charger', '/bench?shelf=charger&add=1']);
    expect(leads({ devices: 1, chargers: 1 })).toEqual(['run', 'Start a run', '/live/new']);
    expect(leads({ devices: 1, chargers: 1, live: 1 })).toEqual(['read', 'Type a reading', '/live']);
    expect(leads({ devices: 1, chargers: 1, live: 1, isRead: true })).toEqual(['compare', 'See the run', '/live']);
    expect(leads({ devices: 1, chargers: 1, finished: 1 })).toEqual(['compare', 'Start another run', '/live/new']);
    expect(leads({ devices: 1, chargers: 2, finished: 2 })).toEqual(['compare', 'Compare the runs', '/compare']);
  });

  it('counts a run as gear too: a log that was imported has its own', () => {
    expect(from({ finished: 1 }).steps.map(({ isDone }) => isDone)).toEqual([true, true, true, false]);
  });
});
