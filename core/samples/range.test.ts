import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rowsBetween } from './column';
import { gapsOf } from './gaps';
import { minMaxLevels } from './levels';
import { rangeOf, type Dot } from './range';

const columnOf = (rows: readonly (readonly [number, number])[]) => ({
  seconds: Float64Array.from(rows, ([seconds]) => seconds),
  values: Float64Array.from(rows, ([, value]) => value),
});
const steady = (size: number) => columnOf(Array.from({ length: size }, (_, index) => [index, Math.sin(index / 50)] as const));
const breaks = (dots: readonly Dot[]) => dots.filter(([, value]) => value === undefined);

/** Columns with gaps here and there, some of them long. */
const gapped = fc
  .array(
    fc.tuple(fc.oneof({ weight: 40, arbitrary: fc.constant(1) }, fc.integer({ min: 2, max: 400 })), fc.integer({ min: -50, max: 50 })),
    {
      minLength: 1,
      maxLength: 3000,
    },
  )
  .map((steps) => {
    let at = 0;
    return columnOf(steps.map(([wait, value]) => [(at += wait), value] as const));
  });

describe('what of a column is drawn', () => {
  it('is every row, while there are few', () => {
    expect(
      rangeOf(
        columnOf([
          [0, 2],
          [60, 5],
          [120, 9],
        ]),
        { max: 10 },
      ),
    ).toEqual([
      [0, 2],
      [60, 5],
      [120, 9],
    ]);
    expect(rangeOf({ seconds: [], values: [] }, { max: 10 })).toEqual([]);
  });

  it('runs on to the row at either side of a range', () => {
    expect(rangeOf(steady(100), { from: 10.5, to: 12.5, max: 50 }).map(([seconds]) => seconds)).toEqual([10, 11, 12, 13]);
  });

  it('costs points and not rows, and loses no spike', () => {
    const day = steady(86_400);
    day.values[43_210] = 60;
    const dots = rangeOf(day, { max: 1500, gaps: gapsOf(day) });
    expect(dots.length).toBeLessThanOrEqual(1500);
    expect(dots).toContainEqual([43_210, 60]);
    expect(breaks(dots)).toEqual([]);
  });

  it('keeps its lowest and highest, and both sides of every gap wide enough to be seen', () => {
    fc.assert(
      fc.property(gapped, fc.integer({ min: 8, max: 200 }), (column, max) => {
        const { seconds, values } = column;
        const gaps = gapsOf(column, () => 10);
        const dots = rangeOf(column, { max, gaps });
        const drawn = dots.flatMap(([, value]) => value ?? []);
        expect([Math.min(...drawn), Math.max(...drawn)]).toEqual([Math.min(...values), Math.max(...values)]);
        const pixel = ((seconds.at(-1) ?? 0) - (seconds[0] ?? 0)) / Math.max(1, Math.floor(max / 2) - 1);
        const visible = seconds.length <= max ? gaps : gaps.filter(({ from, to }) => to - from > pixel);
        expect(breaks(dots).map(([at]) => at)).toEqual(visible.map(({ from, to }) => (from + to) / 2));
        expect(dots.map(([at]) => at)).toEqual(dots.map(([at]) => at).sort((one, other) => one - other));
      }),
      { numRuns: 200 },
    );
  });
});

it('sums every bucket of every level up as its rows would', () => {
  fc.assert(
    fc.property(gapped, (column) => {
      const { values } = column;
      for (const { rows, lowest, highest } of minMaxLevels(column)) {
        for (let bucket = 0; bucket < lowest.length; bucket += 1) {
          const part = values.subarray(bucket * rows, (bucket + 1) * rows);
          expect(values[lowest[bucket] ?? -1]).toBe(Math.min(...part));
          expect(values[highest[bucket] ?? -1]).toBe(Math.max(...part));
        }
      }
    }),
    { numRuns: 100 },
  );
});

it('cuts typed columns without copying them, both ends counted in', () => {
  const column = steady(100);
  const part = rowsBetween(column, 10, 20);
  expect(Array.from(part.seconds)).toEqual(Array.from({ length: 11 }, (_, index) => 10 + index));
  expect((part.seconds as Float64Array).buffer).toBe(column.seconds.buffer);
});

describe('a gap', () => {
  const gaps = (...seconds: number[]) => gapsOf({ seconds });
  it('is longer than three times the longer of the two intervals beside it', () => {
    expect(gaps(0, 300, 600, 1800, 2100)).toEqual([{ from: 600, to: 1800 }]);
    expect(gaps(0, 300, 600, 1500, 1800)).toEqual([]);
    // Coarse, then fine: the coarse intervals are no gaps, for which the middle of all intervals would take them.
    expect(gaps(0, 600, 1200, 1800, 1860, 1920, 1980, 2040, 2100, 2160)).toEqual([]);
  });

  it('is not between two rows alone, nor made by rows of one moment', () => {
    expect(gaps(0, 9000)).toEqual([]);
    expect(gaps(0, 0, 0, 1, 1, 1, 2, 2, 9, 9)).toEqual([{ from: 2, to: 9 }]);
  });

  it('goes by the plan where there is one', () => {
    expect(gapsOf({ seconds: [0, 300, 600, 1800, 2100] }, () => 3 * 600)).toEqual([]);
  });
});
