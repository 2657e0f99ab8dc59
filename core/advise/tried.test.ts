import { describe, expect, it } from 'vitest';
import type { Workload } from '../curve/workloads';
import { exampleHeader } from '../ink/example';
import type { Trial } from '../ink/entry';
import { foldRun } from '../ink/fold';
import { compatibility } from '../compare/compatibility';
import { charges, ranked, underLoad } from './tried';

const run = foldRun(exampleHeader(), []);
const work = (source: string, score: number, batteryWatts: number, name = 'graphics'): Workload => ({
  ...{
    name,
    source,
    from: 0,
    to: 600,
    inputWatts: 55,
    batteryWatts,
    usedWatts: 55 - batteryWatts,
    gain: 1,
    input: 'charged',
    isOver: true,
  },
  scores: [{ name: 'frames', value: score, unit: 'fps', better: 'more' }],
});

describe('under load', () => {
  // Common practice, no source (checks.md): a 60 W dock under graphics load, 2.3 W into the battery, scores equal to the full adapter's.
  it('does not slow it down where scores tie, and the battery fills where watts go into it', () => {
    const [dock, fills] = underLoad([{ run, workloads: [work('dock', 98, 2.3), work('adapter', 100, 29)] }]);
    expect(dock).toMatchObject({ need: 'dock', says: 'No: no source scores worse in graphics' });
    expect(fills).toMatchObject({ need: 'fills', says: 'Yes, under every load' });
    expect(fills?.why).toContain('dock, graphics: 2.3 W into the battery of 55.0 W in.');
  });

  it('names what scores surely worse, and what drains', () => {
    const [dock, fills] = underLoad([{ run, workloads: [work('dock', 80, -4), work('adapter', 100, 29)] }]);
    expect(dock?.says).toBe('Yes: dock in graphics');
    expect(dock?.why).toContain('dock scores surely worse in graphics (frames).');
    expect(fills?.says).toBe('Not under every load: it drains on dock in graphics');
  });

  it('says nothing of work on one source alone', () => {
    expect(underLoad([{ run, workloads: [work('dock', 80, -4)] }])).toEqual([]);
  });
});

describe('does it charge at all', () => {
  const trial = (seq: number, charger: string, status: Trial['status'], state: Trial['state'] = 'awake'): Trial => {
    const at = exampleHeader().plugInAt + seq * 60_000;
    const source = { charger: { id: charger, name: charger, kind: 'adapter' as const, watts: 20 } };
    return { kind: 'trial', seq, id: `t${seq}`, at, written: at, source, state, status };
  };

  it('counts what does, and names what does not, awake, asleep and off', () => {
    const sitting = foldRun(exampleHeader({ list: [] }), [
      trial(1, 'A', 'fast'),
      trial(2, 'B', 'not charging'),
      trial(3, 'B', 'slow', 'asleep'),
      trial(4, 'C', 'drains', 'off'),
    ]);
    const [found] = charges([sitting]);
    expect(found?.says).toBe('fast: A; only asleep: B; C drains while plugged in');
    expect(found?.why).toMatch(/^Whether the level moves was not seen of 3 of these: a second look after 12 min /);
    expect(charges([])).toEqual([]);
  });

  it('ranks by how well they charge, names three of a kind and counts more, and says of several what they do', () => {
    const sitting = foldRun(
      exampleHeader({ list: [] }),
      (
        [
          ['A', 'slow'],
          ['B', 'fast'],
          ['C', 'slow'],
          ['D', 'slow'],
          ['E', 'charges'],
          ['F', 'refuses'],
          ['G', 'refuses'],
          ['H', 'not charging'],
          ['I', 'holds'],
          ['J', 'not charging'],
          ['J', 'slow', 'off'],
        ] as const
      ).map(([charger, status, state], index) => trial(index + 1, charger, status, state)),
    );
    expect(charges([sitting])[0]?.says).toBe(
      'fast: B; charges, how fast not seen: E; slowly: A, C and D; only switched off: J; F and G do nothing; H connects and does not charge; I holds the level',
    );
    const many = foldRun(
      exampleHeader({ list: [] }),
      ['A', 'B', 'C', 'D'].flatMap((charger, index) => [
        trial(2 * index + 1, charger, 'fast'),
        trial(2 * index + 2, `not ${charger}`, 'not charging'),
      ]),
    );
    expect(charges([many])[0]?.says).toBe('fast: four; four connect and do not charge');
    expect(ranked(compatibility(sitting)).map(({ name }) => name)).toEqual(['B', 'E', 'A', 'C', 'D', 'J', 'F', 'G', 'H', 'I']);
  });
});
