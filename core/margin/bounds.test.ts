import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isTie, rank, standardUncertainty, surelyBelow, writeRank, type Bounds } from './bounds';

const checked = (latest: number, interval: number): Bounds => ({ low: latest - interval, high: latest });
const places = (all: (Bounds | undefined)[], better: 'less' | 'more' = 'less', spread?: number) =>
  rank(all, better, spread).map((each) => each && writeRank(each));

it('is width ÷ √12 for a value known only to lie in an interval', () => {
  // JCGM 100:2008 (GUM) 4.3.7, from memory: half-width a gives a/√3.
  expect(standardUncertainty({ low: 85, high: 90 })).toBeCloseTo(2.5 / Math.sqrt(3), 12);
  expect(standardUncertainty({ low: 85, high: Infinity })).toBeUndefined();
});

describe('told apart or tie', () => {
  // Common practice, no source: checks every 5 min; 85–90 and 90–95 min touch, so they tie.
  it('ties two full times whose bounds touch', () => {
    expect(isTie(checked(90, 5), checked(95, 5))).toBe(true);
    expect(isTie(checked(90, 5), checked(90, 5), 0)).toBe(true);
  });

  // Common practice, no source: 5 / 12 / 20 / 30 / 35 W, full at 215, 115, 95, 90, 95 min; the last three are a tie.
  it('ties 20, 30 and 35 W on a phone that takes about 23 W', () => {
    expect(places([215, 115, 95, 90, 95].map((full) => checked(full, 5)))).toEqual(['5', '4', '1=', '1=', '1=']);
  });

  it('wants a gap wider than charging varies from run to run', () => {
    expect(surelyBelow(checked(90, 1), checked(93, 1))).toBe(false);
    expect(surelyBelow(checked(90, 1), checked(95, 1))).toBe(true);
    expect(surelyBelow(checked(90, 1), checked(93, 1), 0.01)).toBe(true);
  });

  it('knows a run that never got there to be slower, once it went on long enough', () => {
    const never: Bounds = { low: 300, high: Infinity };
    expect(surelyBelow(checked(90, 5), never)).toBe(true);
    expect(isTie(checked(400, 5), never)).toBe(true);
    expect(isTie(never, never)).toBe(true);
  });
});

describe('ranks', () => {
  it('gives 1=, 1=, 2 where ties do not chain', () => {
    const chain = [checked(100, 10), checked(108, 10), checked(118, 10)];
    expect(places(chain, 'less', 0)).toEqual(['1=', '1=', '2']);
  });

  it('leaves out what has no value, and turns round where more is better', () => {
    expect(places([{ low: 20, high: 21 }, undefined, { low: 30, high: 31 }], 'more')).toEqual(['2', undefined, '1']);
  });

  it('never ranks both of two runs above each other, and always has a first', () => {
    const bounds = fc
      .tuple(fc.double({ min: 1, max: 500, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }))
      .map(([low, width]) => ({ low, high: low + width }));
    fc.assert(
      fc.property(fc.array(bounds, { minLength: 1, maxLength: 8 }), (all) => {
        for (const one of all) for (const other of all) expect(surelyBelow(one, other) && surelyBelow(other, one)).toBe(false);
        expect(rank(all, 'less').some((each) => each?.place === 1)).toBe(true);
      }),
    );
  });
});
