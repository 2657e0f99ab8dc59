import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EMPTY_TRACK, sighting, sightings, trackOf } from './track';
import { firstAfter } from '../samples/column';

const track = trackOf([
  { seconds: 300, value: 12, entry: 'b' },
  { seconds: 0, value: 2, entry: 'a' },
  { seconds: 600, value: 21 },
]);

describe('a track of one quantity', () => {
  it('stands in order of time, whatever order its rows came in', () => {
    expect(Array.from(track.seconds)).toEqual([0, 300, 600]);
    expect(Array.from(track.values)).toEqual([2, 12, 21]);
  });

  it('knows which ink a row came from, and that a sample came from none', () => {
    expect(sightings(track).map(({ entry }) => entry)).toEqual(['a', 'b', undefined]);
    expect(trackOf([{ seconds: 0, value: 1 }]).entries).toBeUndefined();
  });

  it('has nothing outside its rows', () => {
    expect(sighting(track, 3)).toBeUndefined();
    expect(sighting(track, -1)).toBeUndefined();
    expect(sighting(EMPTY_TRACK, 0)).toBeUndefined();
  });

  it('finds the first row after a moment, as a search from the start would', () => {
    const times = fc.uniqueArray(fc.integer({ min: 0, max: 500 })).map((all) => all.sort((one, other) => one - other));
    fc.assert(
      fc.property(times, fc.integer({ min: -10, max: 510 }), (seconds, moment) => {
        const found = firstAfter({ seconds }, moment);
        expect(found).toBe(seconds.filter((each) => each <= moment).length);
      }),
    );
  });
});
