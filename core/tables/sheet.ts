import writeXlsxFile, { type SheetData } from 'write-excel-file/universal';
import { fieldSays, type AnyRow, type Field, type Table, type Value } from './table';
import { TABLES, type TableName } from './tables';
import type { TableSink } from './write';

/** Rows of a sheet beneath its head (ECMA-376, as spreadsheets read it). */
const MOST_ROWS = 1_048_575;
/** Characters of a cell. */
const MOST_CHARACTERS = 32_767;
const MOST_WIDTH = 60;

/** The tables that a workbook shows after its results, each on a sheet of its own. */
const SHEETS: readonly TableName[] = ['runs', 'readings', 'events', 'trials', 'gear', 'conditions', 'methods', 'studies', 'sentences'];

interface SheetColumn {
  name: string;
  field: Field;
}
interface Sheet {
  title: string;
  columns: SheetColumn[];
  rows: AnyRow[];
}

const headOf = ({ name, field: { unit, type } }: SheetColumn): string => {
  const words = name.replaceAll('_', ' ');
  return unit && type !== 'datetime' ? `${words} (${unit})` : type === 'datetime' ? `${words} (UTC)` : words;
};

/** A figure, a date or a text as its cell: never a formula. */
function cellOf(value: Value, { type }: Field): SheetData[number][number] {
  if (value === undefined || value === '') return null;
  if (type === 'datetime') {
    const date = new Date(Number(value));
    return Number.isNaN(date.getTime()) ? null : { value: date, type: Date, format: 'yyyy-mm-dd hh:mm:ss' };
  }
  if (typeof value === 'string') return { value: value.slice(0, MOST_CHARACTERS), type: String };
  return typeof value === 'boolean' ? { value, type: Boolean } : { value, type: Number };
}

/** As wide as the widest of its first rows, and its head. */
const widthOf = (column: SheetColumn, rows: readonly AnyRow[]): number =>
  Math.min(
    MOST_WIDTH,
    2 +
      rows
        .slice(0, 200)
        .reduce(
          (width, row) => Math.max(width, column.field.type === 'datetime' ? 19 : String(row[column.name] ?? '').length),
          headOf(column).length,
        ),
  );

function sheetOf({ title, columns, rows }: Sheet) {
  const some = rows.slice(0, MOST_ROWS);
  return {
    sheet: title,
    stickyRowsCount: 1,
    columns: columns.map((column) => ({ width: widthOf(column, some) })),
    data: [
      columns.map((column) => ({ value: headOf(column), type: String, fontWeight: 'bold' as const })),
      ...some.map((row) => columns.map(({ name, field }) => cellOf(row[name], field))),
    ] satisfies SheetData,
  };
}

const columnsOfTable = ({ fields }: Table): SheetColumn[] => Object.entries(fields).map(([name, field]) => ({ name, field }));

/** Results: a row a run, and of each figure itself and what it lies between, in columns of their own. */
function resultsOf(rows: ReadonlyMap<TableName, readonly AnyRow[]>): Sheet {
  const names = new Map((rows.get('gear') ?? []).map(({ id, name }) => [id, name]));
  const setups = new Map((rows.get('setups') ?? []).map(({ id, name }) => [id, name]));
  const figures = new Map<Value, AnyRow[]>();
  const columns = new Map<string, SheetColumn[]>();
  for (const row of rows.get('figures') ?? []) {
    (figures.get(row.run) ?? figures.set(row.run, []).get(row.run))?.push(row);
    const name = String(row.name);
    if (row.value === undefined || columns.has(name)) continue;
    const field: Field = { type: 'number', says: name, ...(row.unit ? { unit: String(row.unit) } : {}) };
    columns.set(
      name,
      ['', ' lower', ' upper'].map((end) => ({ name: name + end, field })),
    );
  }
  const text: Field = { type: 'string', says: '' };
  return {
    title: 'Results',
    columns: [
      { name: 'device', field: text },
      { name: 'charged by', field: text },
      { name: 'plugged in', field: { type: 'datetime', says: '' } },
      { name: 'ended', field: text },
      ...[...columns.values()].flat(),
    ],
    rows: (rows.get('runs') ?? []).map((run) => ({
      device: names.get(run.device),
      'charged by': setups.get(run.setup),
      'plugged in': run.plugged_in,
      ended: run.ended,
      ...Object.fromEntries(
        (figures.get(run.id) ?? []).flatMap(({ name, value, lower, upper }) => [
          [String(name), value],
          [`${String(name)} lower`, lower],
          [`${String(name)} upper`, upper],
        ]),
      ),
    })),
  };
}

/** What the columns of each sheet mean. */
const legendOf = (sheets: readonly Sheet[]): Sheet => ({
  title: 'Columns',
  columns: ['sheet', 'column', 'meaning'].map((name) => ({ name, field: { type: 'string', says: '' } })),
  rows: sheets.flatMap(({ title, columns }) =>
    columns.map((column) => ({ sheet: title, column: headOf(column), meaning: fieldSays(column.field) })),
  ),
});

/**
 * Writes a workbook (ECMA-376, by write-excel-file): results, readings, gear, conditions and methods; real numbers and dates, units in heads, heads frozen.
 *
 * @param take     takes the file
 * @param leftOut  told of each table with more rows than a sheet holds: its title, and how many are in it
 */
export function sheetSink(take: (file: Blob) => void, leftOut: (says: string) => void): TableSink {
  const rows = new Map<TableName, AnyRow[]>();
  return {
    row: (name, row) => {
      (rows.get(name) ?? rows.set(name, []).get(name))?.push(row);
    },
    samples: () => undefined,
    end: async () => {
      const tables = SHEETS.flatMap((name): Sheet[] => {
        const found = rows.get(name) ?? [];
        if (found.length > MOST_ROWS)
          leftOut(
            `${TABLES[name].title}: ${MOST_ROWS} of ${found.length} rows, the most that a sheet holds. The data package has them all.`,
          );
        return found.length > 0 ? [{ title: TABLES[name].title, columns: columnsOfTable(TABLES[name]), rows: found }] : [];
      });
      const results = resultsOf(rows);
      take(await writeXlsxFile([results, ...tables, legendOf(tables)].map(sheetOf)).toBlob());
    },
  };
}
