import { expect, it } from 'vitest';
import { foldRun, inkOf } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { besideOf } from './opened';
import { fromWire, toWire } from './wire';

const header = exampleHeader();
const readings = Array.from({ length: 20 }, (_, row) => ({ seconds: row * 300, percent: 2 + row * 4, watts: 18 - row / 2 }));

/** Through a worker’s door: functions would not come through it, and neither would what shares a column that was handed over. */
const sent = (run: ReturnType<typeof besideOf>) => fromWire(structuredClone(toWire(run)));

it('brings a run that was read by hand as it was', () => {
  const run = besideOf(foldRun(header, inkOf(header, readings)));
  expect(sent(run)).toEqual(run);
});

it('brings the lines of a meter’s stream with the breaks in them', () => {
  const seconds = Float64Array.from({ length: 2000 }, (_, row) => (row < 1000 ? row : row + 900));
  const watts = { seconds, values: seconds.map((at) => 20 + Math.sin(at / 60)) };
  const percent = { seconds, values: seconds.map((at) => Math.floor(at / 30)) };
  const run = besideOf(foldRun({ ...header, cadence: undefined }, [], { watts, percent }), 400);
  expect(run.trace.dots.watts?.some(([, value]) => value === undefined)).toBe(true);
  expect(sent(run)).toEqual(run);
});
