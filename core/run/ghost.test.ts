import { describe, expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { worthReading } from './extra';
import { ghostOf, writeGhost } from './ghost';

const read = (...rows: [minutes: number, percent: number][]) =>
  foldRun(
    exampleHeader(),
    inkOf(
      exampleHeader(),
      rows.map(([at, percent]) => ({ seconds: at * 60, percent })),
    ),
  );

describe('a ghost of an earlier run', () => {
  const earlier = read([0, 10], [10, 20], [20, 30], [30, 40]);

  it('says by how much a run is ahead, from the level at which it began', () => {
    const ghost = ghostOf(read([0, 20], [10, 36]), earlier.tracks.percent);
    expect(ghost).toMatchObject({ shift: -600, ahead: 360, margin: 600 });
    expect(writeGhost({ shift: 0, ahead: 360, margin: 300 })).toBe('ahead by 6 min');
    expect(writeGhost({ shift: 0, ahead: -720, margin: 300 })).toBe('behind by 12 min');
  });

  it('calls what the readings leave open level', () => {
    expect(writeGhost({ shift: 0, ahead: 100, margin: 300 })).toBe('level with it');
    expect(writeGhost({ shift: 0, margin: 0 })).toBe('no reading to hold against it yet');
  });

  it('is none where the earlier run was never at that level, and says nothing past its end', () => {
    expect(ghostOf(read([0, 5], [10, 20]), earlier.tracks.percent)).toBeUndefined();
    expect(ghostOf(read(), earlier.tracks.percent)).toBeUndefined();
    expect(ghostOf(read([0, 20], [30, 60]), earlier.tracks.percent)).toEqual({ shift: -600, margin: 0 });
  });
});

describe('an extra check', () => {
  const run = read([0, 20], [40, 78]);
  const eighty = { level: 80, low: 2460, high: 2580 };

  it('is asked for when a level is about to show long before the next check', () => {
    expect(worthReading(run, [eighty], 3000, 2500)).toBeUndefined();
    expect(worthReading(run, [eighty], 3000, 2580)).toBe(80);
  });

  it('is not when the check itself comes as soon, or too little is known to tell', () => {
    expect(worthReading(run, [{ ...eighty, low: 2850, high: 2950 }], 3000, 2950)).toBeUndefined();
    expect(worthReading(run, [{ ...eighty, low: 1500, high: 3540 }], 3000, 2580)).toBeUndefined();
    expect(worthReading(run, [eighty], undefined, 2580)).toBeUndefined();
    expect(worthReading(run, [], 3000, 2580)).toBeUndefined();
  });
});
