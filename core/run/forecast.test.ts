import { describe, expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun, type RunRecord } from '../ink/fold';
import type { Track } from '../ink/track';
import { forecasts } from './forecast';

/** Whether bands hold what they say is a matter of many charges: truth/bands.ts, docs/truth.md. */
const header = exampleHeader();
const runOf = (...rows: [minutes: number, percent: number][]) =>
  foldRun(
    header,
    inkOf(
      header,
      rows.map(([minutes, percent]) => ({ seconds: minutes * 60, percent })),
    ),
  );
const forecast = (run: RunRecord, level: number, earlier: readonly Track[] = []) => forecasts(run, earlier, [level])[0];
/** A percent a minute to 80, from there half as fast, read every two minutes. */
const steady = runOf(
  ...Array.from({ length: 61 }, (_, index): [number, number] => [index * 2, Math.floor(index < 40 ? index * 2 : 80 + (index - 40))]),
);
const { percent } = steady.tracks;

describe('when a level will come', () => {
  it('is not said too soon, once the level shows, or while it stands still', () => {
    expect(forecast(runOf([0, 5], [5, 12]), 80)).toBeUndefined();
    expect(forecast(runOf([0, 5], [15, 9]), 80)).toBeUndefined();
    expect(forecast(runOf([0, 5], [15, 25]), 80)).toMatchObject({ level: 80 });
    expect(forecast(runOf([0, 60], [30, 82]), 80)).toBeUndefined();
    expect(forecast(runOf([0, 5], [15, 25], [20, 24]), 80)).toBeUndefined();
  });

  it('is only an earliest where no earlier run of the device tells how it goes on', () => {
    const alone = forecast(runOf([0, 20], [10, 30], [20, 40]), 80);
    expect(alone?.high).toBeUndefined();
    // docs/numbers.md, Forecast band: 40 % to go at a percent a minute, of which 0.76 at least.
    expect(alone?.low).toBeCloseTo(1200 + 0.76 * 2400, 6);
  });

  it('is a band around the pace of earlier runs, where they were as fast', () => {
    const band = forecast(runOf([0, 20], [10, 30], [20, 40]), 80, [percent]);
    expect((band?.low ?? 0) - 1200).toBeCloseTo(0.87 * 39.5 * 60, -2);
    expect((band?.high ?? 0) - 1200).toBeCloseTo(1.1 * 39.5 * 60, -2);
    // From 80 on the earlier run was half as fast, and this one has not been there yet.
    const full = forecast(runOf([0, 20], [10, 30], [20, 40]), 100, [percent]);
    expect((full?.high ?? 0) - 1200).toBeCloseTo(1.12 * (39.5 + 40) * 60, -3);
  });

  it('takes no earlier run for a guide that was never as fast', () => {
    expect(forecast(runOf([0, 20], [10, 40], [20, 60]), 80, [percent])?.high).toBeUndefined();
  });

  it('goes by the pace now where that is slower: twice as slow, about twice as late', () => {
    const [quick, slow] = [
      forecast(runOf([0, 10], [10, 20], [20, 30]), 80, [percent]),
      forecast(runOf([0, 10], [20, 20], [40, 30]), 80, [percent]),
    ];
    expect(((slow?.low ?? 0) - 2400) / ((quick?.low ?? 0) - 1200)).toBeCloseTo(2, 1);
  });

  it('gives no band that is wider than half of what remains', () => {
    const late = runOf([0, 70], [20, 90], [30, 95], [32, 96]);
    expect(forecast(late, 100, [percent])?.high).toBeUndefined();
    expect(forecast(late, 100, [percent])?.low).toBeGreaterThan(32 * 60);
  });
});
