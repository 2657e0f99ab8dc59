import { describe, expect, it } from 'vitest';
import { foldRun, inkOf } from '@core/ink';
import { negotiate } from '@core/power';
import { expectedRun } from '@core/run';
import { expectedCharge } from '@core/simulate';
import { exampleHeader } from '../../core/ink/example';
import { spreadOut, stripConfig, tracksOf, type StripLook } from './config';
import fc from 'fast-check';
import { expectedTrace, timeRules, traceOf, tracedWithPencil } from './trace';

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
const trace = traceOf(run, 'Cobble 20', 2, { now: 1100 });

describe('a run on the strip', () => {
  it('joins what a person read in pencil, and a meter’s stream in ink', () => {
    const [percent] = stripConfig([trace], look).data.datasets;
    expect(percent).toMatchObject({ borderColor: '#6A675F', borderDash: [4, 3], pointStyle: 'triangle' });
    // What a meter streamed is stroked as it is, and is no set of points to Chart.js; unless somebody read beside it.
    const streamed = { ...trace, streamed: new Set(['percent'] as const) };
    const sets = (of: typeof trace) => stripConfig([of], look).data.datasets.map(({ yAxisID, label }) => [yAxisID, label]);
    expect(sets(streamed)).toEqual([
      ['watts', 'Cobble 20'],
      ['percent', 'struck'],
    ]);
    expect(sets({ ...streamed, byHand: { percent: new Set([0]) } })).toContainEqual(['percent', 'Cobble 20']);
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

  it('stands the words of events that came together side by side', () => {
    const events = [600, 620, 640, 1200].map((at) => ({ at, says: `at ${at}` }));
    const { annotations } = stripConfig([{ ...trace, events }], look).options?.plugins?.annotation ?? {};
    const lines = Object.entries(annotations ?? {}).flatMap(([key, each]) => (key.startsWith('event-') ? [each] : []));
    expect(lines).toMatchObject([
      { value: 600, label: { content: ['at 600', 'at 620', 'at 640'] } },
      { value: 1200, label: { content: ['at 1200'] } },
    ]);
  });

  it('has a track only for what was read, and percent alone in a row', () => {
    expect(tracksOf([trace], { size: 'sheet' })).toEqual(['percent', 'watts']);
    expect(tracksOf([trace], { size: 'row' })).toEqual(['percent']);
  });
});

describe('what is expected', () => {
  it('is pencil from the first level seen, and never a dataset that the pointer finds', () => {
    const { expected, dots } = tracedWithPencil(run);
    expect(expected?.percent?.[0]).toEqual([0, 2.5]);
    expect(expected?.watts?.length).toBeGreaterThan(20);
    expect(dots.percent).toHaveLength(2);
    const { data, plugins } = stripConfig([{ ...trace, expected }], look);
    expect(data.datasets.map(({ label }) => label)).toEqual(['Cobble 20', 'Cobble 20', 'struck']);
    expect(plugins?.map(({ id }) => id)).toContain('pencil');
  });

  it('begins where a device first showed a level, and is not there where none was seen', () => {
    const late = foldRun(header, inkOf(header, [{ seconds: 300, percent: 4 }]));
    expect(expectedRun(late)?.seconds[0]).toBe(300);
    expect(expectedRun(foldRun(header, []))).toBeUndefined();
  });

  it('can stand on a strip of its own, before anything was run', () => {
    const expected = expectedCharge(negotiate(header), 2);
    if (!expected) throw new Error('a charge to expect');
    const alone = expectedTrace('x', 'Sedge 5 on Cobble 20', 0, expected);
    expect(tracksOf([alone], { size: 'sheet' })).toEqual(['percent', 'watts']);
    expect(alone.end).toBe(expected.length);
  });
});

it('draws no line across watts that were not seen, and says so', () => {
  const rows = [0, 60, 120, 180, 900, 960].map((seconds) => ({ seconds, percent: 2 + seconds / 60, watts: 18 }));
  const gap = traceOf(foldRun({ ...header, cadence: undefined }, inkOf(header, rows)), 'Cobble 20', 0);
  expect(gap.unseen).toEqual([{ from: 180, to: 900 }]);
  const { data, options } = stripConfig([gap], look);
  const watts = data.datasets.find(({ yAxisID }) => yAxisID === 'watts')?.data ?? [];
  expect(watts.map(({ y }) => y)).toEqual([18, 18, 18, 18, Number.NaN, 18, 18]);
  expect(Object.keys(options?.plugins?.annotation?.annotations ?? {})).toContain('unseen-0');
});

it('rules the paper finely enough to read and coarsely enough to be calm', () => {
  for (const until of [600, 3600, 7200, 36_000, 200_000]) {
    const { fine, coarse } = timeRules(until);
    expect(until / fine).toBeLessThanOrEqual(24);
    expect(coarse % fine).toBe(0);
  }
});

it('lets no two names of lines collide, keeps their order, and moves none that had room', () => {
  const paper = { low: 0, high: 400 };
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 400, noNaN: true }), { minLength: 1, maxLength: 25 }), (wanted) => {
      const placed = spreadOut(wanted, 13, paper);
      const order = wanted.map((_, index) => index).sort((one, other) => (wanted[one] ?? 0) - (wanted[other] ?? 0));
      for (const [at, index] of order.entries()) {
        const [here, next] = [placed[index] ?? 0, placed[order[at + 1] ?? -1] ?? Infinity];
        expect(next - here).toBeGreaterThan(12.99);
        expect(here).toBeGreaterThan(-0.01);
        expect(here).toBeLessThan(400.01);
      }
    }),
  );
  expect(spreadOut([10, 200, 390], 13, paper)).toEqual([10, 200, 390]);
});
