import { expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun, type RunRecord } from '../ink/fold';
import { figuresOf } from './figures';
import { writeFigures } from './words';
import { energySamples, projection, sampledOf } from './energySample';

const laptop = { id: 't', name: 'Teasel 14', kind: 'laptop' as const, wattHours: 54 };
const counted = (...rows: [minutes: number, wattHours: number][]) =>
  foldRun(
    exampleHeader({ device: laptop }),
    inkOf(exampleHeader(), [{ seconds: 0, percent: 40 }, ...rows.map(([minutes, wattHours]) => ({ seconds: minutes * 60, wattHours }))]),
  );

const projected = (run: RunRecord, level = 80) => {
  const sampled = sampledOf(run);
  return sampled && projection(sampled, level);
};

// trade.md, Sums: battery Wh × share ÷ (Wh sampled ÷ minutes sampled): 54 Wh × 40 % ÷ (3 Wh ÷ 5 min) = 36 min; to 50 %, 54 Wh × 10 % ÷ 36 W = 9 min.
it('projects 40 to 80 % of 54 Wh at 3 Wh in 5 min as 36 min, and to any other level', () => {
  const run = counted([0, 10], [5, 13]);
  expect(energySamples(run)).toMatchObject([{ from: 0, to: 300, wattHours: 3, watts: 36 }]);
  expect(projected(run)?.seconds).toBeCloseTo(2160, 6);
  expect(projected(run, 50)?.seconds).toBeCloseTo(540, 6);
  expect(projected(run, 40)).toBeUndefined();
});

it('is a figure of its run, to the level asked for, with its working and what it takes for granted', () => {
  const figures = writeFigures(figuresOf(counted([0, 10.25], [5, 13.25])), { projectTo: 80 });
  expect(figures.find(({ id }) => id === 'projected')).toMatchObject({
    label: 'To 80 % by energy sample',
    value: 'about 36 min',
    working: { formula: '54 Wh × 40 % ÷ (3 Wh ÷ 5 min)' },
  });
  expect(figures.find(({ id }) => id === 'projected')?.detail).toContain('no loss and no taper');
  // No watts were read: the counter tells average and energy too.
  expect(figures.find(({ id }) => id === 'average')).toMatchObject({
    value: '36.0 W',
    detail: '± 0.5 W · by the counter, for no watts were read',
  });
  expect(figures.find(({ id }) => id === 'energy')?.value).toBe('3.00 Wh');
});

// JCGM 100:2008 (GUM) 4.3.7 and 5.1.2: 0.01 Wh and 2 s at both ends, each anywhere within, and 1 % of a meter that states nothing.
it('is as sure as digits, moments and the meter leave it, and of several samples as they agree', () => {
  const [digits, moments, meter] = [(0.01 / 3) * Math.SQRT2, (2 / 300) * Math.SQRT2, 0.01];
  const once = sampledOf(counted([0, 0.01], [5, 3.01]));
  expect((once?.uncertainty ?? 0) / 36).toBeCloseTo(Math.hypot(digits, moments, meter) / Math.sqrt(3), 6);
  const twice = sampledOf(counted([0, 0.01], [5, 3.01], [10, 5.51]));
  expect(twice?.watts).toBeCloseTo(33, 6);
  // Two of 36 and 30 W: a standard error of 3 W.
  expect(twice?.uncertainty).toBeCloseTo(Math.hypot(3, (0.01 * 33) / Math.sqrt(3)), 6);
});

it('takes no sample over a counter that began anew, too short or too long, and projects nothing from none', () => {
  expect(energySamples(counted([0, 10], [5, 1], [6, 1.5], [40, 9]))).toEqual([]);
  expect(projected(counted([0, 10]))).toBeUndefined();
});
