import { expect, it } from 'vitest';
import { readCsv, type CsvOptions, type CsvRun } from './csvIn';
import { isDay, type DateOrder } from './moments';

/**
 * Forty logs in dialects of our own making, each with what it says: read rightly, asked, or refused, and none read as something else. Three rows that say
 * 0, 60 and 120 s, 9.02, 9.01 and 9 V, 2.2, 2.1 and 2 A, 10, 11 and 12 % unless a dialect says otherwise.
 */
const HEAD = { decimal: 'auto', skipBadRows: false } as const;
const at = (year: number, month: number, day: number, ...time: number[]) => new Date(year, month - 1, day, ...time).getTime();
type Says = Partial<
  Record<'seconds' | 'volts' | 'amps' | 'watts' | 'percent' | 'wattHours' | 'milliampHours' | 'batteryAmps' | 'batteryWatts', number[]>
>;
const read = (text: string, options: CsvOptions = HEAD) => readCsv(text, 'log.csv', options);
function said({ samples }: CsvRun): Says {
  const rounded = (values: Iterable<number>) => [...values].map((value) => Math.round(value * 1e6) / 1e6);
  const [first] = Object.values(samples);
  const columns = Object.entries(samples).map(([name, { values }]) => [name, rounded(values)]);
  return { seconds: rounded(first?.seconds ?? []), ...Object.fromEntries(columns) } as Says;
}
const [TIMES, VOLTS, AMPS, LEVELS] = [
  [0, 60, 120],
  [9.02, 9.01, 9],
  [2.2, 2.1, 2],
  [10, 11, 12],
];
const VA = { seconds: TIMES, volts: VOLTS, amps: AMPS };

it.each<[name: string, text: string, says: Says]>([
  ['plain', 'elapsed (s),volts,amps\n0,9.02,2.2\n60,9.01,2.1\n120,9,2', VA],
  ['units in a second row', 'Time,Voltage,Current\ns,V,A\n0,9.02,2.2\n60,9.01,2.1\n120,9,2', VA],
  ['units in brackets in a second row', 'Elapsed;VBUS;IBUS\n[min];[mV];[mA]\n0;9020;2200\n1;9010;2100\n2;9000;2000', VA],
  [
    'some units in a second row',
    'Time,Battery,VBUS voltage\n,%,V\n0,10,9.02\n60,11,9.01\n120,12,9',
    { seconds: TIMES, percent: LEVELS, volts: VOLTS },
  ],
  ['semicolons and decimal commas', 'time;volts;amps\n0;9,02;2,2\n60;9,01;2,1\n120;9,00;2,0', VA],
  ['tabs', 'time\tvolts\tamps\n0\t9.02\t2.2\n60\t9.01\t2.1\n120\t9\t2', VA],
  ['bars', 'time|volts|amps\n0|9.02|2.2\n60|9.01|2.1\n120|9|2', VA],
  ['milli-units', 'ms,mV,mA\n0,9020,2200\n60000,9010,2100\n120000,9000,2000', VA],
  ['micro-units', 'time (s),Current (µA),VBUS (µV)\n0,2200000,9020000\n60,2100000,9010000\n120,2000000,9000000', VA],
  ['kilowatts', 'time (s),Power (kW)\n0,0.02\n60,0.019\n120,0.018', { seconds: TIMES, watts: [20, 19, 18] }],
  ['joules', 'time (s),Energy (J)\n0,0\n60,3600\n120,7200', { seconds: TIMES, wattHours: [0, 1, 2] }],
  ['kilowatt-hours', 'time (s),Energy (kWh)\n0,0\n60,0.001\n120,0.002', { seconds: TIMES, wattHours: [0, 1, 2] }],
  ['amp-hours', 'time (s),Capacity (Ah)\n0,0\n60,0.1\n120,0.2', { seconds: TIMES, milliampHours: [0, 100, 200] }],
  ['a charge current is no level', 'time (s),Charge current (A)\n0,2.2\n60,2.1\n120,2', { seconds: TIMES, amps: AMPS }],
  ['a charge energy is no level', 'time (s),Charge energy (Wh)\n0,0\n60,1\n120,2', { seconds: TIMES, wattHours: [0, 1, 2] }],
  ['a battery power is no level', 'time (s),Battery power (W)\n0,20\n60,19\n120,18', { seconds: TIMES, batteryWatts: [20, 19, 18] }],
  ['a battery current is no level', 'time (s),Battery current (mA)\n0,2200\n60,2100\n120,2000', { seconds: TIMES, batteryAmps: AMPS }],
  ['a current level is no current', 'time (s),Current level (%)\n0,10\n60,11\n120,12', { seconds: TIMES, percent: LEVELS }],
  ['VBUS current and IBUS', 'time (s),VBUS current [A],VBUS [V]\n0,2.2,9.02\n60,2.1,9.01\n120,2,9', VA],
  [
    'what is none of these is left',
    'time (s),volts,Resistance (Ω),D+ (V),CPU load (%)\n0,9.02,4,0.6,7\n60,9.01,4,0.6,8\n120,9,4,0.6,9',
    { seconds: TIMES, volts: VOLTS },
  ],
  ['a health is no level', 'time (s),volts,Battery health (%)\n0,9.02,98\n60,9.01,98\n120,9,98', { seconds: TIMES, volts: VOLTS }],
  ['a heading in the middle', 'My meter\nfirmware 3\n\ntime,volts,amps\n0,9.02,2.2\n60,9.01,2.1\n120,9,2', VA],
  ['a heading that stands there again', 'time,volts,amps\n0,9.02,2.2\ntime,volts,amps\n60,9.01,2.1\n120,9,2', VA],
  ['quotes and blanks', '"time", "volts" ,"amps"\n"0","9.02","2.2"\n"60","9.01","2.1"\n"120","9","2"', VA],
  ['units behind figures', 'time,volts,amps\n0,9.02 V,2.2 A\n60,9.01 V,2.1 A\n120,9 V,2 A', VA],
  ['thousands parted by points', 'time;mV;requested volts\n0;9.020;9,0\n60;9.010;9,0\n120;9.000;9,0', { seconds: TIMES, volts: VOLTS }],
  ['hours, minutes, seconds', 'elapsed,volts,amps\n0:00:00,9.02,2.2\n0:01:00,9.01,2.1\n0:02:00,9,2', VA],
  ['a time of day over midnight', 'time,volts,amps\n23:59:00,9.02,2.2\n00:00:00,9.01,2.1\n00:01:00,9,2', VA],
  ['AM and PM over midnight', 'time,volts,amps\n11:59:00 PM,9.02,2.2\n12:00:00 AM,9.01,2.1\n12:01:00 AM,9,2', VA],
  ['clock times without seconds', 'clock,volts,amps\n23:59,9.02,2.2\n0:00,9.01,2.1\n0:01,9,2', VA],
  ['minutes past the hour', 'time,volts,amps\n75:00,9.02,2.2\n76:00,9.01,2.1\n77:00,9,2', VA],
  ['gaps', 'time,volts,amps\n0,9.02,2.2\n60,,2.1\n120,9,n/a', { seconds: [0, 120], volts: [9.02, 9], amps: [2.2, 2.1] }],
])('reads a log with %s', (_, text, says) => {
  expect(said(read(text))).toMatchObject(says);
});

it('reads two devices side by side', () => {
  const log = read('time,watts 1,volts 1,watts 2,volts 2\n0,20,9.02,5,5\n60,19,9.01,5,5');
  expect([log, ...log.beside].map((each) => [each.device, [...(each.samples.watts?.values ?? [])]])).toEqual([
    ['1', [20, 19]],
    ['2', [5, 5]],
  ]);
});

it.each<[name: string, cells: [first: string, second: string], began: number]>([
  ['ISO dates', ['2026-11-03 14:02:00', '2026-11-03 14:03:00'], at(2026, 11, 3, 14, 2)],
  ['years first, with slashes', ['2026/11/03 14:02:00', '2026/11/03 14:03:00'], at(2026, 11, 3, 14, 2)],
  ['dotted dates, the day first', ['3.11.2026 14:02:00', '3.11.2026 14:03:00'], at(2026, 11, 3, 14, 2)],
  ['a day past the twelfth in front', ['27/11/2026 2:02:00 PM', '27/11/2026 2:03:00 PM'], at(2026, 11, 27, 14, 2)],
  ['a day past the twelfth behind', ['11/27/2026 14:02', '11/27/2026 14:03'], at(2026, 11, 27, 14, 2)],
  ['months by name', ['27 Nov 2026 14:02:00', '27 Nov 2026 14:03:00'], at(2026, 11, 27, 14, 2)],
  ['months by name, in front', ['"Nov 27, 2026 2:02:00 PM"', '"Nov 27, 2026 2:03:00 PM"'], at(2026, 11, 27, 14, 2)],
  ['seconds since 1970', ['1795788120', '1795788180'], 1_795_788_120_000],
  ['milliseconds since 1970', ['1795788120000', '1795788180000'], 1_795_788_120_000],
])('keeps the date of %s', (_, [first, second], began) => {
  const log = read(`timestamp,watts\n${first},20\n${second},19`);
  expect([log.plugInAt, said(log).seconds, log.either]).toEqual([began, [0, 60], undefined]);
});

it('reads hours and minutes as it is said', () => {
  const text = 'time,volts\n14:02,9\n14:07,8';
  const as = (time: string) => said(read(text, { ...HEAD, mapping: { headingRow: 0, columns: [time, 'volts:V'] } })).seconds;
  expect([as('time:of day'), as('elapsed:s')]).toEqual([
    [0, 300],
    [0, 5],
  ]);
});

it('keeps the date that has a column of its own', () => {
  const log = read('Date,Time,watts\n27/11/2026,11:59:30 PM,20\n28/11/2026,12:00:30 AM,19');
  expect([log.plugInAt, said(log).seconds]).toEqual([at(2026, 11, 27, 23, 59, 30), [0, 60]]);
});

it('asks which comes first where nothing tells, and reads it as it is said', () => {
  const text = 'time,watts\n03/11/2026 23:59:30,20\n04/11/2026 00:00:30,19';
  expect(read(text).either).toEqual(['03/11/2026 23:59:30', '04/11/2026 00:00:30']);
  const as = (dates: DateOrder) => read(text, { ...HEAD, dates });
  expect([as('day').plugInAt, as('day').length]).toEqual([at(2026, 11, 3, 23, 59, 30), 60]);
  expect([as('month').plugInAt, as('month').either]).toEqual([at(2026, 3, 11, 23, 59, 30), undefined]);
});

it.each<[name: string, text: string, refusal: RegExp]>([
  ['nine or nine thousand', 'time,mV\n0,9.020\n60,9010\n120,9000', /“9\.020” in column “mV” of log\.csv can be 9\.02 or 9020/],
  ['garbage at the end', 'time,volts\n0,9.02\n60,9.01\nlog ended by user', /Row 4 of log\.csv has 1 columns where the heading has 2/],
  ['a day that there is not', 'time,volts\n31/11/2026 10:00,9', /is no day of the calendar/],
  ['a day without a time', 'Date,volts\n2026/11/03,9', /is a day without a time/],
  ['a date and no time', 'Date,Time,volts\n3.11.2026,,9', /has a date and no time/],
  [
    'a date and no time in a later row, whatever stood above',
    'Date,Time,volts\n3.11.2026,10:00:00,9\n3.11.2026,,9',
    /Row 3 .* has a date and no time/,
  ],
  ['a battery capacity without a unit', 'time,Battery capacity\n0,50', /heads nothing to read/],
  ['hours and minutes, or minutes and seconds', 'time,volts\n14:02,9\n14:07,9', /“14:02” can be hours and minutes, or minutes and seconds/],
  ['an hour that there is not', 'time,volts\n13:00:00 PM,9', /“13:00:00 PM” is not/],
])('refuses %s', (_, text, refusal) => {
  expect(() => read(text)).toThrow(refusal);
});

it('there is a day just where the calendar has it: a month rolls over into none', () => {
  // ISO 8601, in the proleptic Gregorian calendar of ECMA-262: a day that is none is carried into the next month.
  for (const year of [1900, 1999, 2000, 2023, 2024, 2100])
    for (let month = -1; month <= 14; month += 1)
      for (let day = -1; day <= 33; day += 1) {
        const found = new Date(Date.UTC(year, month - 1, day));
        expect(isDay(year, month, day), `${year}-${month}-${day}`).toBe(
          found.getUTCFullYear() === year && found.getUTCMonth() === month - 1 && found.getUTCDate() === day,
        );
      }
});
