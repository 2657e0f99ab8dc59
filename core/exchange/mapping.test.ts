import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readCsv } from './csvIn';
import { ImportError } from './importError';
import { columnFor, meanings, peek, type Mapping } from './mapping';

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
          const { samples, length } = readCsv(broken, 'x.csv', options);
          expect(Number.isFinite(length)).toBe(true);
          for (const column of Object.values(samples)) expect([...column.values].every(Number.isFinite)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(ImportError);
        }
      }
    }),
    { numRuns: 400 },
  );
});
