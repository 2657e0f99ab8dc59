import fc from 'fast-check';
import { nanoid } from 'nanoid';
import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import { readCsv } from './csvIn';
import { ImportError } from './importError';
import { columnFor, meanings, peek, tellsAll, type Mapping } from './mapping';
import { lastAt } from './moments';
import { runFromCsv } from './runFromCsv';
import { runMisfit } from './runMisfit';

const header = exampleHeader();

/** One charge of three rows as invented meters would log it: 0, 10 and 20 s; 9 V, 2.5 A, 22.5 W, and 41, 42, 42 %. */
const CLOCKS = {
  'elapsed (s)': ['0', '10', '20'],
  'Elapsed [ms]': ['0', '10000', '20000'],
  seconds: ['0', '10', '20'],
  minutes: ['0', '0.1666667', '0.3333333'],
  Time: ['23:59:50', '00:00:00', '00:00:10'],
  timestamp: ['2026-10-05T14:00:00Z', '2026-10-05T14:00:10Z', '2026-10-05T14:00:20Z'],
  'Date Time': ['2026-10-05 14:00:00', '2026-10-05 14:00:10', '2026-10-05 14:00:20'],
} as const;
const POWERS: readonly Readonly<Record<string, string>>[] = [
  { 'Voltage (V)': '9.00', 'Current (A)': '2.500', 'Power (W)': '22.5' },
  { voltage_mV: '9000', current_mA: '2500', power_mW: '22500' },
  { 'VBUS [V]': '9', 'Current [mA]': '2500', Watts: '22.5' },
];
const DELIMITERS = [',', ';', '\t', '|'] as const;
const ABOVE = ['', 'Log of bench meter 3\nfirmware 2.1, range auto\n'] as const;

interface Dialect {
  name: string;
  text: string;
}
const zoo: Dialect[] = Object.entries(CLOCKS).flatMap(([clock, times], index) =>
  POWERS.flatMap((power, kind) =>
    [0, 1].map((turn): Dialect => {
      const delimiter = DELIMITERS[(index + kind + 2 * turn) % DELIMITERS.length] ?? ',';
      const comma = turn === 1 && delimiter !== ',';
      const above = ABOVE[(index + turn) % 2] ?? '';
      const figure = (text: string) => (comma ? text.replace('.', ',') : text);
      const heading = [clock, 'Battery %', ...Object.keys(power), 'Mode'].join(delimiter);
      const rows = times.map((time, row) =>
        [clock === 'minutes' ? figure(time) : time, ['41', '42', '42'][row], ...Object.values(power).map(figure), 'CC'].join(delimiter),
      );
      return {
        name: `${clock} · ${Object.keys(power).join(' ')} · ${JSON.stringify(delimiter)}${comma ? ' · comma' : ''}${above ? ' · preamble' : ''}`,
        text: `${above}${heading}\n${rows.join('\n')}\n`,
      };
    }),
  ),
);

describe(`a zoo of ${zoo.length} invented logs`, () => {
  it('has at least 40', () => {
    expect(new Set(zoo.map(({ text }) => text)).size).toBeGreaterThanOrEqual(40);
  });

  it.each(zoo)('reads $name', ({ text }) => {
    const { samples, length } = readCsv(text, 'log.csv');
    expect(length).toBeCloseTo(20, 3);
    expect(Array.from(samples.percent?.values ?? [])).toEqual([41, 42, 42]);
    for (const [quantity, value] of [
      ['volts', 9],
      ['amps', 2.5],
      ['watts', 22.5],
    ] as const)
      for (const read of samples[quantity]?.values ?? []) expect(read).toBeCloseTo(value, 9);
    // What is shown before it is read says the same.
    const { mapping } = peek(text);
    const said = readCsv(text, 'log.csv', { decimal: 'auto', skipBadRows: false, mapping });
    expect(said.samples.watts?.values).toEqual(samples.watts?.values);
  });
});

describe('columns that nobody headed', () => {
  const bare = '0,9.01,2.4\n1,9.02,2.5\n2,9.00,2.5\n3,9.01,2.4\n';

  it('are told as far as they can be: what only rises is the clock', () => {
    expect(peek(bare)).toMatchObject({ mapping: { headingRow: undefined, columns: ['elapsed:s', '', ''] } });
    expect(() => readCsv(bare, 'bare.csv')).toThrow(ImportError);
  });

  it('are read as a person says, in any unit, and refused where it does not add up', () => {
    const said = (columns: string[]) =>
      readCsv(bare, 'bare.csv', { decimal: 'auto', skipBadRows: false, mapping: { headingRow: undefined, columns } });
    expect(said(['elapsed:min', 'volts:V', 'amps:A'])).toMatchObject({ rows: 4, length: 180 });
    expect(Array.from(said(['elapsed:s', 'celsius:°F', 'amps:mA']).samples.amps?.values ?? [])).toEqual([0.0024, 0.0025, 0.0025, 0.0024]);
    expect(() => said(['', 'volts:V', 'amps:A'])).toThrow(/hold times/);
    expect(() => said(['elapsed:s', '', ''])).toThrow(/anything to read/);
    expect(() => said(['elapsed:s', 'volts:V', 'volts:mV'])).toThrow(/Two columns .* volts/);
  });

  it('have a meaning for every quantity and unit that is offered', () => {
    for (const { value } of meanings()) expect(columnFor(value) === undefined).toBe(value === '');
  });
});

it('an error names the row of the file, whatever stands above its heading', () => {
  expect(() => readCsv('made by meter 3\n\nelapsed (s),watts\n0,5\n1,oops\n', 'log.csv')).toThrow(
    /Row 5 of log\.csv: “oops” is not a number/,
  );
});

it('a file that was mangled is read or refused, in no time and with a sentence', () => {
  const text = fc.constantFrom(...zoo.map((each) => each.text));
  const mangled = fc
    .tuple(text, fc.array(fc.tuple(fc.nat(600), fc.string({ maxLength: 6 })), { maxLength: 6 }))
    .map(([whole, cuts]) =>
      cuts.reduce(
        (now, [at, put]) => now.slice(0, at % (now.length + 1)) + put + now.slice((at % (now.length + 1)) + (put.length % 3)),
        whole,
      ),
    );
  fc.assert(
    fc.property(mangled, (broken) => {
      const mapping: Mapping = peek(broken).mapping;
      for (const options of [undefined, { decimal: 'auto' as const, skipBadRows: true, mapping }]) {
        try {
          const first = readCsv(broken, 'x.csv', options);
          // Whatever was read can be stored as a run, and comes back as one.
          for (const each of [first, ...first.beside])
            expect(runMisfit(runFromCsv(each, exampleHeader({ source: 'x.csv' }), () => nanoid(12), header.plugInAt))).toBeUndefined();
        } catch (error) {
          expect(error).toBeInstanceOf(ImportError);
        }
      }
    }),
    { numRuns: 2000 },
  );
}, 60_000);

describe('a log of several devices', () => {
  it('gives a run for each where a column names them, each by a clock of its own', () => {
    const run = readCsv(
      'elapsed (s),device,percent,watts\n0,Sedge 5,10,18\n0,Teasel 14,40,30\n60,Sedge 5,12,18\n90,Teasel 14,41,31\n',
      'bench.csv',
    );
    expect([run, ...run.beside].map(({ device, length, rows }) => [device, length, rows])).toEqual([
      ['Sedge 5', 60, 2],
      ['Teasel 14', 90, 2],
    ]);
    expect(Array.from(run.beside[0]?.samples.watts?.values ?? [])).toEqual([30, 31]);
  });

  it('may have one device below the other', () => {
    const run = readCsv('time,channel,watts\n10:00:00,1,5\n10:00:10,1,6\n10:00:05,2,9\n10:00:25,2,9\n', 'bench.csv');
    expect([run, ...run.beside].map(({ device, length }) => [device, length])).toEqual([
      ['1', 10],
      ['2', 20],
    ]);
  });

  it.each([
    'seconds,Volts 1,Watts 1,Volts 2,Watts 2,room temp',
    'seconds,Ch 1 Voltage (V),Ch 1 Power (W),Ch 2 Voltage (V),Ch 2 Power (W),temperature',
    'seconds,A volts,A watts,B volts,B watts,temp',
  ])('may have columns for each: %s', (heading) => {
    const run = readCsv(`${heading}\n0,9,18,5,4,21\n10,9,17,5,4,22\n`, 'bench.csv');
    expect(run.beside).toHaveLength(1);
    expect(Array.from(run.samples.watts?.values ?? [])).toEqual([18, 17]);
    expect(Array.from(run.beside[0]?.samples.watts?.values ?? [])).toEqual([4, 4]);
  });

  it('may be said to have columns for each by a person', () => {
    const mapping: Mapping = { headingRow: undefined, columns: ['elapsed:s', 'watts:mW@left', 'watts:W@right'] };
    const run = readCsv('0,5000,9\n10,6000,8\n', 'bare.csv', { decimal: 'auto', skipBadRows: false, mapping });
    expect([run, ...run.beside].map(({ device, samples }) => [device, samples.watts?.values[1]])).toEqual([
      ['left', 6],
      ['right', 8],
    ]);
  });

  it('is of one where only one column bears a number, and of none where hundreds are named', () => {
    expect(readCsv('seconds,watts 1,volts\n0,9,5\n', 'log.csv', { decimal: 'auto', skipBadRows: true }).beside).toEqual([]);
    const rows = Array.from({ length: 30 }, (_, row) => `${row},d${row},5`).join('\n');
    expect(() => readCsv(`seconds,device,watts\n${rows}\n`, 'log.csv')).toThrow(/more than 24 devices/);
  });
});

describe('words in a log', () => {
  it('become notes where they change, and events where they name one', () => {
    const { entries, samples } = readCsv('elapsed (s),watts,remark\n0,5,\n10,18,handshake\n20,18,handshake\n30,2,fan on\n', 'log.csv');
    expect(entries.map(({ seconds, draft }) => [seconds, draft.kind])).toEqual([
      [10, 'event'],
      [30, 'note'],
    ]);
    expect(samples.watts?.values).toHaveLength(4);
  });

  it('say what the device requested in columns of its own', () => {
    const { samples } = readCsv('elapsed (s),Requested voltage (V),Requested current (mA),Voltage (V)\n0,9,3000,8.9\n', 'log.csv');
    expect([samples.askedVolts?.values[0], samples.askedAmps?.values[0], samples.volts?.values[0]]).toEqual([9, 3, 8.9]);
  });
});

describe('a log in words that are not known here', () => {
  it('is told by its units and its clock, in a row of their own or behind the headings; a person says that it is read so', () => {
    const rows = 'Zeit;Spannung;Strom;Ladestand\nhh:mm:ss;V;mA;%\n23:59:30;9,02;2200;5\n00:00:30;9,02;2190;6\n';
    const { mapping, why } = peek(rows);
    expect(mapping).toEqual({ headingRow: 0, columns: ['time', 'volts:V', 'amps:mA', 'percent:%'] });
    expect(why).toEqual(['its cells are times', 'by its unit', 'by its unit', 'by its unit']);
    expect(tellsAll(mapping)).toBe(true);
    expect(() => readCsv(rows, 'log.csv')).toThrow(/heads no column of times/);
    const { samples, length, timeOfDay, rows: count } = readCsv(rows, 'log.csv', { decimal: 'auto', skipBadRows: false, mapping });
    expect([length, count, samples.amps?.values[0], samples.percent?.values.at(-1)]).toEqual([60, 2, 2.2, 6]);
    expect(timeOfDay).toBe(86_370);
    expect(peek('Datum;Uhrzeit;W\n05.11.2026;14:00:00;9\n05.11.2026;14:00:10;9\n').mapping.columns).toEqual(['date', 'time', 'watts:W']);
    expect(peek('Temps;Tension [V];Courant [A]\n0;5,1;2\n5;5,1;2\n9;5,1;2\n').mapping.columns).toEqual(['elapsed:s', 'volts:V', 'amps:A']);
  });

  it('is left to a person where two columns have one unit, and where nothing tells', () => {
    const { mapping, why } = peek('Zeit;Eingang (V);Ausgang (V)\n12:00;9;5\n12:01;9;5\n');
    expect([mapping.columns, why[1]]).toEqual([['time', '', ''], 'another column has that unit too']);
    expect(tellsAll(mapping)).toBe(false);
    expect(peek('alpha,beta\n3,7\n1,7\n2,7\n').mapping.columns).toEqual(['', '']);
  });
});

describe('a clock without a date', () => {
  it('tells the time of day, unless it may count from the start', () => {
    const of = (time: string, heading = 'time') => readCsv(`${heading},watts\n${time},9\n`, 'log.csv').timeOfDay;
    expect([of('23:30:00'), of('11:30:00 PM'), of('0:00:00'), of('0:12:30'), of('00:00', 'clock'), of('90', 'seconds')]).toEqual([
      ...[84_600, 84_600, undefined, undefined, 0, undefined],
    ]);
    expect(of('2026-10-05T14:00:00Z')).toBeUndefined();
  });

  it('was last that late yesterday where it is earlier now', () => {
    const latest = new Date(2026, 10, 6, 14, 5).getTime();
    expect([lastAt(84_600, latest), lastAt(3600, latest)]).toEqual([
      new Date(2026, 10, 5, 23, 30).getTime(),
      new Date(2026, 10, 6, 1).getTime(),
    ]);
  });
});

describe('a clock that is put back', () => {
  const rows = (zone: string) =>
    ['02:59:50', '02:59:55', '02:00:00', '02:00:05'].map((time, row) => `2026-10-25 ${time}${zone},${10 + row}`).join('\n');

  it('in autumn goes on: a clock without a zone by the hour it lost', () => {
    const { samples, length } = readCsv(`time,watts\n${rows('')}\n`, 'log.csv');
    expect(length).toBe(15);
    expect(samples.watts?.seconds).toEqual(Float64Array.from([0, 5, 10, 15]));
  });

  it('that tells its zone is believed, and goes back in time', () => {
    expect(() => readCsv(`time,watts\n${rows('+02:00')}\n`, 'log.csv')).toThrow(/goes back in time/);
  });
});

describe('what a heading is taken for', () => {
  const taken = (heading: string) => peek(`Time (s),Volts,${heading}\n0,9,1\n60,9,2\n120,9,3`).mapping.columns[2];

  it.each([
    ['Elapsed (h)', 'elapsed:h'],
    ['Elapsed (ms)', 'elapsed:ms'],
    ['Elapsed', 'elapsed:s'],
    ['minutes', 'elapsed:min'],
    ['Current (µA)', 'amps:µA'],
    ['Power (kW)', 'watts:kW'],
    ['Temperature °F', 'celsius:°F'],
    ['Temperature (°C)', 'celsius:°C'],
    ['Temperature', 'celsius:°C'],
    ['Remarks', 'note'],
    ['Entry', 'entry'],
    ['Colour', ''],
  ])('%s: %s', (heading, meaning) => {
    expect(taken(heading)).toBe(meaning);
  });

  it('a clock is one of the day where it says so, else a clock or seconds, by its unit', () => {
    const clocks = ['Clock', 'Time of day', 'Time', 'Timestamp', 'Time (ms)', 'Time (min)'];
    expect(clocks.map((clock) => peek(`${clock},Volts\n1,9\n2,9`).mapping.columns[0])).toEqual([
      ...['time:of day', 'time:of day', 'time', 'time', 'elapsed:ms', 'elapsed:min'],
    ]);
  });

  it('is read back as it is offered, each in its own unit', () => {
    for (const { value } of meanings()) {
      const column = columnFor(value);
      if (column?.holds !== 'quantity') continue;
      const [quantity = '', unit = ''] = value.split(':');
      const from = `Time (s),${{ watts: 'Power', volts: 'Voltage', amps: 'Current' }[quantity] ?? ''} (${unit})`;
      if (from.includes(', (')) continue;
      expect(peek(`${from}\n0,9\n60,9`).mapping.columns[1], value).toBe(value);
    }
  });
});
