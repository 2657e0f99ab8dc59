import { describe, expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import type { Entry } from '../ink/entry';
import { foldRun } from '../ink/fold';
import { seeded } from '../simulate/seeded';
import { castOf, scoreOf, standIn, type Actor } from './rehearsal';

const [actor] = castOf(1, 7, 0, 300) as [Actor];
const shown = (minutes: number, off = 0) => {
  const { percent, watts } = actor.sight(minutes * 60);
  return { seconds: minutes * 60, percent: percent + off, watts };
};

describe('a rehearsal', () => {
  it('has one to six stand-ins that charge alike from one seed, and never fall', () => {
    expect(castOf(9, 1, 0, 300)).toHaveLength(6);
    expect(castOf(0, 1, 0, 300)).toHaveLength(1);
    for (const one of castOf(6, 3, 0, 300)) {
      const levels = Array.from({ length: 60 }, (_, index) => one.sight(index * 300).percent);
      expect(levels).toEqual([...levels].sort((left, right) => left - right));
      expect(levels.at(-1)).toBeGreaterThan(60);
      const { volts, amps, watts } = one.sight(600);
      expect(volts * amps).toBeCloseTo(watts);
    }
    expect(castOf(2, 3, 0, 300)[1]?.sight(1200)).toEqual(castOf(2, 3, 0, 300)[1]?.sight(1200));
  });

  it('scores lateness, misses and slips, and slips that were mended', () => {
    const ink = inkOf(actor.header, [shown(5), shown(10.75), shown(20, 12)]);
    const strike: Entry = { kind: 'strike', seq: 9, id: 's', at: 0, written: 0, target: ink[2]?.id ?? '', reason: 'slipped' };
    expect(scoreOf(foldRun(actor.header, ink), actor, 1300)).toMatchObject({
      checks: 4,
      onTime: 2,
      late: 1,
      missed: 1,
      lateness: 15,
      slips: 1,
      mended: 0,
    });
    expect(scoreOf(foldRun(actor.header, [...ink, strike]), actor, 1300)).toMatchObject({ slips: 0, mended: 1 });
  });

  it('has a stand-in that reads what is shown, mostly in time', () => {
    const noise = seeded(5);
    const all = Array.from({ length: 400 }, () => standIn(noise));
    const sight = { percent: 50, volts: 9, amps: 2, watts: 18, celsius: 30 };
    const wrong = all.filter(({ read }) => read(sight).percent !== 50).length;
    expect(wrong / all.length).toBeGreaterThan(0.01);
    expect(wrong / all.length).toBeLessThan(0.12);
    expect(all.filter(({ after }) => after === undefined).length).toBeLessThan(40);
    expect(all.every(({ after = 20 }) => after > 3 && after <= 40)).toBe(true);
  });
});
