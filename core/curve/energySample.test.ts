import { expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun, type RunRecord } from '../ink/fold';
import { figuresOf } from './figures';
import { writeFigures } from './words';
import { energySamples, projection } from './energySample';

const written = (run: RunRecord) => writeFigures(figuresOf(run));

const laptop = { id: 't', name: 'Teasel 14', kind: 'laptop' as const, wattHours: 54 };
const counted = (...rows: [minutes: number, wattHours: number][]) =>
  foldRun(
    exampleHeader({ device: laptop }),
    inkOf(exampleHeader(), [{ seconds: 0, percent: 40 }, ...rows.map(([minutes, wattHours]) => ({ seconds: minutes * 60, wattHours }))]),
  );

// trade.md, Sums: battery Wh × share ÷ (Wh sampled ÷ minutes sampled): 54 Wh × 40 % ÷ (3 Wh ÷ 5 min) = 36 min.
it('projects 40 to 80 % of 54 Wh at 3 Wh in 5 min as 36 min', () => {
  const run = counted([0, 10], [5, 13]);
  expect(energySamples(run)).toMatchObject([{ from: 0, to: 300, wattHours: 3, watts: 36 }]);
  expect(projection(run)).toEqual({ level: 80, seconds: 2160 });
});

it('is a figure of its run, with its working and what it takes for granted', () => {
  const figure = written(counted([0, 10], [5, 13])).find(({ id }) => id === 'projected');
  expect(figure).toMatchObject({
    label: 'To 80 % by energy sample',
    value: 'about 36 min',
    working: { formula: '54 Wh × 40 % ÷ (3 Wh ÷ 5 min)' },
  });
  expect(figure?.detail).toContain('no loss and no taper');
});

it('takes repeats together, and says how far they differ', () => {
  const found = projection(counted([0, 0], [5, 3], [10, 5.5]));
  expect(found?.seconds).toBeCloseTo((21.6 / 5.5) * 600, 5);
  expect(found?.margin).toBeCloseTo(216, 5);
});

it('takes no sample over a counter that began anew, too short or too long, and projects nothing from none', () => {
  expect(energySamples(counted([0, 10], [5, 1], [6, 1.5], [40, 9]))).toEqual([]);
  expect(projection(counted([0, 10]))).toBeUndefined();
});
