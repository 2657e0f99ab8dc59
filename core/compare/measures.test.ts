import { range } from 'd3-array';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readRun, type ReadRun } from '../curve/figures';
import { inkOf, type Jotted } from '../ink/build';
import type { Header } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { difference } from '../margin/told';
import { rounded, spell } from '../quantity/duration';
import { setAssumed, USUALLY } from '../quantity/assumed';
import { setManner } from '../quantity/manner';
import { compareRuns } from './compare';
import { workingOf, writeDifference, type Cell } from './cells';
import { matrixOf } from './matrix';
import { aboutOf, gainUnitsOf, measuresOf, usualGainUnit, usualMeasures, type GainUnit } from './measures';
import { setupsOf } from './setups';
import { standingsOf } from './words';

const PLAIN = { decimal: '.', scale: '°C', currency: '' } as const;

const charger = (name: string, watts = 20, price?: number) => ({
  id: name,
  name,
  kind: 'adapter' as const,
  watts,
  ...(price !== undefined && { price }),
});

/** A run on a charger, by minute and level. */
function runOf(
  name: string,
  rows: readonly (readonly [minutes: number, percent: number, more?: Omit<Jotted, 'seconds'>])[],
  changes: Partial<Header> = {},
): ReadRun {
  const header = exampleHeader({ id: `${name}-${rows.length}-${Math.random()}`, charger: charger(name), ...changes });
  return readRun(
    foldRun(
      header,
      inkOf(
        header,
        rows.map(([minutes, percent, more]): Jotted => ({ seconds: minutes * 60, percent, ...more })),
      ),
    ),
  );
}
function cellsOf(all: readonly ReadRun[], id: string, unit: GainUnit = '%'): Cell[] {
  const found = measuresOf(all, unit).find((measure) => measure.id === id);
  if (!found) throw new Error(`no measure ${id}`);
  return found.compare(setupsOf(all));
}

describe('the cases of common practice, laid end to end', () => {
  // Common practice, no source (checks.md): three phones of 3400, 3500, 3700 mAh on 10, 20 and 50 W from 0 %, readings at 5, 10, 14:25, 20, 30 min.
  const times = [0, 5, 10, 865 / 60, 20, 30];
  const phone = (name: string, milliampHours: number, levels: readonly number[]) =>
    runOf(
      name,
      times.map((minutes, at) => [minutes, levels[at] ?? 0] as const),
      {
        device: { id: name, name, kind: 'phone', milliampHours, nominalVolts: 3.85 },
        cadence: { kind: 'marks', at: [300, 600, 865, 1200, 1800] },
        rule: { ends: 'window', wants: ['level'] },
      },
    );
  const race = [
    phone('ten', 3400, [0, 5, 8, 13, 18, 28]),
    phone('twenty', 3500, [0, 8, 16, 24, 33, 50]),
    phone('fifty', 3700, [0, 11, 33, 50, 67, 93]),
  ];

  it('ranks the race at every mark of its method, its odd one among them, by what the batteries hold', () => {
    expect([usualGainUnit(race), aboutOf(race)]).toEqual(['Wh', 'gains']);
    for (const mark of [600, 865, 1200, 1800])
      expect(cellsOf(race, `gain-${mark}`, 'Wh').map(({ rank }) => rank?.place)).toEqual([3, 2, 1]);
    // In percent they are told and not ranked: a percent of one is not a percent of another.
    const percent = cellsOf(race, 'gain-1800');
    expect(percent.map(({ value, rank }) => [value, rank])).toEqual([
      ['28 points', undefined],
      ['50 points', undefined],
      ['93 points', undefined],
    ]);
    // 93 % of 3700 mAh is 3441 mAh; of 3.7 Ah at 3.85 V, 13.2 Wh.
    expect(cellsOf(race, 'gain-1800', 'mAh')[2]?.mean?.value).toBeCloseTo(3441, 6);
    expect(cellsOf(race, 'gain-1800', 'Wh')[2]?.mean?.value).toBeCloseTo(0.93 * 3.7 * 3.85, 6);
    expect(usualMeasures(measuresOf(race, 'Wh'), 'gains', '100')).toContain('gain-865');
  });

  // Common practice, no source (checks.md): 100 h claimed × 40 % → 0.4 h per 1 %: 58 % gained is 23 h.
  it('gives gains in hours of use: 58 % of 100 h claimed is 23 h, and of hours that were measured all of them count', () => {
    const camera = (more: object) =>
      runOf(
        'camera',
        [
          [0, 2],
          [60, 60],
        ],
        { device: { id: 'c', name: 'Curlew', kind: 'camera', enduranceHours: 100, ...more } },
      );
    setAssumed(USUALLY);
    const [claimed] = cellsOf([camera({})], 'gain-3600', 'h');
    expect(claimed?.mean?.value).toBeCloseTo(23.2, 9);
    expect(claimed?.value).toBe('23.2 h');
    expect(claimed?.each[0]?.working?.formula).toContain('100 h claimed × 40 %');
    expect(cellsOf([camera({ measuredHours: 50 })], 'gain-3600', 'h')[0]?.mean?.value).toBeCloseTo(29, 9);
    expect(gainUnitsOf([camera({})])).toEqual(['%', 'h']);
  });

  // Common practice, no source (checks.md): one phone on 20 / 30 / 35 W is full at 95, 90, 95 min, checks every 5: a tie; 115 min is not.
  it('ties 95, 90 and 95 min and tells 115 min from them, in the table, its differences and its working', () => {
    const all = [115, 95, 90, 95].map((full, index) =>
      runOf(`w${index}`, [
        [0, 1],
        [full - 5, 99],
        [full, 100],
      ]),
    );
    const cells = cellsOf(all, 'level-100');
    expect(cells.map(({ place, isBest }) => [place, isBest])).toEqual([
      ['4', false],
      ['1=', true],
      ['1=', true],
      ['1=', true],
    ]);
    const [slow, one, two] = cells;
    if (!slow || !one || !two) throw new Error('no cells');
    expect(writeDifference(two, slow, 's').value).toBe('−25 min');
    expect(writeDifference(two, one, 's')).toMatchObject({ value: 'a tie' });
    expect(writeDifference(slow, slow, 's').value).toBe('baseline');
    const says = workingOf(cells, 2, ['A', 'B', 'C', 'D'], { unit: 's', better: 'less' });
    expect(says).toContainEqual(expect.stringMatching(/^B: a tie; 5 min apart/));
    expect(says).toContainEqual(expect.stringMatching(/^A is surely worse: by 25 min/));
  });

  const seen = (name: string, full: number, every: number) =>
    runOf(name, [
      ...range(0, full, every).map((minutes) => [minutes, Math.min(99, Math.floor((100 * minutes) / full))] as const),
      [full, 100],
    ]);
  const standing = (all: readonly ReadRun[]) => {
    const [, told] = standingsOf(compareRuns(all, all[0]?.run.header.id ?? '', 100), ['', ''], 0, undefined);
    return told ? [told.first, told.rest[0]] : [];
  };

  // Common practice, no source (checks.md): 1→100 % in 3 h 21 and 2 h 37: 44 min saved. It was said to be 46.
  it('tells the difference of the two values that are shown, with its interval', () => {
    const all = [seen('brick', 201, 7), seen('large', 157, 5)];
    expect(cellsOf(all, 'level-100').map(({ value }) => value)).toEqual(['3 h 21', '2 h 37']);
    const [first, range = ''] = standing(all);
    expect(first).toBe('44 min saved');
    const [low = 0, high = 0] = /^between (\d+) and (\d+) min$/.exec(range)?.slice(1).map(Number) ?? [];
    // 3 % of each, and what their checks leave: about ± 16.
    expect(low > 24 && low < 32 && high > 56 && high < 64).toBe(true);
  });

  it('tells times whose intervals are unlike by more than twice, and those of repeats, by their middles', () => {
    // Read every 20 and every 2 min: by when they were first seen it would be 44 min; 160 lies in the middle of 140 to 160, about.
    const all = [seen('brick', 160, 20), seen('large', 116, 2)];
    const cells = cellsOf(all, 'level-100');
    const { low = 0, high = 0 } = cells[0]?.mean?.bounds ?? {};
    expect(cells[0]?.value).toBe(spell((low + high) / 2));
    expect(cells[0]?.range).toMatch(/–2 h 40$/);
    expect(cells[1]?.range).toMatch(/^\d.*–1 h 56$/);
    const [first] = standing(all);
    expect(first).toBe(`${spell(rounded((low + high) / 2) - rounded(cells[1]?.mean?.value ?? 0))} saved`);
    expect(first).not.toBe('44 min saved');
    const repeated = [seen('brick', 160, 5), seen('brick', 160, 5), seen('large', 116, 5)];
    expect(cellsOf(repeated, 'level-100')[1]?.value).toBe(spell(cellsOf(repeated, 'level-100')[1]?.mean?.value ?? 0));
  });

  // trade.md, Sums: battery Wh × share ÷ (Wh sampled ÷ minutes sampled): 54 Wh × 50 % ÷ (3 Wh ÷ 5 min) = 45 min, whatever level each began at.
  it('carries energy samples on from one level for all', () => {
    const sampled = (name: string, start: number, wattHours: number) =>
      runOf(
        'dock',
        [
          [0, start, { wattHours: 0 }],
          [5, start, { wattHours: 3 }],
        ],
        { device: { id: name, name, kind: 'laptop', wattHours } },
      );
    const cells = cellsOf([sampled('one', 40, 54), sampled('low', 5, 54), sampled('large', 60, 108)], 'projected');
    expect(cells.map(({ mean, place }) => [mean?.value, place])).toEqual([
      [2700, '1='],
      [2700, '1='],
      [5400, '3'],
    ]);
    expect(cells[0]?.each[0]?.working?.formula).toBe('54 Wh × 50 % ÷ 36 W');
  });

  // Common practice, no source (checks.md): front 40.5, 43.8 and 42.4 °C at 10, 20 and 30 min.
  it('ranks heat by surface, with what it varies by taken of its rise', () => {
    const warm = (name: string, degrees: readonly number[]) =>
      runOf(
        name,
        degrees.map((frontCelsius, index) => [index * 10, 10 + index * 20, { frontCelsius }] as const),
      );
    const all = [warm('a', [25, 40.5, 43.8, 42.4]), warm('b', [25, 33, 35, 34]), warm('c', [25, 39.8, 43.2, 42])];
    const hottest = cellsOf(all, 'hottest-frontCelsius');
    expect(hottest.map(({ place }) => place)).toEqual(['2=', '1', '2=']);
    // 3 % of a rise of 18.8, and 0.5 °C: not 3 % of 43.8.
    expect(hottest[0]?.mean?.uncertainty).toBeCloseTo(Math.hypot(0.03 * 18.8, 0.5), 9);
    expect(cellsOf(all, 'at-600-frontCelsius')[0]?.value).toBe('41 °C');
    expect(cellsOf(all, 'rise-frontCelsius').map(({ place }) => place)).toEqual(['2=', '1', '2=']);
    const why = () => workingOf(hottest, 0, ['a', 'b', 'c'], { unit: '°C', better: 'less' }).at(-1);
    expect(why()).toMatch(/a difference is told from 3 °C on/);
    // A difference of temperatures is one in °F too, and no temperature: 2.07 K, said as the next whole one, are 3.7 °F.
    setManner({ ...PLAIN, scale: '°F' });
    expect(why()).toMatch(/a difference is told from 4 °F on/);
    setManner(PLAIN);
  });
});

describe('power', () => {
  /** Watts by the minute, while the level rises by one. */
  const fed = (name: string, ...stretches: (readonly [minutes: number, watts: number | undefined])[]) => {
    const watts = stretches.flatMap(([minutes, each]) => range(minutes).map(() => each));
    return runOf(
      name,
      watts.map((each, minute) => [minute, 10 + minute, each === undefined ? {} : { watts: each }] as const),
    );
  };

  it('is sustained where it was held for five minutes: not where it was highest for two, nor where it fell all along', () => {
    const falling = range(30).map((minute) => [1, 40 - minute] as const);
    const all = [
      fed('held', [2, 30], [12, 20], [12, 9]),
      fed('later', [12, 9], [12, 26]),
      fed('fell', ...falling),
      fed('few', [2, 30], [3, 20]),
    ];
    const sustained = cellsOf(all, 'sustained');
    expect(sustained.map(({ mean }) => mean?.value)).toEqual([20, 26, undefined, undefined]);
    expect(sustained.map(({ place }) => place)).toEqual(['2', '1', undefined, undefined]);
    expect(JSON.stringify(sustained[0]?.each)).toContain('held 12 min');
  });

  it('makes an energy that is at least so much where some of it was not seen, and none where none was', () => {
    const [seen, partly, unseen] = cellsOf(
      [fed('seen', [30, 20]), fed('partly', [12, 20], [50, undefined], [12, 20]), fed('unseen', [30, undefined])],
      'energy',
    );
    // 20 W for 29 min.
    expect(seen?.mean?.value).toBeCloseTo((20 * 29) / 60, 6);
    expect(JSON.stringify(seen?.each)).not.toContain('at least');
    expect(JSON.stringify(partly?.each)).toContain('at least');
    expect(unseen?.mean).toBeUndefined();
  });
});

describe('every column', () => {
  const figure = fc.record({
    full: fc.integer({ min: 40, max: 200 }),
    watts: fc.integer({ min: 5, max: 60 }),
    heat: fc.integer({ min: 26, max: 48 }),
    runs: fc.integer({ min: 1, max: 3 }),
  });
  const study = fc.array(figure, { minLength: 2, maxLength: 5 }).map((setups) =>
    setups.flatMap(({ full, watts, heat, runs }, index) =>
      Array.from({ length: runs }, (_, run) =>
        runOf(`c${index}`, [
          [0, 1, { watts, celsius: 24 }],
          [full / 2, 60 + run, { watts: watts - 1, celsius: heat }],
          [full - 5 + run, 97],
          [full + run, 100, { watts: 1, celsius: 28 }],
        ]),
      ),
    ),
  );
  /** Places by charger and column. */
  const placesOf = (all: readonly ReadRun[]) =>
    Object.fromEntries(
      measuresOf(all, '%').map((measure) => [
        measure.id,
        Object.fromEntries(
          measure.compare(setupsOf(all)).map(({ place }, at) => [setupsOf(all)[at]?.runs[0]?.run.header.charger.id, place]),
        ),
      ]),
    );

  it('does not depend on the order of runs', () => {
    fc.assert(
      fc.property(study, (all) => {
        expect(placesOf([...all].reverse())).toEqual(placesOf(all));
      }),
      { numRuns: 40 },
    );
  });

  /** A value as it is written, in its own unit: times in minutes. */
  const read = (text = ''): number => {
    const time = /(?:(\d+) h ?)?(\d+)?(?: min)?(?: (\d+) s)?$/.exec(text);
    const number = /^([−+]?)([\d.]+) /.exec(text);
    const sign = text.startsWith('−') ? -1 : 1;
    return /\d (h|min|s)\b/.test(text) && time
      ? sign * (60 * Number(time[1] ?? 0) + Number(time[2] ?? 0) + Number(time[3] ?? 0) / 60)
      : sign * Number(number?.[2] ?? NaN);
  };

  it('differs from another by what the two values show, to the digits that its margin leaves', () => {
    let told = 0;
    fc.assert(
      fc.property(study, (all) => {
        for (const { unit, compare } of measuresOf(all, '%')) {
          const cells = compare(setupsOf(all));
          for (const cell of cells)
            for (const zero of cells) {
              if (cell === zero || !cell.mean || !zero.mean) continue;
              const by = writeDifference(cell, zero, unit);
              if (by.value === undefined || by.value === 'a tie') continue;
              told += 1;
              const [, decimals = ''] = /\.(\d+)/.exec(by.value) ?? [];
              expect(Math.abs(read(cell.value) - read(zero.value) - read(by.value))).toBeLessThanOrEqual(
                0.5 * 10 ** -decimals.length + 1e-9,
              );
            }
        }
      }),
      { numRuns: 40 },
    );
    expect(told).toBeGreaterThan(500);
  });

  it('ties both ways, ranks as the number that is surely better says, and its whole row agrees with its working', () => {
    fc.assert(
      fc.property(study, (all) => {
        for (const measure of measuresOf(all, '%')) {
          const cells = measure.compare(setupsOf(all));
          for (const [at, cell] of cells.entries()) {
            if (!cell.mean || cell.mean.isLeast || !measure.better) continue;
            const mine = cell.mean;
            const better = cells.filter(
              ({ mean }) => mean && mean !== mine && difference(mean, mine).told === (measure.better === 'less' ? 'below' : 'above'),
            );
            expect(cell.rank?.place).toBe(1 + better.length);
            for (const other of cells)
              if (other.mean && !other.mean.isLeast && other !== cell)
                expect(writeDifference(cell, other, measure.unit).value === 'a tie').toBe(
                  writeDifference(other, cell, measure.unit).value === 'a tie',
                );
            const told = workingOf(
              cells,
              at,
              cells.map((_, index) => `S${index}`),
              measure,
            ).filter((says) => says.includes('surely better'));
            expect(told).toHaveLength(better.length);
          }
        }
      }),
      { numRuns: 40 },
    );
  });
});

it('lays one figure out over devices and chargers, each device ranked by itself, what was not run open', () => {
  const slate = { id: 'slate', name: 'Bittern Slate', kind: 'tablet' as const, wattHours: 31 };
  const all = [
    runOf('weak', [
      [0, 1],
      [95, 79],
      [100, 80],
    ]),
    runOf('strong', [
      [0, 1],
      [40, 79],
      [45, 80],
    ]),
    runOf(
      'strong',
      [
        [0, 1],
        [115, 79],
        [120, 80],
      ],
      { device: slate },
    ),
  ];
  const by = measuresOf(all, '%').find(({ id }) => id === 'level-80');
  const { devices, sources } = matrixOf(
    setupsOf(all),
    by ??
      (() => {
        throw new Error('no measure');
      })(),
  );
  expect(sources.map(({ name }) => name)).toEqual(['weak', 'strong']);
  expect(devices.map(({ cells }) => cells.map((cell) => cell && [cell.cell.place, cell.shade]))).toEqual([
    [
      ['2', 0],
      ['1', 1],
    ],
    [undefined, ['1', 1]],
  ]);
});
