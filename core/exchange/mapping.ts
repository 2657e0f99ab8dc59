import Papa from 'papaparse';
import { delimiterOf } from './delimiter';
import { quoted } from '../quantity/letters';
import { QUANTITIES, quantityOf, type Quantity } from '../quantity/quantity';
import { celsiusFromFahrenheit } from '../quantity/electric';
import { columnByUnit, columnOf, logColumnsOf, isUnitsRow, tellsFigures, tellsTime, withUnits, type Column, type Headed } from './columns';
import { TIMES, UNITS } from './units';

/**
 * What a person says that a column holds, as a short code: `watts:mW`, `elapsed:s`, `time`, `note`; empty for what is not read. Of one of several
 * devices with which one: `watts:mW@ch 2`.
 */
export type Meaning = string;

/** How a log is read: the row that heads its columns, from 0, or none; and what each column holds. */
export interface Mapping {
  headingRow: number | undefined;
  columns: Meaning[];
}

/** The head of a log, and what was made of it before anyone said anything. */
export interface Peek {
  /** Its first rows, as they stand. */
  rows: string[][];
  mapping: Mapping;
  /** Why each column is taken for what it is. */
  why: string[];
  /** No heading says it: a person is to look at it before it is read so. */
  isGuess: boolean;
}

/** Rows of a log that are looked at before it is read. */
const SHOWN = 80;

/** Rows in which a heading is looked for, above all of which a log may say what it is. */
export const HEADING_WITHIN = 60;

/** Everything that a column can hold, in the order in which it is offered. */
export function meanings(): { value: Meaning; title: string }[] {
  const times = Object.keys(TIMES).map((unit) => ({ value: `elapsed:${unit}`, title: `elapsed, ${unit}` }));
  const quantities = QUANTITIES.flatMap((quantity) => {
    const { unit, heading } = quantityOf(quantity);
    const name = heading.replace(/ \(.*\)$/, '');
    const units = unit === '°C' ? ['°C', '°F'] : Object.keys(UNITS[unit] ?? { [unit]: 1 });
    return units.map((each) => ({ value: `${quantity}:${each}`, title: `${name}, ${each}` }));
  });
  return [
    { value: '', title: 'not read' },
    { value: 'time', title: 'clock or date' },
    { value: 'time:of day', title: 'clock, hours and minutes' },
    { value: 'date', title: 'date, where the time has a column of its own' },
    ...times,
    ...quantities,
    { value: 'note', title: 'notes, events' },
    { value: 'device', title: 'which device' },
  ];
}

/** A meaning without the device it is of, and that device; none of a log of one. */
export function deviceIn(meaning: Meaning): [meaning: Meaning, of: string | undefined] {
  const at = meaning.indexOf('@');
  return at < 0 ? [meaning, undefined] : [meaning.slice(0, at), meaning.slice(at + 1) || undefined];
}

/** A meaning with the device it is of. */
export const ofDevice = (meaning: Meaning, of: string | undefined): Meaning => {
  const [what] = deviceIn(meaning);
  return what !== '' && of ? `${what}@${of}` : what;
};

/** A column as a person says it is. */
export function headedFor(meaning: Meaning): Headed {
  const [what, of] = deviceIn(meaning);
  return { column: columnFor(what), of };
}

/** What a meaning makes of the cells of its column; `undefined` where they are not read. */
export function columnFor(meaning: Meaning): Column | undefined {
  const [what = '', unit = ''] = meaning.split(':');
  if (what === 'elapsed') return { holds: 'elapsed', scale: TIMES[unit] ?? 1 };
  if (what === 'time') return { holds: 'time', scale: 1, ...(unit === 'of day' && { isOfDay: true }) };
  if (what === 'note' || what === 'kind' || what === 'device' || what === 'date') return { holds: what };
  if (what === 'entry') return { holds: 'order' };
  const quantity = QUANTITIES.find((each) => each === what);
  if (!quantity) return undefined;
  const factor = UNITS[quantityOf(quantity).unit]?.[unit] ?? 1;
  return { holds: 'quantity', quantity, convert: unit === '°F' ? celsiusFromFahrenheit : (value) => value * factor };
}

/** The meaning of a column that was told from its heading: its unit by what it makes of 1. */
function meaningOf(column: Column | undefined): Meaning {
  if (!column) return '';
  switch (column.holds) {
    case 'quantity':
      return `${column.quantity}:${unitOf(column.quantity, column.convert)}`;
    case 'elapsed':
      return `elapsed:${Object.entries(TIMES).find(([, scale]) => scale === column.scale)?.[0] ?? 's'}`;
    case 'time':
      if (column.isOfDay) return 'time:of day';
      return column.scale === 1 ? 'time' : `elapsed:${Object.entries(TIMES).find(([, scale]) => scale === column.scale)?.[0] ?? 's'}`;
    case 'order':
      return 'entry';
    default:
      return column.holds;
  }
}

function unitOf(quantity: Quantity, convert: (value: number) => number): string {
  const { unit } = quantityOf(quantity);
  if (unit === '°C') return convert(32) === 0 ? '°F' : '°C';
  return Object.entries(UNITS[unit] ?? {}).find(([, factor]) => Math.abs(factor - convert(1)) < factor * 1e-9)?.[0] ?? unit;
}

/** Whether a row heads a log: a column of times, and something to read. */
export function headsLog(row: readonly string[]): boolean {
  const columns = logColumnsOf(row);
  return tellsTime(columns) && tellsFigures(columns);
}

/** Whether columns of a log tell times, and anything to read. */
export function tellsAll({ columns }: Mapping): boolean {
  const said = columns.map(headedFor);
  return tellsTime(said) && tellsFigures(said);
}

const number = (cell: string | undefined) =>
  cell === undefined || cell.trim() === '' ? Number.NaN : Number(cell.trim().replace(',', '.'));

/**
 * Looks at the head of a log: where its heading is, and what each column holds. Where no heading says so, units, times and numbers that never fall
 * are told, for a person to look at.
 */
export function peek(text: string): Peek {
  const rows = Papa.parse<string[]>(text, { delimiter: delimiterOf(text), preview: SHOWN, skipEmptyLines: 'greedy' }).data;
  const headed = rows.slice(0, HEADING_WITHIN).findIndex(headsLog);
  if (headed >= 0) {
    const heading = withUnits(rows[headed] ?? [], rows[headed + 1]);
    const seen = new Set<string>();
    const columns = logColumnsOf(heading).map(({ column, of }) => {
      const meaning = ofDevice(meaningOf(column), of);
      const what = ofDevice(meaning.split(/[:@]/)[0] ?? '', of);
      if (what === '' || seen.has(what)) return '';
      seen.add(what);
      return meaning;
    });
    const why = heading.map((cell, index) =>
      columns[index] === ''
        ? columnOf(cell)
          ? 'another column holds that already'
          : 'its heading says nothing known'
        : `headed ${quoted(cell.trim())}`,
    );
    return { rows, mapping: { headingRow: headed, columns }, why, isGuess: false };
  }
  return peekOther(rows);
}

const CLOCK_CELL = /^(\d{1,2}:\d{2}(:\d{2}([.,]\d+)?)?( ?[ap]m)?|\d{1,4}[-/.]\d{1,2}[-/.]\d{1,4}[ T]\d{1,2}:\d{2}.*)$/i;
const DAY_CELL = /^\d{1,4}[-/.]\d{1,2}[-/.]\d{1,4}$/;
const isFigure = (cell: string) => !Number.isNaN(number(cell)) || CLOCK_CELL.test(cell.trim());

/** A log whose headings say nothing that is known here, or that has none: told by its units, and by what rises or looks like a clock. */
function peekOther(rows: string[][]): Peek {
  const width = Math.max(0, ...rows.map((row) => row.length));
  const data = rows.filter((row) => row.length === width && row.some(isFigure));
  const first = rows.findIndex((row) => row === data[0]);
  const below = isUnitsRow(rows[first - 1]) ? rows[first - 1] : undefined;
  const headed = first - (below ? 2 : 1);
  const isHeaded = headed >= 0 && rows[headed]?.length === width && rows[headed].every((cell) => cell.trim() === '' || !isFigure(cell));
  const heading = isHeaded ? withUnits(rows[headed] ?? [], below) : [];
  const across = Array.from({ length: width }, (_, column) => column);
  const rises = (column: number) => {
    const values = data.map((row) => number(row[column]));
    return (
      values.length > 2 &&
      values.every((value, row) => !Number.isNaN(value) && (row === 0 || value >= (values[row - 1] ?? 0))) &&
      values[0] !== values.at(-1)
    );
  };
  const byUnit = across.map((column) => meaningOf(columnByUnit(heading[column] ?? '')));
  const clock = across.find((column) => data.length > 0 && data.every((row) => CLOCK_CELL.test((row[column] ?? '').trim())));
  const rising = clock === undefined ? across.find((column) => byUnit[column] === '' && rises(column)) : undefined;
  const day = clock === undefined ? undefined : across.find((column) => data.every((row) => DAY_CELL.test((row[column] ?? '').trim())));
  const columns = across.map((column) => {
    if (column === clock) return 'time';
    if (column === day) return 'date';
    if (column === rising) return 'elapsed:s';
    const meaning = byUnit[column] ?? '';
    // Two of one unit: which of them is meant is not for the program to say.
    const [what = ''] = meaning.split(':');
    return byUnit.filter((each) => each.split(':')[0] === what).length === 1 ? meaning : '';
  });
  const why = columns.map((meaning, column) => {
    if (column === clock) return 'its cells are times';
    if (column === day) return 'its cells are days';
    if (column === rising) return 'its numbers only rise';
    if (meaning !== '') return 'by its unit';
    return byUnit[column] ? 'another column has that unit too' : 'no heading says what it is';
  });
  return { rows, mapping: { headingRow: isHeaded ? headed : undefined, columns }, why, isGuess: true };
}
