import { describe, expect, it } from 'vitest';
import { foldRun, inkOf } from '@core';
import { exampleHeader } from '../../core/ink/example';
import { stripConfig, tracksOf, type StripLook } from './config';
import { timeRules, traceOf } from './trace';

const header = exampleHeader();
const look: StripLook = { size: 'sheet', theme: 'paper', until: 3600, penned: false };
const strike = {
  kind: 'strike',
  seq: 9,
  id: 's',
  at: header.plugInAt,
  written: header.plugInAt,
  target: 'run-1-2',
  reason: 'slip',
} as const;
const run = foldRun(header, [
  ...inkOf(header, [
    { seconds: 0, percent: 2, watts: 9 },
    { seconds: 300, percent: 90 },
    { seconds: 600, percent: 17, watts: 18 },
  ]),
  strike,
]);
const trace = traceOf(run, 'Cobble 20', 2, 1100);

describe('a run on the strip', () => {
  it('joins what a person read in pencil, and a meter’s stream in ink', () => {
    const [percent] = stripConfig([trace], look).data.datasets;
    expect(percent).toMatchObject({ borderColor: '#6A675F', borderDash: [4, 3], pointStyle: 'triangle' });
    const streamed = stripConfig([{ ...trace, streamed: new Set(['percent'] as const) }], look).data.datasets[0];
    expect(streamed).toMatchObject({ borderColor: '#0A6E52', borderDash: [], pointRadius: 0 });
  });

  it('draws lines with their pens where several must be told apart', () => {
    const [first] = stripConfig([trace, { ...trace, id: 'other', pen: 8 }], { ...look, penned: true }).data.datasets;
    expect(first).toMatchObject({ borderColor: '#0A6E52', borderDash: [2, 4] });
  });

  it('keeps a struck reading as a cross, joined to nothing', () => {
    const crosses = stripConfig([trace], look).data.datasets.find(({ label }) => label === 'struck');
    expect(crosses).toMatchObject({ data: [{ x: 300, y: 90 }], showLine: false, pointStyle: 'crossRot' });
  });

  it('shades checks that were missed, and the place of a figure', () => {
    expect(trace.missed).toEqual([
      { from: 150, to: 450 },
      { from: 750, to: 1050 },
    ]);
    const annotations = stripConfig([trace], { ...look, band: { from: 300, to: 600, label: '80 %', level: 80 } }).options?.plugins
      ?.annotation?.annotations;
    expect(Object.keys(annotations ?? {})).toEqual(['missed-0', 'missed-1', 'band-percent', 'band-watts', 'level']);
  });

  it('has a track only for what was read, and percent alone in a row', () => {
    expect(tracksOf([trace], { size: 'sheet' })).toEqual(['percent', 'watts']);
    expect(tracksOf([trace], { size: 'row' })).toEqual(['percent']);
  });
});

it('rules the paper finely enough to read and coarsely enough to be calm', () => {
  for (const until of [600, 3600, 7200, 36_000, 200_000]) {
    const { fine, coarse } = timeRules(until);
    expect(until / fine).toBeLessThanOrEqual(24);
    expect(coarse % fine).toBe(0);
  }
});
