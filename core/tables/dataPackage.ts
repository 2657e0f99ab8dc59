import { Archive } from './archive';
import { csvHead, csvRows } from './csvTable';
import { addSamples, ParquetTable, type TakeBytes } from './parquet';
import { fieldSays, type AnyRow, type Table } from './table';
import { TABLES, type TableName } from './tables';
import type { TableSink } from './write';

const ALL = Object.values(TABLES) as readonly Table[];
const SAMPLES_FILE = 'samples.parquet';

/** A table of the package as a resource with its schema (Frictionless Table Schema 1). */
function resourceOf({ name, title, says, fields, key, refers = [] }: Table): object {
  return {
    name,
    title,
    description: says,
    path: `${name}.csv`,
    profile: 'tabular-data-resource',
    format: 'csv',
    mediatype: 'text/csv',
    encoding: 'utf-8',
    schema: {
      fields: Object.entries(fields).map(([each, field]) => ({
        name: each,
        type: field.type,
        ...(field.type === 'datetime' && { format: 'any' }),
        description: fieldSays(field),
        ...(field.unit && { unit: field.unit }),
        ...(field.isNeeded && { constraints: { required: true } }),
      })),
      primaryKey: key,
      ...(refers.length > 0 && {
        foreignKeys: refers.map(({ columns, to }) => ({
          fields: columns,
          reference: { resource: to, fields: TABLES[to as TableName].key },
        })),
      }),
      missingValues: [''],
    },
  };
}

/**
 * The descriptor of a data package (Frictionless Data Package 1): every table but samples as CSV, and these as Parquet, a plain resource.
 *
 * @param at when it was made, epoch milliseconds
 */
const descriptorOf = (title: string, at: number): object => ({
  profile: 'data-package',
  name: 'inkpath',
  title,
  created: new Date(at).toISOString(),
  description: 'Charges as they were read, and what was worked out of them. A text that begins like a formula has an apostrophe before it.',
  resources: [
    ...ALL.filter((table) => table !== TABLES.samples).map(resourceOf),
    {
      name: 'samples',
      title: TABLES.samples.title,
      description: `${TABLES.samples.says} Columns: ${Object.entries(TABLES.samples.fields)
        .map(([each, field]) => `${each}: ${fieldSays(field)}`)
        .join(' ')}`,
      path: SAMPLES_FILE,
      profile: 'data-resource',
      format: 'parquet',
      mediatype: 'application/vnd.apache.parquet',
    },
  ],
});

/** Rows of a table that are put into words at once. */
const ROWS_AT_ONCE = 2_000;

/** Writes a data package, zipped. */
export function packageSink(take: TakeBytes, title: string, at: number): TableSink {
  const archive = new Archive(take);
  archive.add('datapackage.json', JSON.stringify(descriptorOf(title, at), null, 2));
  const file = archive.begin(SAMPLES_FILE, true);
  const samples = new ParquetTable(TABLES.samples, file.bytes);
  const tables = ALL.filter((table) => table !== TABLES.samples).map((table) => {
    const part = archive.begin(`${table.name}.csv`);
    part.text(csvHead(table));
    return { table, part, rows: [] as AnyRow[] };
  });
  const byName = new Map(tables.map((each) => [each.table.name, each]));
  const flush = ({ table, part, rows }: (typeof tables)[number]) => {
    part.text(csvRows(table, rows.splice(0)));
  };
  return {
    row: (name, row) => {
      const to = byName.get(name);
      if (!to) return;
      to.rows.push(row);
      if (to.rows.length >= ROWS_AT_ONCE) flush(to);
    },
    samples: (run, columns) => {
      addSamples(samples, run, columns);
    },
    end: () => {
      samples.end();
      file.end();
      for (const each of tables) {
        flush(each);
        each.part.end();
      }
      archive.end();
    },
  };
}
