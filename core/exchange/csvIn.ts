import Papa from 'papaparse';
import type { Draft } from '../ink/entry';
import { EVENTS } from '../ink/events';
import { RUN_ENDING_IDS } from '../ink/endings';
import { LONGEST_RUN, MOMENTS, toTick } from '../ink/ranges';
import type { Samples } from '../samples/column';
import { parseClock } from '../quantity/duration';
import { quoted } from '../quantity/letters';
import { logColumnsOf, isUnitsRow, tellsFigures, tellsTime, withUnits, type Column, type Headed } from './columns';
import { Growing } from './growing';
import { delimiterOf } from './delimiter';
import { headedFor, HEADING_WITHIN, headsLog, type Mapping } from './mapping';
import { ImportError, short } from './importError';
import { LONGEST_ROW, MOST_VALUES } from './limits';
import { epochOf, isDay, orderIn, readLogDate, readTimeOfDay, type DateOrder, type ReadDate } from './moments';
import { unescapeFormula } from '../quantity/plainTable';
import type { Convert } from '../quantity/quantities';
import { isKept, QUANTITIES, type Quantity, quantityOf } from '../quantity/quantity';

export interface CsvOptions {
  /** The mark before decimals; `auto` tells it from the file. */
  decimal: 'auto' | 'point' | 'comma';
  /** Leave out rows that cannot be read, and count them, instead of refusing the file. */
  skipBadRows: boolean;
  /** What its columns hold, where a person said so. */
  mapping?: Mapping | undefined;
  /** Which comes first in its dates, where a person said so. */
  dates?: DateOrder | undefined;
}

/** An entry from a CSV, timed from plug-in. */
export type TimedDraft = { seconds: number; draft: Draft };

export interface CsvRun {
  /** Epoch milliseconds, where the file tells the time of day with its date. */
  plugInAt: number | undefined;
  /** The time of day at its first row, in seconds, where the file tells that without a date. */
  timeOfDay?: number | undefined;
  entries: TimedDraft[];
  samples: Samples;
  /** Last moment, in seconds from plug-in. */
  length: number;
  /** Its first and its last date, where nothing says which of day and month comes first: read with the day first. */
  either?: [first: string, last: string] | undefined;
  rows: number;
  skipped: number;
  /** Headings that were understood, and those that were not. */
  understood: string[];
  ignored: string[];
  /** What the file calls its device; `undefined` where it is of one and says nothing. */
  device?: string | undefined;
  /** The runs of the other devices, where the file is of several. */
  beside: CsvRun[];
}

/** As many devices as a file may be of: past them the column is not one of devices. */
const MOST_DEVICES = 24;

/** A run of which nothing was logged. */
const NOTHING_READ: CsvRun = {
  ...{ plugInAt: undefined, entries: [], samples: {}, length: 0, rows: 0, skipped: 0 },
  ...{ understood: [], ignored: [], beside: [] },
};

/** What stands in a cell of figures where there is none. */
const MISSING = new Set(['-', '–', '—', 'n/a', 'na', 'nan', 'null']);
const DAY = 86_400;

/**
 * Reads a run from CSV (RFC 4180; comma, semicolon or tab): a meter's log headed in plain English, or a file this program wrote.
 *
 * A meter's rows become samples; its clock starts at its first row, in a file of several devices each at its own. A column of words becomes notes,
 * one where they change, and events where they name one. Our own file has a column `kind`, and gives back readings,
 * notes and the stop as they were, at the times they were seen.
 *
 * @param text the file's contents
 * @param name its name, for errors
 * @throws {ImportError} naming the row and column, and the way out
 */
export function readCsv(text: string, name: string, options?: CsvOptions): CsvRun {
  const reader = new CsvReader(name, options);
  reader.push(text);
  return reader.end();
}

/** How much is read before rows are made of it, in characters. */
const PIECE = 64_000;
/** Rows by which the decimal mark is told. */
const TELLING = 50;

interface PartColumn {
  /** Its own times, from where a row first lacked it; before that, those of the part. */
  seconds?: Growing;
  values: Growing;
}

/** What was read of one device. */
interface Part {
  /** The times of its rows, which its columns share. */
  times: Growing;
  samples: Map<Quantity, PartColumn>;
  written: ReadRow[];
  count: number;
  /** Its first and its last moment, in seconds of its clock. */
  from?: number;
  to: number;
  instant?: ReadRow;
  /** What its words said last. */
  said: string;
}

/** The same, as the text comes in. Rows become columns at once, so that a log may be large. */
export class CsvReader {
  /** Text whose last row is not over yet. */
  private rest = '';
  private parser: { parse: (text: string, base: number, leaveLast: boolean) => Parsed } | undefined;
  private delimiter = ',';
  private rows: RowReader | undefined;
  private heading: string[] = [];
  /** The same as it stands in the file. */
  private headed: string[] = [];
  /** Rows of the file so far, blank ones among them. */
  private line = 0;
  private columns: Headed[] = [];
  private count = 0;
  private skipped = 0;
  private values = 0;
  /** By what the file calls them; one without a name where it is of one. */
  private readonly parts = new Map<string | undefined, Part>();
  /** The columns of plain rows, in the order of their figures. */
  private readonly columnsAt: PartColumn[] = [];

  private readonly name: string;

  /** @param file the file's name, for errors */
  constructor(
    file: string,
    private readonly options: CsvOptions = { decimal: 'auto', skipBadRows: false },
  ) {
    this.name = short(file);
  }

  push(text: string): void {
    if (text.includes('\0')) throw new ImportError(`${this.name} is not a text file. Export the log as CSV, and choose that file.`);
    // However much comes at once, rows are made of it piece by piece: they take many times the room of their text.
    for (let from = 0; from < text.length; from += PIECE) {
      this.rest += text.slice(from, from + PIECE);
      if (this.rest.length >= PIECE) this.read(true);
    }
  }

  end(): CsvRun {
    const { name } = this;
    this.read(false);
    if (this.heading.length === 0)
      throw new ImportError(`${name} is empty. Choose the file again, or export it again from where it was made.`);
    if (this.count + this.skipped === 0 && this.isOurs) return NOTHING_READ;
    if (this.count + this.skipped === 0)
      throw new ImportError(`${name} has a heading but no rows. Export it again once something is logged.`);
    const [first, ...beside] = [...this.parts].flatMap(([device, part]) => this.runOf(device, part) ?? []);
    if (!first) throw new ImportError(`No row of ${name} could be read. Check its heading and its decimal mark.`);
    return { ...first, beside };
  }

  /** Whether this program wrote it. */
  private get isOurs(): boolean {
    return this.columns.some(({ column }) => column?.holds === 'kind');
  }

  private runOf(device: string | undefined, { times, samples, written, count, from, to, instant }: Part): CsvRun | undefined {
    if (from === undefined) return undefined;
    // The clock of a meter starts at its first row; ours at plug-in.
    const start = this.isOurs ? 0 : from;
    return {
      timeOfDay: instant || Number.isNaN(this.rows?.startsAt) ? undefined : this.rows?.startsAt,
      plugInAt: instant?.instant === undefined ? undefined : Math.round(instant.instant - (instant.seconds - start) * 1000),
      entries: written.sort((one, other) => one.order - other.order).map((row) => toDraft({ ...row, seconds: row.seconds - start })),
      samples: columnsFrom(times, samples, start),
      length: to - start,
      ...(this.rows?.either && { either: this.rows.either }),
      rows: count,
      skipped: this.skipped,
      understood: this.heading.filter((_, index) => this.columns[index]?.column),
      ignored: this.heading.filter((_, index) => !this.columns[index]?.column),
      device,
      beside: [],
    };
  }

  private read(isMore: boolean): void {
    this.parser ??= this.begin();
    const { data, errors, meta } = this.parser.parse(this.rest, 0, isMore);
    this.rest = isMore ? this.rest.slice(meta.cursor) : '';
    if (this.rest.length > LONGEST_ROW || errors.some(({ code }) => code === 'MissingQuotes')) {
      const row = this.line + data.length + (isMore ? 1 : 0);
      throw new ImportError(
        this.rest === '' || this.rest.includes('"')
          ? `Row ${row} of ${this.name} opens a quotation mark that is never closed. Close it, or take it away.`
          : `Row ${row} of ${this.name} is longer than any row of a log is. Export the log as CSV, and choose that file.`,
      );
    }
    if (this.heading.length > 0) {
      for (const cells of data) {
        this.line += 1;
        if (!isBlank(cells) && !this.isHeading(cells)) this.row(cells, this.line);
      }
      return;
    }
    const rows = data.map((cells): Numbered => ({ cells, line: (this.line += 1) })).filter(({ cells }) => !isBlank(cells));
    const heading = this.headingOf(rows);
    if (heading) {
      const { mapping } = this.options;
      const whole = withUnits(heading, isUnitsRow(rows[0]?.cells) ? rows.shift()?.cells : undefined);
      this.headed = mapping && mapping.headingRow === undefined ? [] : heading;
      [this.heading, this.columns] = [whole, mapping ? mappedColumns(mapping, this.name) : matchColumns(whole, this.name)];
      const telling = this.delimiter !== ',' && rows.slice(0, TELLING).some(({ cells }) => hasDecimalComma(cells));
      const comma = this.options.decimal === 'comma' || (this.options.decimal === 'auto' && telling);
      const dated = this.columns.flatMap(({ column }, at) => (column?.holds === 'time' || column?.holds === 'date' ? [at] : []));
      const order = this.options.dates ?? orderIn(rows.flatMap(({ cells }) => dated.map((at) => cells[at] ?? '')));
      if (this.options.decimal === 'auto' && !comma) refuseDoubtful(rows, this.columns, heading, this.name);
      this.rows = new RowReader(this.columns, heading, this.name, comma, order);
    }
    for (const { cells, line } of rows) if (!this.isHeading(cells)) this.row(cells, line);
  }

  /** The heading once more, where a log was begun anew in the same file. */
  private isHeading(cells: readonly string[]): boolean {
    return cells[0] === this.headed[0] && cells.length === this.headed.length && cells.every((cell, index) => cell === this.headed[index]);
  }

  /** The row that heads the columns; what stands above it says what the log is. It is taken off the rows. */
  private headingOf(rows: Numbered[]): string[] | undefined {
    const { mapping } = this.options;
    if (mapping && mapping.headingRow === undefined)
      return rows.length > 0 ? mapping.columns.map((_, index) => `column ${index + 1}`) : undefined;
    const found =
      mapping?.headingRow ??
      Math.max(
        0,
        rows.slice(0, HEADING_WITHIN).findIndex(({ cells }) => headsLog(cells)),
      );
    return rows.splice(0, found + 1).at(-1)?.cells;
  }

  private begin() {
    this.delimiter = delimiterOf(this.rest);
    const { meta } = Papa.parse<string[]>(this.rest, { delimiter: this.delimiter, preview: 20, skipEmptyLines: 'greedy' });
    return new Papa.Parser({ delimiter: this.delimiter, newline: meta.linebreak as '\n' }) as unknown as NonNullable<CsvReader['parser']>;
  }

  private row(cells: string[], line: number): void {
    if (!this.isPlain(cells)) this.rowAtLength(cells, line);
    if (this.values > MOST_VALUES)
      throw new ImportError(
        `${this.name} holds more than ${MOST_VALUES / 1e6} million values, the most that is kept of a run. Split it, or log fewer samples a second.`,
      );
  }

  private rowAtLength(cells: string[], line: number): void {
    try {
      const read = this.rows?.read(cells, line);
      if (!read) return;
      this.count += 1;
      const { others } = read;
      if (!others) this.keep(read.device, read);
      else for (const [device, values] of others) this.keep(device, { ...read, values: { ...read.values, ...values } });
    } catch (error) {
      if (!this.options.skipBadRows || !(error instanceof ImportError)) throw error;
      this.skipped += 1;
    }
  }

  /** Keeps what a row says of a device. */
  private keep(device: string | undefined, read: ReadRow): void {
    const part = this.parts.get(device) ?? this.begun(device);
    part.count += 1;
    part.from ??= read.seconds;
    part.to = read.seconds;
    if (read.instant !== undefined) part.instant ??= read;
    if (read.kind !== 'sample') {
      part.written.push(read);
      return;
    }
    if (read.note !== '' && read.note !== part.said) part.written.push({ ...read, kind: 'event', values: {} });
    part.said = read.note;
    const quantities = Object.keys(read.values) as Quantity[];
    if (quantities.length > 0) part.times.push(read.seconds);
    for (const quantity of quantities) this.add(part, this.columnFor(part, quantity), read.values[quantity] ?? 0);
  }

  private columnFor({ samples }: Part, quantity: Quantity): PartColumn {
    const column = samples.get(quantity) ?? { values: new Growing() };
    samples.set(quantity, column);
    return column;
  }

  /** Adds a value of the row whose time was taken last. */
  private add({ times }: Part, column: PartColumn, value: number): void {
    if (!column.seconds && column.values.length < times.length - 1)
      column.seconds = Growing.of(times.rows().subarray(0, column.values.length));
    column.seconds?.push(times.last);
    column.values.push(value);
    this.values += 1;
  }

  /** A row that is nothing but numbers, as nearly all of a log are: read without making anything else of it. */
  private isPlain(cells: readonly string[]): boolean {
    const { rows } = this;
    if (!rows?.readPlain(cells)) return false;
    const part = this.parts.get(undefined) ?? this.begun(undefined);
    part.count += 1;
    part.from ??= rows.seconds;
    part.to = rows.seconds;
    let isTimed = false;
    for (let index = 0; index < rows.quantities.length; index += 1) {
      const value = rows.values[index] ?? Number.NaN;
      if (Number.isNaN(value)) continue;
      if (!isTimed) part.times.push(rows.seconds);
      isTimed = true;
      this.add(part, (this.columnsAt[index] ??= this.columnFor(part, rows.quantities[index] ?? 'watts')), value);
    }
    this.count += 1;
    return true;
  }

  private begun(device: string | undefined): Part {
    if (this.parts.size === MOST_DEVICES)
      throw new ImportError(
        `${this.name} names more than ${MOST_DEVICES} devices. Say that the column with their names holds notes, or is not read.`,
      );
    const part: Part = { times: new Growing(), samples: new Map(), written: [], count: 0, to: 0, said: '' };
    this.parts.set(device, part);
    return part;
  }
}

/** Columns at their full length, from a moment of their clock on: those that were told together have one column of times. */
function columnsFrom(times: Growing, columns: ReadonlyMap<Quantity, PartColumn>, start: number): Samples {
  const samples: Samples = {};
  let shared: Float64Array<ArrayBuffer> | undefined;
  for (const quantity of QUANTITIES) {
    const column = columns.get(quantity);
    if (!column) continue;
    const values = column.values.rows().slice();
    const isWhole = !column.seconds && values.length === times.length;
    if (isWhole) shared ??= from(times.rows(), start);
    const own = column.seconds?.rows() ?? times.rows().subarray(0, values.length);
    samples[quantity] = { seconds: isWhole && shared ? shared : from(own, start), values };
  }
  return samples;
}

/** Times from a moment on, as they are kept. */
function from(times: Float64Array, start: number): Float64Array<ArrayBuffer> {
  const moved = new Float64Array(times.length);
  for (let row = 0; row < times.length; row += 1) moved[row] = toTick((times[row] ?? 0) - start);
  return moved;
}

const isBlank = (cells: readonly string[]): boolean => !((cells[0] ?? '').charCodeAt(0) > 32) && cells.every((cell) => cell.trim() === '');

/** A row and its number in the file, from 1. */
interface Numbered {
  cells: string[];
  line: number;
}

/** What Papa Parse makes of a piece. */
interface Parsed {
  data: string[][];
  errors: { code?: string }[];
  meta: { cursor: number };
}

const hasDecimalComma = (cells: string[]) => cells.some((cell) => /^\s*-?\d+,\d+\s*$/.test(cell));

/** What a column holds, and of which device, as one word. */
const whatOf = ({ column, of }: Headed): string | undefined =>
  column && [column.holds === 'quantity' ? column.quantity : column.holds, of].filter(Boolean).join(' of ');

/** Refuses a column of milli-units in which `9.020` and `9020` both stand: it can be nine, or nine thousand. */
function refuseDoubtful(rows: readonly Numbered[], columns: readonly Headed[], heading: readonly string[], name: string): void {
  for (const [at, { column }] of columns.entries()) {
    if (column?.holds !== 'quantity' || Math.abs(column.convert(1000) - 1) > 1e-9) continue;
    const cells = rows.map(({ cells: row }) => (row[at] ?? '').trim());
    const grouped = cells.find((cell) => /^[1-9]\d{0,2}\.\d{3}$/.test(cell));
    if (grouped !== undefined && cells.some((cell) => /^\d{4,}$/.test(cell)))
      throw new ImportError(
        `${quoted(grouped)} in column ${quoted(heading[at] ?? '')} of ${name} can be ${Number(grouped)} or ${grouped.replace('.', '')}, for other rows have thousands: choose decimal point or decimal comma.`,
      );
  }
}

/** Columns as a person says they are. */
function mappedColumns({ columns: meanings }: Mapping, name: string): Headed[] {
  const columns = meanings.map(headedFor);
  const what = columns.flatMap((column) => whatOf(column) ?? []);
  const twice = what.find((each, index) => what.indexOf(each) !== index);
  if (twice)
    throw new ImportError(`Two columns of ${name} are said to hold ${twice}. Leave one of them unread, or say of which device each is.`);
  if (!tellsTime(columns)) throw new ImportError(`No column of ${name} is said to hold times. Choose which does.`);
  if (!tellsFigures(columns))
    throw new ImportError(`No column of ${name} is said to hold anything to read. Choose which holds percent, volts, amps or watts.`);
  return columns;
}

function matchColumns(heading: string[], name: string): Headed[] {
  const columns = logColumnsOf(heading);
  const seen = new Map<string, string>();
  columns.forEach((column, index) => {
    const holds = whatOf(column);
    if (holds === undefined) return;
    const before = seen.get(holds);
    if (before !== undefined) {
      throw new ImportError(
        `Columns ${quoted(before)} and ${quoted(heading[index] ?? '')} of ${name} both look like ${holds}. Rename or remove one of them, or say what each holds.`,
      );
    }
    seen.set(holds, heading[index] ?? '');
  });
  const found = heading
    .map((each) => `“${each.slice(0, 30)}”`)
    .slice(0, 8)
    .join(', ');
  if (!tellsTime(columns)) {
    throw new ImportError(`Row 1 of ${name} heads no column of times (found ${found}). Head it “time” or “elapsed (s)”.`);
  }
  if (!tellsFigures(columns)) {
    throw new ImportError(
      `Row 1 of ${name} heads nothing to read (found ${found}). Head columns percent, volts, amps, watts or temperature.`,
    );
  }
  return columns;
}

interface ReadRow {
  seconds: number;
  /** Epoch milliseconds, where the row tells them. */
  instant: number | undefined;
  kind: 'reading' | 'sample' | 'event' | 'trial' | 'note' | 'stop';
  values: Partial<Record<Quantity, number>>;
  note: string;
  order: number;
  /** Which device it is of, where a column says it. */
  device?: string | undefined;
  /** What it says of each of several devices, where they have columns of their own. */
  others?: Map<string, Partial<Record<Quantity, number>>> | undefined;
}

/** The clock of one device in a file of several. */
interface Ticked {
  last: number;
  days: number;
  /** By how much it was put back since it began, in seconds. */
  moved: number;
}

/** What a person may do about a cell that cannot be read. */
const MEND = 'Correct it, or choose to skip rows that cannot be read.';

/** Powers of ten, all of them exact. */
const POWERS = Array.from({ length: 17 }, (_, power) => 10 ** power);

/** Reads rows one after another: a time is understood against the one before it. Words are made only of what is refused. */
class RowReader {
  private clock: Ticked = { last: -Infinity, days: 0, moved: 0 };
  private readonly clocks = new Map<string | undefined, Ticked>([[undefined, this.clock]]);
  private readonly deviceColumn: number;
  /** Whether the day has a column of its own: what stands beside it is a time of day. */
  private readonly hasDay: boolean;
  /** The time of day at the first row, in seconds; NaN where its clock may count from the start. */
  startsAt: number | undefined;
  /** Where the figures of a log stand that holds nothing else. */
  private readonly plain:
    { time: { at: number; scale: number }; figures: { at: number; convert: Convert; min: number; max: number }[] } | undefined;
  /** The row that was read last, where it was plain. */
  readonly quantities: readonly Quantity[];
  readonly values: Float64Array;
  seconds = 0;
  /** The row and the column that are being read. */
  private row = 0;
  private column = 0;
  /** The day of the row that is read, where it has a column of its own, and the time of day. */
  private day: ReadDate | undefined;
  private ofDay: number | undefined;
  /** The first and the last date that can be read either way. */
  either: [first: string, last: string] | undefined;

  constructor(
    private readonly columns: readonly Headed[],
    private readonly heading: string[],
    private readonly name: string,
    private readonly decimalComma: boolean,
    private readonly order: DateOrder | undefined,
  ) {
    this.hasDay = columns.some(({ column }) => column?.holds === 'date');
    this.deviceColumn = columns.findIndex(({ column }) => column?.holds === 'device');
    const figures = columns.flatMap(({ column, of }, at) => (column?.holds === 'quantity' && of === undefined ? [{ ...column, at }] : []));
    const times = columns.flatMap(({ column }, at) => (column?.holds === 'elapsed' ? [{ scale: column.scale, at }] : []));
    const [time] = times;
    // Anything but figures and one elapsed time is read the long way.
    const others = columns.filter(({ column }) => column).length - figures.length - times.length;
    if (time && times.length === 1 && others === 0)
      this.plain = {
        time,
        figures: figures.map(({ at, convert, quantity }) => ({
          at,
          convert,
          min: quantityOf(quantity).min,
          max: quantityOf(quantity).max,
        })),
      };
    this.quantities = figures.map(({ quantity }) => quantity);
    this.values = new Float64Array(figures.length);
  }

  /**
   * Reads a row of plain numbers into `seconds` and `values`, a value that is missing as NaN.
   *
   * @returns false for any other row: it is read the long way then, and nothing of it was kept
   */
  readPlain(cells: readonly string[]): boolean {
    const { plain } = this;
    if (!plain || cells.length !== this.columns.length) return false;
    const seconds = this.plainNumber(cells[plain.time.at] ?? '') * plain.time.scale;
    // Written so that what is no number fails too.
    if (!(seconds >= this.clock.last && Math.abs(seconds) <= LONGEST_RUN)) return false;
    for (let index = 0; index < plain.figures.length; index += 1) {
      const figure = plain.figures[index];
      if (!figure) return false;
      const { at, convert, min, max } = figure;
      const cell = cells[at] ?? '';
      const value = cell === '' ? Number.NaN : convert(this.plainNumber(cell));
      if (cell !== '' && !(value >= min && value <= max)) return false;
      this.values[index] = value;
    }
    this.seconds = seconds;
    this.clock.last = seconds;
    return true;
  }

  /**
   * A number of digits and one decimal mark, nothing else; NaN of all that is not surely one.
   *
   * Up to fifteen digits are a whole number that is kept exactly, and so is the power of ten below them: their quotient is what `Number` gives.
   */
  private plainNumber(cell: string): number {
    const isBelow = cell.charCodeAt(0) === 45;
    const mark = this.decimalComma ? 44 : 46;
    let [whole, decimals] = [0, -1];
    for (let at = isBelow ? 1 : 0; at < cell.length; at += 1) {
      const code = cell.charCodeAt(at);
      if (code >= 48 && code <= 57) {
        whole = whole * 10 + code - 48;
        if (decimals >= 0) decimals += 1;
      } else if (code === mark && decimals < 0) decimals = 0;
      else return Number.NaN;
    }
    // Without a digit behind its mark, or with more than are kept exactly, it is read the long way.
    if (decimals === 0 || cell.length > 16 || cell.length === (isBelow ? 1 : 0)) return Number.NaN;
    const value = decimals > 0 ? whole / (POWERS[decimals] ?? Number.NaN) : whole;
    return isBelow ? -value : value;
  }

  read(cells: string[], row: number): ReadRow {
    this.row = row;
    if (cells.length !== this.columns.length) {
      throw new ImportError(
        `${this.where} has ${cells.length} columns where the heading has ${this.columns.length}. Mend the row, or choose to skip rows that cannot be read.`,
      );
    }
    [this.day, this.ofDay] = [undefined, undefined];
    const read: ReadRow = { seconds: Number.NaN, instant: undefined, kind: 'sample', values: {}, note: '', order: row };
    if (this.deviceColumn >= 0) this.turnTo(read, (cells[this.deviceColumn] ?? '').trim());
    for (const [index, { column, of }] of this.columns.entries()) {
      const cell = (cells[index] ?? '').trim();
      if (!column || cell === '' || column.holds === 'device' || (column.holds !== 'note' && MISSING.has(cell.toLowerCase()))) continue;
      this.column = index;
      if (column.holds === 'note') read.note = unescapeFormula(cell);
      else if (column.holds === 'order') read.order = this.number(cell);
      else if (column.holds === 'kind') read.kind = this.kind(cell);
      else if (column.holds === 'date') this.day = this.dayOf(cell);
      else if (column.holds === 'quantity') valuesFor(read, of)[column.quantity] = this.figure(column, cell);
      else this.time(column, cell, read);
    }
    if (this.day !== undefined) this.dayAndTime(read);
    if (Number.isNaN(read.seconds))
      throw new ImportError(`${this.where} has no time. Fill it in, or choose to skip rows that cannot be read.`);
    if (read.kind === 'note' && read.note === '')
      throw new ImportError(`${this.where} is a note without a text. Write one, or choose to skip rows that cannot be read.`);
    if (read.seconds < this.clock.last) {
      throw new ImportError(
        `${this.where} goes back in time, from ${this.clock.last} s to ${read.seconds} s. Put the rows in order of time, or choose to skip such rows.`,
      );
    }
    this.clock.last = read.seconds;
    return read;
  }

  /** Each device of a file has a clock of its own: its rows may stand together. */
  private turnTo(read: ReadRow, device: string): void {
    read.device = device.slice(0, 60) || undefined;
    this.clock = this.clocks.get(read.device) ?? { last: -Infinity, days: 0, moved: 0 };
    this.clocks.set(read.device, this.clock);
  }

  private get where(): string {
    return `Row ${this.row} of ${this.name}`;
  }

  /** What is wrong with a cell, and what to do. */
  private refusal(cell: string, says: string, mend: string, found = ''): ImportError {
    return new ImportError(`${this.where}: ${quoted(cell)} ${says} in column ${quoted(this.heading[this.column] ?? '')}${found}. ${mend}`);
  }

  private kind(cell: string): ReadRow['kind'] {
    const kind = (['reading', 'sample', 'event', 'trial', 'note', 'stop'] as const).find((known) => known === cell);
    if (!kind) throw this.refusal(cell, 'is not a kind of row', 'Write reading, sample, event, trial, note or stop.');
    return kind;
  }

  private figure({ quantity, convert }: Extract<Column, { holds: 'quantity' }>, cell: string): number {
    const value = convert(this.number(cell.replace(UNIT, '')));
    if (isKept(quantity, value)) return value;
    if (quantity === 'percent') throw this.refusal(cell, 'is not a level from 0 to 100 %', MEND);
    const { min, max } = quantityOf(quantity);
    throw this.refusal(cell, 'cannot be', MEND, `: from ${min} to ${max} is kept`);
  }

  /** A number with a decimal point, and without the marks that part its thousands. */
  private pointed(cell: string): string {
    if (this.decimalComma) return (GROUPED_BY_POINT.test(cell) ? cell.replaceAll('.', '') : cell).replace(',', '.');
    return GROUPED_BY_COMMA.test(cell) ? cell.replaceAll(',', '') : cell;
  }

  private number(cell: string): number {
    const text = this.pointed(cell);
    if (NUMBER.test(text)) return Number(text);
    const mend = cell.includes(',') && !this.decimalComma ? 'Choose decimal comma, or skip the row.' : MEND;
    throw this.refusal(cell, 'is not a number', mend);
  }

  /** A date in the order that was found or said; which can be read either way is kept, so that it can be asked. */
  private date(cell: string): ReadDate | undefined {
    const found = readLogDate(cell, this.order ?? 'day');
    if (found === 'no day')
      throw this.refusal(
        cell,
        'is no day of the calendar',
        `Choose ${this.order === 'month' ? 'day' : 'month'} first for its dates, or correct it.`,
      );
    if (found?.isEither && this.order === undefined) this.either = [this.either?.[0] ?? cell, cell];
    return found;
  }

  private dayOf(cell: string): ReadDate {
    const found = this.date(cell);
    if (!found) throw this.refusal(cell, 'is not a date', 'Write it as 2026-10-05.');
    return found;
  }

  /** The day of a row and its time of day, from columns of their own. */
  private dayAndTime(read: ReadRow): void {
    const seconds = this.day?.seconds ?? this.ofDay;
    if (!this.day || seconds === undefined)
      throw new ImportError(`${this.where} has a date and no time. Fill it in, or choose to skip rows that cannot be read.`);
    this.at(this.day.midnight + Math.round(seconds * 1000), read);
  }

  /** A moment of the calendar. A clock without a zone is put back by an hour in autumn: what follows is later all the same. */
  private at(instant: number, read: ReadRow, isZoned = false): void {
    const { clock } = this;
    const back = clock.last - (instant / 1000 + clock.moved);
    if (!isZoned && back > HOUR / 2 && back <= HOUR) clock.moved += HOUR;
    read.instant = instant + clock.moved * 1000;
    read.seconds = read.instant / 1000;
  }

  private time(column: Extract<Column, { scale: number }>, cell: string, read: ReadRow): void {
    const isOfDay = column.holds === 'time' && column.isOfDay === true;
    // Hours and minutes, or minutes and seconds: sixty times as much.
    if (column.holds === 'time' && !isOfDay && !this.hasDay && /^([01]?\d|2[0-3]):[0-5]\d$/.test(cell))
      throw this.refusal(
        cell,
        'can be hours and minutes, or minutes and seconds,',
        'Say below what the column holds: “clock, hours and minutes”, or “elapsed, s”.',
      );
    this.ofDay = readTimeOfDay(cell);
    const ticking = isOfDay ? this.ofDay : (parseClock(cell) ?? this.ofDay);
    const date = /^(\d{4})-(\d\d)-(\d\d)[T ]/.exec(cell);
    const instant = date ? Date.parse(cell.replace(' ', 'T').replace(',', '.')) : Number.NaN;
    if (date && !isDay(Number(date[1]), Number(date[2]), Number(date[3]))) throw this.refusal(cell, 'is no day of the calendar', MEND);
    const written = date || ticking !== undefined || column.holds !== 'time' ? undefined : this.date(cell);
    const figure = this.pointed(cell);
    const counted = column.holds === 'time' && NUMBER.test(figure) ? epochOf(Number(figure) * column.scale) : undefined;
    if (written) {
      const { midnight, seconds } = written;
      if (seconds === undefined) throw this.refusal(cell, 'is a day without a time', 'Write the time too, or say which column has it.');
      this.at(midnight + Math.round(seconds * 1000), read);
    } else if (counted !== undefined) {
      if (counted > MOMENTS.max) throw this.refusal(cell, 'is not between 1970 and 2199', MEND);
      this.at(Math.round(counted), read, true);
      read.seconds = counted / 1000;
    } else if (!Number.isNaN(instant)) {
      if (instant < MOMENTS.min || instant > MOMENTS.max) throw this.refusal(cell, 'is not between 1970 and 2199', MEND);
      const { seconds: elapsed } = read;
      this.at(instant, read, ZONE.test(cell));
      if (!Number.isNaN(elapsed)) read.seconds = elapsed;
    } else if (ticking !== undefined) {
      if (column.holds === 'time' && ticking + this.clock.days * DAY < this.clock.last - DAY / 2) this.clock.days += 1;
      read.seconds = ticking + this.clock.days * DAY;
      // A clock that counts from the start is below an hour there.
      this.startsAt ??= column.holds === 'time' && (isOfDay || /m\.?$/i.test(cell.trim()) || ticking >= HOUR) ? ticking : Number.NaN;
    } else if (!NUMBER.test(figure) && /[-/:.]\d+[-/:.]/.test(cell)) {
      throw this.refusal(cell, 'is not a time', 'Write it as 2026-10-05T14:02:05, as 1:02:05, or in seconds.');
    } else {
      read.seconds = this.number(cell) * column.scale;
      if (!(read.seconds >= -LONGEST_RUN && read.seconds <= LONGEST_RUN)) throw this.refusal(cell, 'is no time of a run', MEND);
    }
  }
}

/** What a row says of one of several devices. */
function valuesFor(read: ReadRow, of: string | undefined): ReadRow['values'] {
  if (of === undefined) return read.values;
  read.others ??= new Map();
  const values = read.others.get(of) ?? {};
  read.others.set(of, values);
  return values;
}

/** A zone behind a time of day. */
const ZONE = /(z|[-+]\d\d:?\d\d)$/i;
const HOUR = 3600;
const NUMBER = /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i;
/** Thousands that are parted, where decimals tell which mark does that; a point does wherever decimals have a comma. */
const GROUPED_BY_POINT = /^[-+]?\d{1,3}(\.\d{3})+(,\d+)?$/;
const GROUPED_BY_COMMA = /^[-+]?\d{1,3}(,\d{3})+\.\d+$/;
/** A unit behind a figure. */
const UNIT = /(?<=[\d.])\s*(%|[a-z]+|°[cf])$/i;

function toDraft({ seconds, kind, values, note }: ReadRow): TimedDraft {
  if (kind === 'note') return { seconds, draft: { kind, at: 0, text: note } };
  if (kind === 'event') {
    const [named = '', ...remark] = note.split(': ');
    const event = EVENTS.find(({ id }) => id === named)?.id;
    if (!event) return { seconds, draft: { kind: 'note', at: 0, text: note || 'an event without a name' } };
    // There are more events than the compiler tells apart.
    return { seconds, draft: { kind, at: 0, event, ...(remark.length > 0 && { remark: remark.join(': ') }) } as Draft };
  }
  if (kind === 'stop') {
    const [because = '', ...remark] = note.split(': ');
    const reason = RUN_ENDING_IDS.find((known) => known === because) ?? 'other';
    return { seconds, draft: { kind, at: 0, because: reason, ...(remark.length > 0 && { remark: remark.join(': ') }) } };
  }
  // A CSV has no gear: what a trial tried stands in its words.
  if (kind === 'trial' && Object.keys(values).length === 0) return { seconds, draft: { kind: 'note', at: 0, text: note || 'a trial' } };
  return { seconds, draft: { kind: 'reading', at: 0, ...values, ...(note && { note }) } };
}
