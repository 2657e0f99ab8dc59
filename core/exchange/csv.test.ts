import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import type { Entry } from '../ink/entry';
import { foldRun } from '../ink/fold';
import { inkOf } from '../ink/build';
import { sightings } from '../ink/track';
import { type Samples } from '../samples/column';
import { QUANTITIES } from '../quantity/quantity';
import { columnOf } from './columns';
import { readCsv } from './csvIn';
import { writeCsv } from './csvOut';
import { runFromCsv } from './runFromCsv';
import { typedSamples } from './samplesFit';

const header = exampleHeader();
const METER =
  'Time (s),Voltage (V),Current (A),Battery %,Temperature (°F),Case\n0,5.02,0.95,2,77,off\n1,9.01,2.34,2,77,off\n61,9.01,2.30,3,,off\n';

describe('a meter’s CSV, headed in plain English', () => {
  it('becomes samples, whatever the order of its columns', () => {
    const run = readCsv(METER, 'meter.csv');
    expect(run.samples.volts?.values).toEqual(Float64Array.of(5.02, 9.01, 9.01));
    expect(run.samples.percent?.seconds).toEqual(Float64Array.of(0, 1, 61));
    expect(run.samples.celsius?.values).toEqual(Float64Array.of(25, 25));
    expect(run).toMatchObject({ rows: 3, skipped: 0, length: 61, ignored: ['Case'], plugInAt: undefined });
    const turned = METER.split('\n')
      .map((line) => line.split(',').reverse().join(','))
      .join('\n');
    expect(readCsv(turned, 'meter.csv').samples).toEqual(run.samples);
  });

  it('reads a number as the language does, to its last bit, however it is written', () => {
    const written = fc
      .tuple(fc.boolean(), fc.bigInt({ min: 0n, max: 10n ** 17n }), fc.integer({ min: 0, max: 9 }))
      .map(([isBelow, digits, decimals]) => {
        const text = String(digits).padStart(decimals + 1, '0');
        const number = decimals === 0 ? text : `${text.slice(0, -decimals)}.${text.slice(-decimals)}`;
        return `${isBelow ? '-' : ''}${number}`;
      });
    fc.assert(
      fc.property(fc.array(written, { minLength: 1, maxLength: 20 }), (all) => {
        const kept = all.filter((text) => Math.abs(Number(text)) <= 200);
        const rows = kept.map((text, row) => `${row},${text}`);
        const { samples } = readCsv(`time (s),celsius,watts\n0,20,1\n${rows.join('\n')}`, 'log.csv', {
          decimal: 'point',
          skipBadRows: true,
        });
        const fits = kept.map(Number).filter((value) => value >= -60 && value <= 200);
        expect(
          Array.from(samples.celsius?.values ?? [])
            .slice(1, 1 + fits.length)
            .every((value) => fits.includes(value)),
        ).toBe(true);
      }),
    );
  });

  it('keeps the times of a column that a row lacks apart from those that the others share', () => {
    const { samples } = readCsv('time (s),volts,amps,watts\n0,5,1,5\n1,5,1,5\n2,5,,5\n3,5,2,\n4,5,2,5\n', 'log.csv');
    expect(samples.volts?.seconds).toEqual(Float64Array.of(0, 1, 2, 3, 4));
    expect(samples.amps).toEqual({ seconds: Float64Array.of(0, 1, 3, 4), values: Float64Array.of(1, 1, 2, 2) });
    expect(samples.watts).toEqual({ seconds: Float64Array.of(0, 1, 2, 4), values: Float64Array.of(5, 5, 5, 5) });
  });

  it('keeps times to a millionth of a second, and rows that lie closer at one time', () => {
    const { samples } = readCsv('time (s),watts\n0.1,1\n0.30000000000000004,2\n0.3000001,3\n0.300002,4\n5e-308,5\n', 'log.csv', {
      decimal: 'point',
      skipBadRows: true,
    });
    expect(samples.watts?.seconds).toEqual(Float64Array.of(0, 0.2, 0.2, 0.200002));
    expect(typedSamples({ watts: { seconds: [0, 5e-308, 1 / 3], values: [1, 2, 3] } }).watts?.seconds).toEqual(
      Float64Array.of(0, 0, 0.333333),
    );
  });

  it('gives watts from volts and amps', () => {
    const { header: kept, entries, samples } = runFromCsv(readCsv(METER, 'meter.csv'), header, () => 'id', 0);
    const { tracks, stop, sampled } = foldRun(kept, entries, samples);
    expect(tracks.watts.values[0]).toBeCloseTo(5.02 * 0.95, 12);
    expect(sampled.has('watts')).toBe(true);
    expect(stop).toMatchObject({ seconds: 61, remark: 'end of the file' });
  });

  it('understands decimal commas, clocks over midnight, and instants', () => {
    const night = readCsv('time;watts\n23:59:30;12,5\n0:00:30;12,0\n', 'night.csv');
    expect(night.samples.watts).toEqual({ seconds: Float64Array.of(0, 60), values: Float64Array.of(12.5, 12) });
    const dated = readCsv('timestamp,power (mW)\n2026-10-05T14:02:00Z,5000\n2026-10-05T14:03:00Z,6000\n', 'dated.csv');
    expect(dated).toMatchObject({ plugInAt: Date.UTC(2026, 9, 5, 14, 2), length: 60 });
    expect(dated.samples.watts?.values).toEqual(Float64Array.of(5, 6));
    expect(readCsv('minutes,percent\n5,10\n7.5,12\n', 'm.csv').length).toBe(150);
  });

  it.each([
    ['Voltage (V)', 'volts'],
    ['vbus', 'volts'],
    ['current_mA', 'amps'],
    ['Amps', 'amps'],
    ['Power [W]', 'watts'],
    ['W', 'watts'],
    ['Energy (Wh)', 'wattHours'],
    ['mAh', 'milliampHours'],
    ['State of charge', 'percent'],
    ['%', 'percent'],
    ['Temp °C', 'celsius'],
  ])('knows “%s” as %s', (heading, quantity) => expect(columnOf(heading)).toMatchObject({ quantity }));

  it('scales by the unit in the heading', () => {
    const scaled = (heading: string, value: number) => {
      const column = columnOf(heading);
      return column?.holds === 'quantity' ? column.convert(value) : undefined;
    };
    expect(scaled('current_mA', 950)).toBe(0.95);
    expect(scaled('Capacity (Ah)', 1.25)).toBe(1250);
    expect(scaled('Temperature °F', 104)).toBe(40);
    expect(columnOf('elapsed (ms)')).toEqual({ holds: 'elapsed', scale: 0.001 });
    expect(columnOf('colour')).toBeUndefined();
  });
});

describe('a CSV that cannot be read', () => {
  it.each([
    ['', /bad.csv is empty/],
    ['\0PNG\0', /not a text file/],
    ['hello\nworld\n', /heads no column of times \(found “hello”\)/],
    ['time,colour\n0,red\n', /heads nothing to read/],
    ['time,watts\n', /a heading but no rows/],
    ['time,watts\n0,5\n1,5,7\n', /Row 3 of bad.csv has 3 columns where the heading has 2/],
    ['time,watts\n0,5\n60,lots\n', /Row 3 of bad.csv: “lots” is not a number in column “watts”/],
    ['time,watts\n0,"12,4,1"\n', /“12,4,1” is not a number in column “watts”. Choose decimal comma, or skip the row/],
    ['time,watts\n60,5\n30,5\n', /Row 3 of bad.csv goes back in time, from 60 s to 30 s/],
    ['time,watts\n,5\n', /Row 2 of bad.csv has no time/],
    ['time,watts\n13/13/2026 14:00,5\n', /is no day of the calendar/],
    ['time,watts\n5/10/26 14:00,5\n', /is not a time in column “time”. Write it as 2026-10-05T/],
    ['time,percent\n0,130\n', /“130” is not a level from 0 to 100 %/],
    ['time,watts,power\n0,5,5\n', /“watts” and “power” of bad.csv both look like watts/],
    ['elapsed (s),kind,watts\n0,guess,5\n', /“guess” is not a kind of row/],
  ])('%j is refused by its place, with the way out', (text, sentence) => expect(() => readCsv(text, 'bad.csv')).toThrow(sentence));

  it('loses only its bad rows when told to skip them', () => {
    const options = { decimal: 'auto', skipBadRows: true } as const;
    expect(readCsv('time,watts\n0,5\n60,lots\n120,6\n', 'bad.csv', options)).toMatchObject({ rows: 2, skipped: 1 });
    expect(() => readCsv('time,watts\n0,lots\n', 'bad.csv', options)).toThrow(/No row of bad.csv could be read/);
  });
});

const reading = fc.record(
  {
    seconds: fc.integer({ min: 0, max: 90_000_000 }).map((milliseconds) => milliseconds / 1000),
    percent: fc.integer({ min: 0, max: 100 }),
    volts: fc.double({ min: 0, max: 48, noNaN: true }),
    watts: fc.double({ min: 0, max: 240, noNaN: true }),
    celsius: fc.double({ min: -20, max: 60, noNaN: true }).map((value) => value + 0),
  },
  { requiredKeys: ['seconds', 'percent'] },
);

it('keeps every value that was not struck, out and in', () => {
  const notes = fc.constantFrom('', '=1+1', "'=x", '"quoted", with\nlines', '-', '<b>hot</b>');
  fc.assert(
    fc.property(fc.array(reading, { minLength: 2, maxLength: 12 }), notes, fc.boolean(), (rows, text, streamed) => {
      const ink: Entry[] = inkOf(header, rows);
      const at = header.plugInAt;
      ink.push({ kind: 'strike', seq: 90, id: 's', at, written: at, target: ink[0]?.id ?? '', reason: 'slip' });
      if (text && text !== '-') ink.push({ kind: 'note', seq: 91, id: 'n', at, written: at, text });
      ink.push({ kind: 'stop', seq: 92, id: 'e', at: at + 90_000_000, written: at, because: 'will not finish', remark: 'stuck: twice' });
      const samples: Samples = streamed ? { amps: { seconds: Float64Array.of(0, 0.5, 1), values: Float64Array.of(1, 2, 3) } } : {};
      const before = foldRun(header, ink, samples);
      const back = runFromCsv(readCsv(writeCsv(before, samples), 'run.csv'), header, () => Math.random().toString(36), 0);
      const after = foldRun(back.header, back.entries, back.samples);
      const values = (run: typeof before) =>
        QUANTITIES.map((quantity) => sightings(run.tracks[quantity]).map(({ seconds, value }) => [seconds, value]));
      expect(values(after)).toEqual(values(before));
      expect(after.notes.map((note) => note.text)).toEqual(before.notes.map((note) => note.text));
      expect(after.stop).toMatchObject({ because: 'will not finish', remark: 'stuck: twice', seconds: 90_000 });
    }),
  );
});

it('brings back the instant of plug-in', () => {
  const csv = writeCsv(foldRun(header, inkOf(header, [{ seconds: 300, percent: 9 }])));
  expect(readCsv(csv, 'run.csv')).toMatchObject({ plugInAt: header.plugInAt, length: 300 });
});

describe('a run’s own CSV is always read back', () => {
  const back = (entries: readonly Entry[], samples: Samples = {}, plugInAt = header.plugInAt) => {
    const head = { ...header, plugInAt };
    let made = 0;
    return runFromCsv(readCsv(writeCsv(foldRun(head, entries, samples), samples), 'run.csv'), head, () => `b${(made += 1)}`, 0);
  };
  const noted = (text: string, at = header.plugInAt): Entry => ({ kind: 'note', seq: 1, id: 'n', at, written: at, text });

  it('with an event milliseconds before plug-in', () => {
    const at = header.plugInAt - 5;
    expect(back([{ kind: 'event', event: 'booted', seq: 1, id: 'e', at, written: at }]).entries[0]).toMatchObject({ event: 'booted', at });
  });

  it('with nothing in it', () => {
    expect(back([]).entries.map(({ kind }) => kind)).toEqual(['stop']);
    expect(() => readCsv('time,watts\n', 'meter.csv')).toThrow(/a heading but no rows/);
  });

  it('with letters that no text has, and a formula behind a tab', () => {
    expect(back([noted('a\0b')]).entries[0]).toMatchObject({ text: 'a␀b' });
    for (const text of ['=1+1', '\t=1+1', '\r-1', "'=x", '@sum'])
      expect(writeCsv(foldRun(header, [noted(`a${text}`), { ...noted(text), id: 'm', seq: 2 }]))).toMatch(/,"?'+[\s=\-@']/);
    expect(back([noted("'\t=1")]).entries[0]).toMatchObject({ text: "'\t=1" });
  });

  it('at the end of 2199, where the last rows of a log lie past what dates are kept for', () => {
    const end = Date.UTC(2200, 0, 1) - 1000;
    const watts = { seconds: Float64Array.of(0, 60), values: Float64Array.of(18, 17) };
    const run = back([], { watts }, end);
    expect(run.samples?.watts).toEqual(watts);
    expect(run.entries.at(-1)).toMatchObject({ kind: 'stop', at: Date.UTC(2200, 0, 1) - 1 });
  });
});
