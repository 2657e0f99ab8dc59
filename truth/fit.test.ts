import { describe, expect, it } from 'vitest';
import { foldRun, inkOf } from '@core/ink';
import { fitCase, fitDevice } from '@core/run';
import { exampleHeader } from '../core/ink/example';
import { nelderMead } from '../core/run/nelderMead';
import { seeded } from '../core/simulate/seeded';
import { MODELS, type Rate } from './models';

/** Readings every five minutes of a charge by a foreign model. */
function charged(rate: Rate, from: number, watts: number | undefined) {
  const readings = [{ seconds: 0, percent: Math.floor(from) }];
  let level = from;
  for (let minute = 1; minute <= 400 && level < 100; minute += 1) {
    level += rate(level, minute);
    if (minute % 5 === 0) readings.push({ seconds: minute * 60, percent: Math.min(100, Math.floor(level)) });
  }
  const header = exampleHeader({ charger: { id: 'c', name: 'Quern 30', kind: 'adapter', watts: watts ?? 30 } });
  return foldRun(header, inkOf(header, readings));
}

describe('a device fitted to its own runs', () => {
  it.each(
    MODELS.filter(({ name }) => ['constant current, constant voltage', 'throttling'].includes(name)).map(
      (model) => [model.name, model] as const,
    ),
  )('is expected better where its charger never bends it: %s', (_name, model) => {
    const noise = seeded(7);
    const rate = model.device(noise);
    const cases = [2, 15].flatMap((from) => fitCase(charged(rate, from, undefined)) ?? []);
    const fit = fitDevice(cases);
    expect(cases).toHaveLength(2);
    // Runs it has not seen, by a fit of the others.
    expect(fit?.heldOut ?? Infinity).toBeLessThan(0.6 * (fit?.before ?? 0));
  });

  it.each([
    [3400, 10, [5, 8, 13, 18, 28]],
    [3500, 20, [8, 16, 24, 33, 50]],
    [3700, 50, [11, 33, 50, 67, 93]],
  ])(
    'is followed within three percent where it was far off: a phone of %i mAh on %i W (common practice, no source)',
    (milliampHours, watts, percents) => {
      const device = { id: 'p', name: 'Sedge 5', kind: 'phone' as const, milliampHours, nominalVolts: 3.85 };
      const header = exampleHeader({ device, charger: { id: 'c', name: 'Quern', kind: 'adapter', watts } });
      const seen = [300, 600, 865, 1200, 1800].map((seconds, index) => ({ seconds, percent: percents[index] ?? 0 }));
      const run = foldRun(header, inkOf(header, [{ seconds: 0, percent: 0 }, ...seen]));
      const fit = fitDevice([fitCase(run)].flatMap((each) => each ?? []));
      expect(fit?.after ?? Infinity).toBeLessThan(3);
      expect(fit?.after ?? Infinity).toBeLessThan(fit?.before ?? 0);
      expect(fit?.heldOut).toBeUndefined();
    },
  );
});

it('the simplex finds the least of Rosenbrock’s valley at 1, 1 (Rosenbrock 1960)', () => {
  const found = nelderMead(([x = 0, y = 0]) => (1 - x) ** 2 + 100 * (y - x * x) ** 2, [-1.2, 1], [0.5, 0.5], 400);
  expect(found[0]).toBeCloseTo(1, 3);
  expect(found[1]).toBeCloseTo(1, 3);
});
