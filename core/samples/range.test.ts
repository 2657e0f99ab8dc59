import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { longestBridge, rowsBetween } from './column';
import { levelsOf } from './levels';
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
        { most: 10 },
      ),
    ).toEqual([
      [0, 2],
      [60, 5],
      [120, 9],
    ]);
    expect(rangeOf({ seconds: [], values: [] }, { most: 10 })).toEqual([]);
  });

  it('runs on to the row at either side of a range', () => {
    expect(rangeOf(steady(100), { from: 10.5, to: 12.5, most: 50 }).map(([seconds]) => seconds)).toEqual([10, 11, 12, 13]);
  });

  it('costs points and not rows, and loses no spike', () => {
    const day = steady(86_400);
    day.values[43_210] = 60;
    const dots = rangeOf(day, { most: 1500, bridge: longestBridge(day) });
    expect(dots.length).toBeLessThanOrEqual(1500);
    expect(dots).toContainEqual([43_210, 60]);
    expect(breaks(dots)).toEqual([]);
  });

  it('keeps its lowest and highest, and both sides of every gap wide enough to be seen', () => {
    fc.assert(
      fc.property(gapped, fc.integer({ min: 8, max: 200 }), (column, most) => {
        const { seconds, values } = column;
        const dots = rangeOf(column, { most, bridge: 10 });
        const drawn = dots.flatMap(([, value]) => value ?? []);
        expect([Math.min(...drawn), Math.max(...drawn)]).toEqual([Math.min(...values), Math.max(...values)]);
        const pixel = ((seconds.at(-1) ?? 0) - (seconds[0] ?? 0)) / Math.max(1, Math.floor(most / 2) - 1);
        const gaps = seconds.length <= most ? 10 : Math.max(10, pixel);
        for (let row = 1; row < seconds.length; row += 1) {
          const [from = 0, to = 0] = [seconds[row - 1], seconds[row]];
          if (to - from > gaps) expect(dots).toContainEqual([(from + to) / 2, undefined]);
        }
        expect(dots.map(([at]) => at)).toEqual(dots.map(([at]) => at).sort((one, other) => one - other));
      }),
      { numRuns: 200 },
    );
  });
});

it('sums every bucket of every level up as its rows would', () => {
  fc.assert(
    fc.property(gapped, (column) => {
      const { seconds, values } = column;
      for (const { rows, lowest, highest, longest } of levelsOf(column)) {
        for (let bucket = 0; bucket < lowest.length; bucket += 1) {
          const part = values.subarray(bucket * rows, (bucket + 1) * rows);
          const times = seconds.subarray(bucket * rows, (bucket + 1) * rows + 1);
          expect(values[lowest[bucket] ?? -1]).toBe(Math.min(...part));
          expect(values[highest[bucket] ?? -1]).toBe(Math.max(...part));
          expect(longest[bucket]).toBe(Math.max(0, ...times.subarray(1).map((each, index) => each - (times[index] ?? 0))));
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
