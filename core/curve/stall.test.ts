import { expect, it } from 'vitest';
import { trackOf } from '../ink/track';
import { stalls } from './stall';

const levels = (...rows: [minutes: number, percent: number][]) =>
  trackOf(rows.map(([minutes, value]) => ({ seconds: minutes * 60, value })));

// Common practice, no source: a pad run stuck at 81 % after 18 hours.
it('finds a pad stuck at 81 % until it is given up', () => {
  expect(stalls(levels([0, 2], [240, 78], [300, 81], [420, 81], [1080, 81]))).toEqual([{ from: 18_000, to: 64_800 }]);
});

it('finds one that ended, and none in a slow climb or at 100 %', () => {
  expect(stalls(levels([0, 2], [30, 40], [95, 40], [125, 45]))).toEqual([{ from: 1800, to: 5700 }]);
  expect(stalls(levels([0, 2], [59, 3], [118, 4]))).toEqual([]);
  expect(stalls(levels([0, 90], [30, 100], [300, 100]))).toEqual([]);
  expect(stalls(levels())).toEqual([]);
});
