import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { centredOn, lookedAt, momentAt, panned, pinchZoom, pixelOf, stepFrom, zoomed } from './index';

const span = fc
  .record({ from: fc.double({ min: -5000, max: 5000, noNaN: true }), width: fc.double({ min: 1, max: 9000, noNaN: true }) })
  .map(({ from, width }) => ({ from, to: from + width }));

describe('a stretch that is looked at', () => {
  it('stays within the run and is never shorter than can be read, by whatever turns and drags it came about', () => {
    const act = fc.oneof(
      fc.record({ zoom: fc.double({ min: 0.01, max: 100, noNaN: true }), about: fc.double({ min: -100, max: 8000, noNaN: true }) }),
      fc.record({ pan: fc.double({ min: -3, max: 3, noNaN: true }) }),
      fc.record({ centre: fc.double({ min: -500, max: 9000, noNaN: true }) }),
    );
    fc.assert(
      fc.property(fc.double({ min: 60, max: 8000, noNaN: true }), fc.array(act, { maxLength: 30 }), (end, acts) => {
        let view: { from: number; to: number } | undefined;
        for (const each of acts) {
          const now = view ?? { from: 0, to: end };
          view = lookedAt(
            'zoom' in each ? zoomed(now, each.zoom, each.about) : 'pan' in each ? panned(now, each.pan) : centredOn(now, each.centre),
            end,
          );
          if (!view) continue;
          expect(view.from).toBeGreaterThanOrEqual(0);
          expect(view.to).toBeLessThanOrEqual(end + 1e-6);
          expect(view.to - view.from).toBeGreaterThanOrEqual(20 - 1e-6);
        }
      }),
    );
  });

  it('keeps the moment under the mouse where it is while it looks closer', () => {
    const edges = { left: 48, right: 848 };
    fc.assert(
      fc.property(span, fc.double({ min: 0.1, max: 5, noNaN: true }), fc.double({ min: 48, max: 848, noNaN: true }), (from, factor, x) => {
        const moment = momentAt(x, edges, from);
        expect(pixelOf(moment, edges, zoomed(from, factor, moment))).toBeCloseTo(x, 3);
      }),
    );
  });

  it('looks twice as close where two fingers go twice as far apart, and nowhere where they touch', () => {
    expect(pinchZoom(50, 100)).toBe(0.5);
    expect(pinchZoom(2, 100)).toBe(1);
  });

  it('goes from reading to reading, from outside onto the first or the last, and from beyond the last back onto it', () => {
    const moments = [0, 60, 120, 180];
    expect(stepFrom(moments, undefined, 1)).toBe(0);
    expect(stepFrom(moments, undefined, -1)).toBe(180);
    expect(stepFrom(moments, 60, 1)).toBe(120);
    expect(stepFrom(moments, 90, 1)).toBe(120);
    expect(stepFrom(moments, 90, -1)).toBe(60);
    expect(stepFrom(moments, 400, -1)).toBe(180);
    expect(stepFrom(moments, 400, 1)).toBe(180);
    expect(stepFrom(moments, 60, -10)).toBe(0);
    expect(stepFrom([], 60, 1)).toBeUndefined();
  });
});
