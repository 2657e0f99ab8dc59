import { describe, expect, it } from 'vitest';
import { summarise } from '@core/curve';
import { foldRun, inkOf } from '@core/ink';
import { exampleHeader, exampleStrike } from '../../core/ink/example';
import { outlineOf, traceOf } from './trace';

const header = exampleHeader();

describe('a run as a strip draws it', () => {
  it('has the dots that were read, and no place for a struck one without a level', () => {
    const strike = exampleStrike(header, 'run-1-2');
    const ink = inkOf(header, [
      { seconds: 0, percent: 2 },
      { seconds: 300, watts: 18 },
      { seconds: 600, percent: 21, watts: 18, celsius: 31 },
    ]);
    const trace = traceOf(foldRun(header, [...ink, strike]), 'Cobble 20', 1);
    expect(trace.dots).toMatchObject({
      percent: [
        [0, 2],
        [600, 21],
      ],
      watts: [[600, 18]],
      celsius: [[600, 31]],
    });
    expect(trace.struck).toEqual([]);
  });

  it('goes on to the present while it is live, and calls a check missed only once it is', () => {
    const run = foldRun(header, inkOf(header, [{ seconds: 0, percent: 2 }]));
    expect(traceOf(run, 'x', 0, { now: 440 })).toMatchObject({ end: 440, missed: [] });
    expect(traceOf(run, 'x', 0, { now: 460 })).toMatchObject({ end: 460, missed: [{ from: 150, to: 450 }] });
  });

  it('keeps a day of samples light, and every spike of it', () => {
    const seconds = Float64Array.from({ length: 86_400 }, (_, index) => index);
    const watts = { seconds, values: seconds.map((second) => (second === 43_210 ? 60 : 12)) };
    const trace = traceOf(foldRun({ ...header, cadence: undefined }, [], { watts }), 'x', 0);
    expect(trace.dots.watts?.length).toBeLessThan(1600);
    expect(trace.dots.watts).toContainEqual([43_210, 60]);
    expect(trace.streamed.has('watts')).toBe(true);
  });

  it('breaks the line of what a meter streamed wherever nothing was seen for too long', () => {
    const seconds = Float64Array.from({ length: 40_000 }, (_, index) => (index < 20_000 ? index : index + 5000));
    const celsius = { seconds, values: seconds.map(() => 30) };
    const { dots } = traceOf(foldRun({ ...header, cadence: undefined }, [], { celsius }), 'x', 0);
    expect(dots.celsius?.filter(([, value]) => value === undefined)).toEqual([[22_499.5, undefined]]);
  });

  it('shows the same line from a summary as from the run', () => {
    const rows = Array.from({ length: 12 }, (_, index) => ({ seconds: index * 300, percent: 2 + index * 8 }));
    const run = foldRun(header, inkOf(header, rows));
    expect(outlineOf(summarise(run)).dots.percent).toEqual(traceOf(run, 'x', 0).dots.percent);
    expect(outlineOf(summarise(run))).toMatchObject({ name: 'Sedge 5 on Cobble 20', end: 3300 });
  });
});
