import { expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { foldRun, type RunRecord } from '../ink/fold';
import { inkOf } from '../ink/build';
import { figuresOf } from './figures';
import { writeFigures } from './words';
import { notices } from './notices';
import { presentSummary, summarise, type Summary } from './summary';

const written = (run: RunRecord) => writeFigures(figuresOf(run));

const header = exampleHeader();
const minutes = (...rows: [minute: number, percent: number, watts: number, celsius: number][]) =>
  rows.map(([minute, percent, watts, celsius]) => ({ seconds: minute * 60, percent, watts, celsius }));

// Common practice, no source: a phone limited to 9 V 3 A; peak 26 W, front 40.5 °C at 10 min, 43.8 at 20, 42.4 at 30; 50 % at 24, 80 % at 50, full at 108 min.
const phone = foldRun(
  exampleHeader({ cadence: undefined }),
  inkOf(
    header,
    minutes(
      [0, 0, 5, 24],
      [10, 23, 26, 40.5],
      [20, 43, 19, 43.8],
      [24, 50, 19, 43],
      [30, 58, 14, 42.4],
      [50, 80, 5, 38],
      [103, 99, 2, 31],
      [108, 100, 1, 30],
    ),
  ),
);

it('says what a meter counted, and from where it began anew', () => {
  const counter = (...wattHours: number[]) =>
    written(
      foldRun(
        header,
        inkOf(
          header,
          wattHours.map((each, index) => ({ seconds: index * 600, percent: 10 + index, wattHours: each })),
        ),
      ),
    ).find(({ id }) => id === 'counter');
  expect(counter(0.5, 3.2, 6.75)).toMatchObject({
    value: '6.25 Wh',
    detail: 'from 0 min to 20 min',
    span: { from: 0, to: 1200 },
    working: { formula: '6.75 − 0.5', unit: 'Wh', uses: [{ value: 0.5 }, { value: 6.75 }] },
  });
  const anew = counter(0.5, 3.2, 0.4, 2.4);
  expect(anew).toMatchObject({ detail: expect.stringContaining('it began anew at 20 min') as string, working: { unit: 'Wh' } });
  expect(anew?.value).toMatch(/^at least /);
  expect(anew?.working?.uses).toHaveLength(1);
});

it('says how warm it felt at the last, and before', () => {
  const felt = (...events: [minute: number, event: 'felt warm' | 'felt hot'][]) =>
    written(
      foldRun(header, [
        ...inkOf(header, [{ seconds: 0, percent: 10 }]),
        ...events.map(([minute, event], index) => {
          const at = header.plugInAt + minute * 60_000;
          return { kind: 'event' as const, seq: index + 2, id: `f${index}`, at, written: at, event };
        }),
      ]),
    ).find(({ id }) => id === 'felt');
  expect(felt([20, 'felt warm'], [35, 'felt hot'])).toMatchObject({
    value: 'hot',
    detail: 'at 35 min; before: warm at 20 min; by hand, and never ranked',
    span: { from: 2100, to: 2100 },
    working: { formula: 'as it was noted' },
  });
  expect(felt([20, 'felt warm'])?.detail).toBe('at 20 min; by hand, and never ranked');
  expect(felt()).toBeUndefined();
});

it('puts a whole run into figures that claim no more than was seen', () => {
  const figures = Object.fromEntries(written(phone).map(({ id, value, detail }) => [id, `${value ?? ''} | ${detail}`]));
  expect(figures['level-50']).toBe('24 min | between 22 and 24 min');
  expect(figures['level-100']).toBe('1 h 48 | first seen; between 1 h 43 and 1 h 48');
  expect(figures['gain-1800']).toContain('58 points | ± 1');
  expect(figures['gain-900']).toContain('33 points | ± 3');
  expect(figures.peak).toBe('26 W | ± 2 W · at 10 min');
  expect(figures.hottest).toContain('43.8 °C | at 20 min');
});

it('says why a figure cannot be given', () => {
  const bare = written(foldRun(header, inkOf(header, [{ seconds: 150, percent: 1 }])));
  expect(bare.every(({ value }) => value === undefined || value === 'not reached')).toBe(true);
  expect(bare.find(({ id }) => id === 'gain-900')?.detail).toBe('the level at plug-in is not known');
  expect(bare.find(({ id }) => id === 'energy')?.detail).toBe('no watts were read');
});

it('covers less than the whole run where watts were not seen', () => {
  const gap = foldRun(
    header,
    inkOf(
      header,
      [0, 300, 600, 2400, 2700].map((seconds) => ({ seconds, percent: 10, watts: 10, wattHours: seconds / 360 })),
    ),
  );
  const sum = written(gap).find(({ id }) => id === 'energy');
  expect(sum).toMatchObject({ value: 'at least 2.5 Wh', detail: '± 0.3 Wh · covers 33 % of the time' });
  expect(written(gap).find(({ id }) => id === 'counter')?.value).toBe('7.50 Wh');
  expect(notices(gap).map(({ text }) => text)).toContain('No watts seen from 10 min to 40 min: left out of the energy');
});

it('points out what a reader should know', () => {
  const run = foldRun(header, inkOf(header, minutes([0, 2, 9, 25], [6.5, 9, 9, 39], [10, 8, 9, 41], [20, 20, 9, 42])));
  expect(notices(run).map(({ kind }) => kind)).toEqual(['late', 'fell', 'hot', 'missed']);
  expect(notices(run).find(({ kind }) => kind === 'hot')?.text).toBe('Above 40 °C between 10 min and 20 min, up to 42.0 °C');
});

it('says checks that were missed here and there once, as a count', () => {
  const often = foldRun(
    header,
    inkOf(header, minutes(...([0, 10, 20, 30, 40, 50] as const).map((at): [number, number, number, number] => [at, at, 9, 25]))),
  );
  const missed = notices(often).filter(({ kind }) => kind === 'missed');
  expect(missed).toMatchObject([{ from: 300, to: 2700, text: '5 checks were missed, the first at 5 min, the last at 45 min' }]);
});

it('sums a run up for a list', () => {
  expect(summarise(phone)).toMatchObject({
    startLevel: 0,
    lastLevel: 100,
    timeTo80: '50 min',
    timeTo100: '1 h 48',
    device: 'Sedge 5',
    end: 6480,
  });
  const { timeTo80: eighty, timeTo100: full, ...rest } = summarise(phone);
  expect(presentSummary({ ...rest, eighty, full } as unknown as Summary)).toEqual(summarise(phone));
});

// Common practice, no source: a camera that shows no percentage took 3 h 26 on its own charger until its light went out.
it('sums up a device without a percentage by its light', () => {
  const at = (minutes: number) => ({ at: header.plugInAt + minutes * 60_000, written: header.plugInAt });
  const camera = foldRun(header, [
    ...inkOf(header, [{ seconds: 204 * 60, amps: 0.1 }]),
    { kind: 'event', seq: 2, id: 'e', event: 'light off', ...at(206) },
  ]);
  expect(summarise(camera)).toMatchObject({ timeTo80: '—', timeTo100: '3 h 26, light out' });
  expect(summarise(foldRun(header, []))).toMatchObject({ timeTo100: '—' });
});

it('gives a figure for every place it names, and a place for every figure that has one', () => {
  for (const figure of written(phone)) {
    const { span, working } = figure;
    if (span) expect(span.from).toBeLessThanOrEqual(span.to);
    for (const { seconds } of working?.uses ?? []) expect(seconds).toBeLessThanOrEqual(phone.end);
    expect(figure.value === undefined).toBe(working === undefined);
  }
});

it('does not read a meter’s counter over a reset', () => {
  const reset = foldRun(
    header,
    inkOf(
      header,
      [0, 300, 600].map((seconds) => ({ seconds, wattHours: seconds === 600 ? 0.2 : seconds / 100 })),
    ),
  );
  expect(written(reset).find(({ id }) => id === 'counter')).toMatchObject({
    detail: 'it began anew at 10 min: what ran in between is missing',
  });
});

// Common practice, no source: one phone, battery health 85 %, 0→100 % in 270 min on 5 W, which needs 2½ min to boot it.
it('has no gain for a phone that was dead at plug-in until its level there is written', () => {
  const dead = [
    { seconds: 150, percent: 1 },
    { seconds: 3600, percent: 24 },
    { seconds: 16_200, percent: 100 },
  ];
  const unknown = foldRun(header, inkOf(header, dead));
  expect(written(unknown).find(({ id }) => id === 'gain-3600')?.detail).toBe('the level at plug-in is not known');
  const known = foldRun(header, inkOf(header, [...dead, { seconds: 0, percent: 0 }]));
  expect(written(known).find(({ id }) => id === 'gain-3600')?.value).toBe('24 points');
  expect(written(known).find(({ id }) => id === 'level-100')?.value).toBe('4 h 30');
});

it('lists what is worth a look in order of time, each within the run', () => {
  const pad = foldRun(exampleHeader({ cadence: { kind: 'fixed', every: 900 } }), [
    ...inkOf(
      header,
      [0, 900, 1830, 4500, 5400, 9000].map((seconds) => ({ seconds, percent: Math.min(81, 2 + seconds / 40) })),
    ),
    { kind: 'strike', seq: 20, id: 's', at: header.plugInAt, written: header.plugInAt, target: 'run-1-2', reason: 'wrong pad' },
  ]);
  const all = notices(pad);
  expect(all.map(({ from }) => from)).toEqual([...all.map(({ from }) => from)].sort((one, other) => one - other));
  expect(all.map(({ kind }) => kind)).toContain('stall');
  expect(all.find(({ kind }) => kind === 'struck')?.text).toBe('Struck at 15 min: wrong pad');
  expect(all.every(({ to }) => to <= 9000 + 450)).toBe(true);
});
