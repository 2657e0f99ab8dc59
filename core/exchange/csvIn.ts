import Papa from 'papaparse';
import type { Draft } from '../ink/entry';
import { EVENTS } from '../ink/events';
import { STOP_REASONS } from '../ink/entry';
import { QUANTITIES, TEMPERATURES, type Quantity, type Samples } from '../ink/track';
import { parseClock } from '../quantity/duration';
import { columnOf, type Column } from './columns';
import { ImportError } from './importError';
import { untame } from './tame';

export interface CsvOptions {
  /** The mark before decimals; `auto` tells it from the file. */
  decimal: 'auto' | 'point' | 'comma';
  /** Leave out rows that cannot be read, and count them, instead of refusing the file. */
  skipBadRows: boolean;
}

/** An entry from a CSV, timed from plug-in. */
export type TimedDraft = { seconds: number; draft: Draft };

export interface CsvRun {
  /** Epoch milliseconds, where the file tells the time of day with its date. */
  plugInAt: number | undefined;
  entries: TimedDraft[];
  samples: Samples;
  /** Last moment, in seconds from plug-in. */
  length: number;
  rows: number;
  skipped: number;
  /** Headings that were understood, and those that were not. */
  understood: string[];
  ignored: string[];
}

const MISSING = new Set(['', '-', '–', '—', 'n/a', 'na', 'nan', 'null']);
const DAY = 86_400;

/**
 * Reads a run from CSV (RFC 4180; comma, semicolon or tab): a meter's log headed in plain English, or a file this program wrote.
 *
 * A meter's rows become samples; its clock starts at its first row. Our own file has a column `kind`, and gives back readings,
 * notes and the stop as they were, at the times they were seen.
 *
 * @param text the file's contents
 * @param name its name, for errors
 * @throws {ImportError} naming the row and column, and the way out
 */
export function readCsv(text: string, name: string, options: CsvOptions = { decimal: 'auto', skipBadRows: false }): CsvRun {
  if (text.includes('\0')) throw new ImportError(`${name} is not a text file. Export the log as CSV, and choose that file.`);
  if (text.trim() === '') throw new ImportError(`${name} is empty. Choose the file again, or export it again from where it was made.`);
  const { data, meta } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const [heading = [], ...rows] = data;
  const columns = matchColumns(heading, name);
  if (rows.length === 0) throw new ImportError(`${name} has a heading but no rows. Export it again once something is logged.`);

  const comma =
    options.decimal === 'comma' || (options.decimal === 'auto' && meta.delimiter !== ',' && rows.slice(0, 50).some(hasDecimalComma));
  const reader = new RowReader(columns, heading, name, comma);
  const read: ReadRow[] = [];
  let skipped = 0;
  rows.forEach((cells, index) => {
    try {
      read.push(reader.read(cells, index + 2));
    } catch (error) {
      if (!options.skipBadRows || !(error instanceof ImportError)) throw error;
      skipped += 1;
    }
  });
  const last = read.at(-1);
  if (!last) throw new ImportError(`No row of ${name} could be read. Check its heading and its decimal mark.`);

  const own = columns.some((column) => column?.holds === 'kind');
  const start = own ? 0 : (read[0]?.seconds ?? 0);
  for (const row of read) row.seconds -= start;
  const instant = read.find(({ instant: known }) => known !== undefined);
  return {
    plugInAt: instant?.instant === undefined ? undefined : Math.round(instant.instant - instant.seconds * 1000),
    entries: read
      .filter(({ kind }) => kind !== 'sample')
      .sort((one, other) => one.order - other.order)
      .map(toDraft),
    samples: toSamples(read.filter(({ kind }) => kind === 'sample')),
    length: last.seconds,
    rows: read.length,
    skipped,
    understood: heading.filter((_, index) => columns[index]),
    ignored: heading.filter((_, index) => !columns[index]),
  };
}

const hasDecimalComma = (cells: string[]) => cells.some((cell) => /^\s*-?\d+,\d+\s*$/.test(cell));

function matchColumns(heading: string[], name: string): (Column | undefined)[] {
  const columns = heading.map(columnOf);
  const seen = new Map<string, string>();
  columns.forEach((column, index) => {
    if (!column) return;
    const holds = column.holds === 'quantity' ? column.quantity : column.holds;
    const before = seen.get(holds);
    if (before !== undefined) {
      throw new ImportError(
        `Columns “${before}” and “${heading[index] ?? ''}” of ${name} both look like ${holds}. Rename or remove one of them.`,
      );
    }
    seen.set(holds, heading[index] ?? '');
  });
  const found = heading
    .map((each) => `“${each.slice(0, 30)}”`)
    .slice(0, 8)
    .join(', ');
  if (!seen.has('elapsed') && !seen.has('time')) {
    throw new ImportError(`Row 1 of ${name} heads no column of times (found ${found}). Head it “time” or “elapsed (s)”.`);
  }
  if (!QUANTITIES.some((quantity) => seen.has(quantity))) {
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
  kind: 'reading' | 'sample' | 'event' | 'note' | 'stop';
  values: Partial<Record<Quantity, number>>;
  note: string;
  order: number;
  row: number;
}

/** Reads rows one after another: a time is understood against the one before it. */
class RowReader {
  private last = -Infinity;
  private days = 0;

  constructor(
    private readonly columns: (Column | undefined)[],
    private readonly heading: string[],
    private readonly name: string,
    private readonly decimalComma: boolean,
  ) {}

  read(cells: string[], row: number): ReadRow {
    const where = `Row ${row} of ${this.name}`;
    if (cells.length !== this.columns.length) {
      throw new ImportError(
        `${where} has ${cells.length} columns where the heading has ${this.columns.length}. Mend the row, or choose to skip rows that cannot be read.`,
      );
    }
    const read: ReadRow = { seconds: Number.NaN, instant: undefined, kind: 'sample', values: {}, note: '', order: row, row };
    this.columns.forEach((column, index) => {
      const cell = (cells[index] ?? '').trim();
      if (!column || MISSING.has(cell.toLowerCase())) return;
      const place = `${where}: “${cell.slice(0, 40)}”`;
      const title = `in column “${this.heading[index] ?? ''}”`;
      if (column.holds === 'note') read.note = untame(cell);
      else if (column.holds === 'order') read.order = this.number(cell, place, title);
      else if (column.holds === 'kind') read.kind = this.kind(cell, place, title);
      else if (column.holds === 'quantity') read.values[column.quantity] = this.figure(column, cell, place, title);
      else this.time(column, cell, read, place, title);
    });
    if (Number.isNaN(read.seconds)) throw new ImportError(`${where} has no time. Fill it in, or choose to skip rows that cannot be read.`);
    if (read.seconds < this.last) {
      throw new ImportError(
        `${where} goes back in time, from ${this.last} s to ${read.seconds} s. Put the rows in order of time, or choose to skip such rows.`,
      );
    }
    this.last = read.seconds;
    return read;
  }

  private kind(cell: string, place: string, title: string): ReadRow['kind'] {
    const kind = (['reading', 'sample', 'event', 'note', 'stop'] as const).find((known) => known === cell);
    if (!kind) throw new ImportError(`${place} is not a kind of row ${title}. Write reading, sample, event, note or stop.`);
    return kind;
  }

  private figure(column: Extract<Column, { holds: 'quantity' }>, cell: string, place: string, title: string): number {
    const value = column.convert(this.number(cell.replace(/\s*(%|[a-z]+|°[cf])$/i, ''), place, title));
    if (column.quantity === 'percent' && (value < 0 || value > 100)) {
      throw new ImportError(`${place} is not a level from 0 to 100 % ${title}. Correct it, or choose to skip rows that cannot be read.`);
    }
    return value;
  }

  private number(cell: string, place: string, title: string): number {
    const text = this.decimalComma ? cell.replace(',', '.') : cell;
    if (!/^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(text)) {
      const hint =
        cell.includes(',') && !this.decimalComma
          ? 'Choose decimal comma, or skip the row.'
          : 'Correct it, or choose to skip rows that cannot be read.';
      throw new ImportError(`${place} is not a number ${title}. ${hint}`);
    }
    return Number(text);
  }

  private time(column: Extract<Column, { scale: number }>, cell: string, read: ReadRow, place: string, title: string): void {
    const ticking = parseClock(cell);
    const instant = /^\d{4}-\d\d-\d\d[T ]/.test(cell) ? Date.parse(cell.replace(' ', 'T').replace(',', '.')) : Number.NaN;
    if (!Number.isNaN(instant)) {
      read.instant = instant;
      if (Number.isNaN(read.seconds)) read.seconds = instant / 1000;
    } else if (ticking !== undefined) {
      if (column.holds === 'time' && ticking + this.days * DAY < this.last - DAY / 2) this.days += 1;
      read.seconds = ticking + this.days * DAY;
    } else if (/[-/:.]\d+[-/:.]/.test(cell)) {
      throw new ImportError(`${place} is not a time ${title}. Write it as 2026-10-05T14:02:05, as 1:02:05, or in seconds.`);
    } else read.seconds = this.number(cell, place, title) * column.scale;
  }
}

/** Temperatures, and a battery that drains. */
const MAY_BE_BELOW_ZERO: ReadonlySet<string> = new Set([...TEMPERATURES, 'batteryWatts']);

function toDraft({ seconds, kind, values, note, row }: ReadRow): TimedDraft {
  if (kind === 'note') return { seconds, draft: { kind, at: 0, text: note } };
  if (kind === 'event') {
    const [named = '', ...remark] = note.split(': ');
    const event = EVENTS.find(({ id }) => id === named)?.id;
    if (!event) return { seconds, draft: { kind: 'note', at: 0, text: note } };
    return { seconds, draft: { kind, at: 0, event, ...(remark.length > 0 && { remark: remark.join(': ') }) } };
  }
  if (kind === 'stop') {
    const [because = '', ...remark] = note.split(': ');
    const reason = STOP_REASONS.find((known) => known === because) ?? 'other';
    return { seconds, draft: { kind, at: 0, because: reason, ...(remark.length > 0 && { remark: remark.join(': ') }) } };
  }
  const below = Object.entries(values).find(([quantity, value]) => !MAY_BE_BELOW_ZERO.has(quantity) && value < 0);
  if (below)
    throw new ImportError(`Row ${row} has a reading below zero (${below.join(' ')}). Write the size of the figure without a minus.`);
  return { seconds, draft: { kind: 'reading', at: 0, ...values, ...(note && { note }) } };
}

function toSamples(rows: ReadRow[]): Samples {
  const samples: Samples = {};
  for (const quantity of QUANTITIES) {
    const given = rows.filter(({ values }) => values[quantity] !== undefined);
    if (given.length === 0) continue;
    samples[quantity] = {
      seconds: Float64Array.from(given, ({ seconds }) => seconds),
      values: Float64Array.from(given, ({ values }) => values[quantity] ?? 0),
    };
  }
  return samples;
}
