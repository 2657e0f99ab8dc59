import { ByteWriter, ParquetWriter } from 'hyparquet-writer';
import { QUANTITIES, quantityOf } from '../quantity/quantity';
import type { Samples } from '../samples/column';
import { fieldSays, type AnyRow, type Field, type Table, type Value } from './table';
import { TABLES, type TableName } from './tables';
import type { TableSink } from './write';

/** Takes the next bytes of a file. */
export type TakeBytes = (bytes: Uint8Array<ArrayBuffer>) => void;

type Element = ConstructorParameters<typeof ParquetWriter>[0]['schema'][number];
type Columns = Parameters<ParquetWriter['write']>[0]['columnData'];

const KINDS: Readonly<Record<Field['type'], Pick<Element, 'type' | 'converted_type'>>> = {
  string: { type: 'BYTE_ARRAY', converted_type: 'UTF8' },
  integer: { type: 'INT32' },
  number: { type: 'DOUBLE' },
  boolean: { type: 'BOOLEAN' },
  datetime: { type: 'INT64', converted_type: 'TIMESTAMP_MILLIS' },
};

/** Values that are written at once: a group of rows, which readers read at once too. */
const VALUES_AT_ONCE = 100_000;

const cellOf = (value: Value, { type }: Field) => (value !== undefined && type === 'datetime' ? new Date(Number(value)) : value);

/**
 * Writes a table as Parquet (Apache Parquet format 2, by hyparquet-writer), some rows at a time, so that it may be larger than memory. What each column
 * means, and its unit, stands in the file’s metadata.
 *
 * @param without columns that the file lacks, for they stand in its path
 */
export class ParquetTable {
  private readonly writer: ParquetWriter;
  private readonly fields: [string, Field][];
  private rows: AnyRow[] = [];

  constructor(table: Table, take: TakeBytes, without: readonly string[] = []) {
    this.fields = Object.entries(table.fields).filter(([name]) => !without.includes(name));
    const bytes = new ByteWriter();
    const handOver = () => {
      take(new Uint8Array(bytes.buffer.slice(0, bytes.index)));
      bytes.index = 0;
    };
    this.writer = new ParquetWriter({
      writer: Object.assign(bytes, { flush: handOver, finish: handOver }),
      schema: [
        { name: 'root', num_children: this.fields.length },
        ...this.fields.map(([name, field]): Element => ({
          name,
          ...KINDS[field.type],
          repetition_type: field.isNeeded ? 'REQUIRED' : 'OPTIONAL',
        })),
      ],
      kvMetadata: [
        { key: 'title', value: table.title },
        { key: 'description', value: table.says },
        ...this.fields.map(([name, field]) => ({ key: `column:${name}`, value: fieldSays(field) })),
        ...this.fields.flatMap(([name, { unit }]) => (unit ? [{ key: `unit:${name}`, value: unit }] : [])),
      ],
      createdBy: 'inkpath',
    });
  }

  add(row: AnyRow): void {
    this.rows.push(row);
    if (this.rows.length >= VALUES_AT_ONCE) this.writeRows();
  }

  /** Adds rows as columns: no row is made of them. @param columns a value or a column for each field, in any order; columns are equally long */
  addColumns(columns: Readonly<Record<string, string | Float64Array>>, length: number): void {
    this.writeRows();
    for (let from = 0; from < length; from += VALUES_AT_ONCE) {
      const to = Math.min(length, from + VALUES_AT_ONCE);
      this.write(
        this.fields.map(([name]) => {
          const column = columns[name] ?? '';
          return { name, data: typeof column === 'string' ? new Array<string>(to - from).fill(column) : column.subarray(from, to) };
        }),
      );
    }
  }

  end(): void {
    this.writeRows();
    void this.writer.finish();
  }

  private writeRows(): void {
    if (this.rows.length === 0) return;
    const { rows } = this;
    this.rows = [];
    this.write(this.fields.map(([name, field]) => ({ name, data: rows.map((row) => cellOf(row[name], field)) })));
  }

  private write(columnData: Columns): void {
    void this.writer.write({ columnData, rowGroupSize: VALUES_AT_ONCE });
  }
}

/** Adds what meters streamed of a run. */
export function addSamples(to: ParquetTable, run: string, samples: Samples): void {
  for (const quantity of QUANTITIES) {
    const column = samples[quantity];
    if (column)
      to.addColumns(
        { run, quantity, unit: quantityOf(quantity).unit, seconds: column.seconds, value: column.values },
        column.values.length,
      );
  }
}

/** A run’s part of a partitioned table, by the path that query engines read: `samples/run=abc/part-0.parquet`. Ids hold no character that a path could mind. */
const partOf = (table: TableName, run: string): string => `${table}/run=${run}/part-0.parquet`;

/** Tables whose rows lie in a file for each run. */
const BY_RUN: readonly TableName[] = ['readings', 'samples'];

/**
 * Writes every table as Parquet: readings and samples a file a run, by the layout that query engines read; the others a file each.
 *
 * @param begin begins a file of a path
 */
export function parquetSink(begin: (path: string) => { bytes: TakeBytes; end: () => void }, end: () => void): TableSink {
  const rows = new Map<TableName, AnyRow[]>();
  let of: AnyRow[] = [];
  const write = (path: string, table: Table, fill: (to: ParquetTable) => void, without: readonly string[] = []) => {
    const file = begin(path);
    const to = new ParquetTable(table, file.bytes, without);
    fill(to);
    to.end();
    file.end();
  };
  return {
    row: (name, row) => {
      if (BY_RUN.includes(name)) of.push(row);
      else (rows.get(name) ?? rows.set(name, []).get(name))?.push(row);
    },
    samples: (run, columns) => {
      const own = of;
      of = [];
      if (own.length > 0) write(partOf('readings', run), TABLES.readings, (to) => own.forEach((row) => to.add(row)), ['run']);
      if (Object.keys(columns).length > 0) write(partOf('samples', run), TABLES.samples, (to) => addSamples(to, run, columns), ['run']);
    },
    end: () => {
      for (const name of Object.keys(TABLES) as TableName[])
        if (!BY_RUN.includes(name))
          write(`${name}/part-0.parquet`, TABLES[name], (to) => (rows.get(name) ?? []).forEach((row) => to.add(row)));
      end();
    },
  };
}
