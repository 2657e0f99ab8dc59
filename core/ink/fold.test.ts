import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inkOf } from './build';
import type { Entry, Reading } from './entry';
import { exampleHeader } from './example';
import { foldRun } from './fold';
import { sightings } from './track';

const header = exampleHeader();
const strike = (target: string, seq: number): Entry => {
  return { kind: 'strike', seq, id: `strike-${seq}`, at: header.plugInAt, written: header.plugInAt, target, reason: 'wrong row' };
};
/** What figures are worked out from: values by time, without who wrote them. */
const known = (entries: Entry[]) =>
  Object.values(foldRun(header, entries).tracks).map((track) => sightings(track).map(({ seconds, value }) => [seconds, value]));

const distinct = fc.uniqueArray(fc.record({ seconds: fc.integer({ min: 0, max: 20_000 }), percent: fc.integer({ min: 0, max: 100 }) }), {
  selector: ({ seconds }) => seconds,
  minLength: 1,
  maxLength: 20,
});

describe('the fold of a run’s ink', () => {
  it('does not mind the order in which distinct moments were entered', () => {
    const shuffled = distinct.chain((rows) => fc.tuple(fc.constant(rows), fc.shuffledSubarray(rows, { minLength: rows.length })));
    fc.assert(
      fc.property(shuffled, ([rows, other]) => {
        expect(known(inkOf(header, other))).toEqual(known(inkOf(header, rows)));
      }),
    );
  });

  it('counts a struck entry as never written, and keeps it', () => {
    fc.assert(
      fc.property(distinct, fc.nat(), (rows, pick) => {
        const ink = inkOf(header, rows);
        const gone = ink[pick % ink.length] as Reading;
        const struck = [...ink, strike(gone.id, ink.length + 1)];
        expect(known(struck)).toEqual(known(ink.filter((entry) => entry !== gone)));
        expect(foldRun(header, struck).struck.map(({ reading }) => reading)).toEqual([gone]);
      }),
    );
  });

  it('takes a strike back when the strike itself is struck', () => {
    const ink = inkOf(header, [{ seconds: 0, percent: 1 }]);
    expect(known([...ink, strike('run-1-1', 2), strike('strike-2', 3)])).toEqual(known(ink));
  });

  it('lets the later entry count of two at the same second', () => {
    const ink = inkOf(header, [
      { seconds: 300.2, percent: 45, volts: 9 },
      { seconds: 300.9, percent: 42 },
    ]);
    const { tracks } = foldRun(header, ink);
    expect(sightings(tracks.percent)).toMatchObject([{ seconds: 300.9, value: 42 }]);
    expect(sightings(tracks.volts)).toMatchObject([{ value: 9 }]);
  });

  it('works watts out from volts and amps, and keeps missing missing', () => {
    const { tracks } = foldRun(
      header,
      inkOf(header, [
        { seconds: 0, volts: 5, amps: 0.95 },
        { seconds: 60, volts: 5 },
      ]),
    );
    expect(sightings(tracks.watts)).toMatchObject([{ seconds: 0, value: 4.75 }]);
    expect(tracks.percent.seconds).toHaveLength(0);
  });

  it('lays readings among a meter’s samples, in order of time', () => {
    const samples = { percent: { seconds: Float64Array.of(0, 60, 120), values: Float64Array.of(10, 11, 12) } };
    const { tracks, end, sampled } = foldRun(header, inkOf(header, [{ seconds: 90, percent: 11 }]), samples);
    expect(sightings(tracks.percent).map(({ seconds }) => seconds)).toEqual([0, 60, 90, 120]);
    expect(end).toBe(120);
    expect(sampled.has('percent')).toBe(true);
  });
});
