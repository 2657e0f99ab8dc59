import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { readLabel } from '../core/bench';
import { LogbookReader, readCsv, readGearCsv, replay, logbookOf, writeLogbook, type StoredRun } from '../core/exchange';
import { exampleHeader } from '../core/ink/example';
import { atMost, median, type Figure } from './harness';

/** Reads a text of so many rows, or of so many blanks where something may look through them again and again. */
interface Reader {
  rows: number;
  make: (rows: number) => string;
  read: (text: string) => unknown;
}

const row = (index: number) => `${index},${(index / 9000).toFixed(2)},9.0${index % 10},${(2 + (index % 7) / 10).toFixed(3)}`;
const lines = (rows: number, line: (index: number) => string) => Array.from({ length: rows }, (_, index) => line(index)).join('\n');

function logbook(rows: number): string {
  const header = exampleHeader();
  const seconds = Float64Array.from({ length: rows }, (_, index) => index);
  const run: StoredRun = { header, entries: [], samples: { watts: { seconds, values: seconds.map((each) => each % 100) } } };
  return writeLogbook(logbookOf({}, [run]));
}

/** A reader that refuses has read too. */
function refusing(read: () => unknown): unknown {
  try {
    return read();
  } catch (error) {
    return error;
  }
}

const READERS: Readonly<Record<string, Reader>> = {
  'a meter’s log': {
    rows: 40_000,
    make: (rows) => `time (s),percent,volts,amps\n${lines(rows, row)}`,
    read: (text) => readCsv(text, 'x.csv'),
  },
  'a log with bad rows skipped': {
    rows: 20_000,
    make: (rows) => `time (s),percent,volts,amps\n${lines(rows, (index) => (index % 2 === 0 ? row(index) : `${index},x,"y",z`))}`,
    read: (text) => readCsv(text, 'x.csv', { decimal: 'auto', skipBadRows: true }),
  },
  'a run of our own': {
    rows: 20_000,
    make: (rows) =>
      `elapsed (s),kind,entry,percent,note\n${lines(rows, (index) => `${index},reading,${index + 1},${index % 100},"a note, ""quoted"""`)}`,
    read: (text) => readCsv(text, 'x.csv'),
  },
  'a quotation mark that is never closed': {
    rows: 60_000,
    make: (rows) => `time (s),percent,volts,amps\n0,"1,9,2\n${lines(rows, row)}`,
    read: (text) => refusing(() => readCsv(text, 'x.csv')),
  },
  'a heading of blanks': {
    rows: 60_000,
    make: (rows) => `${' '.repeat(rows)}x,${' '.repeat(rows)}y\n1,2\n`,
    read: (text) => refusing(() => readCsv(text, 'x.csv')),
  },
  'gear, every row bad': {
    rows: 2_000,
    make: (rows) => `shelf,name,kind,watts (w)\n${lines(rows, (index) => `charger,X${index},adapter,-1`)}`,
    read: (text) => readGearCsv(text, 'x.csv'),
  },
  'a label': { rows: 8_000, make: (rows) => '5V⎓3A'.padEnd(rows, ' -'), read: (text) => readLabel(text) },
  'a logbook': {
    rows: 100_000,
    make: logbook,
    read: (text) => {
      const reader = new LogbookReader('x.json');
      for (let from = 0; from < text.length; from += 65_536) reader.push(text.slice(from, from + 65_536));
      return reader.end();
    },
  },
  'the second copy': {
    rows: 20_000,
    make: (rows) => lines(rows, (index) => JSON.stringify({ at: index, book: 'b', key: `k${index % 500}`, value: { index } })),
    read: (text) => replay(text.split('\n')),
  },
};
/** Rounds of each reader. */
const ROUNDS = 21;
/** What is measured takes at least so many milliseconds: a reader that is quicker reads several times over. */
const LEAST = 40;

// What earlier reading has left behind is cleared first: how much that is says nothing of the reader.
setFlagsFromString('--expose-gc');
const clear = runInNewContext('gc') as () => void;

/** Milliseconds that one reading takes. */
function timed({ read }: Reader, text: string, times: number): number {
  clear();
  const start = performance.now();
  for (let time = 0; time < times; time += 1) read(text);
  return (performance.now() - start) / times;
}

/**
 * How much longer twice the rows take. Each reading of twice stands between two of once, for a machine that other work slows down slows them alike;
 * of all such rounds the middle one counts.
 */
function growth(reader: Reader): number {
  const [once, twice] = [reader.make(reader.rows), reader.make(2 * reader.rows)];
  timed(reader, twice, 1);
  const times = Math.ceil(LEAST / timed(reader, once, 1));
  let before = timed(reader, once, times);
  const ratios = Array.from({ length: ROUNDS }, () => {
    const [both, after] = [timed(reader, twice, times), timed(reader, once, times)];
    const ratio = (2 * both) / (before + after);
    before = after;
    return ratio;
  });
  return median(ratios);
}

/** Each reader on twice the rows, beside once. */
export function readersFigure(): Promise<Figure[]> {
  const all = Object.entries(READERS).map(([name, reader]) => [name, growth(reader)] as const);
  const value = Math.max(...all.map(([, ratio]) => ratio));
  const worst = all.map(([name, ratio]) => `${name} ${ratio.toFixed(2)}`).join(', ');
  return Promise.resolve([atMost(2.2, { name: 'readers', value, unit: 'ratio', worst })]);
}
