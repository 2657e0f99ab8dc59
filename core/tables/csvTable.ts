import Papa from 'papaparse';
import { escapeFormula } from '../quantity/plainTable';
import { isoOf, type AnyRow, type Field, type Table, type Value } from './table';

function cellText(value: Value, { type }: Field): string | number {
  if (value === undefined) return '';
  if (type === 'datetime') return isoOf(Number(value));
  if (typeof value === 'boolean') return value ? 'true' : 'false';
  return typeof value === 'string' ? escapeFormula(value.replaceAll('\0', '␀')) : value;
}

/** The head of a table as CSV (RFC 4180), with its line end. */
export const csvHead = ({ fields }: Table): string => `${Object.keys(fields).join(',')}\r\n`;

/** Rows of a table as CSV, each with its line end. A text that a spreadsheet would run as a formula has an apostrophe before it. */
export function csvRows({ fields }: Table, rows: readonly AnyRow[]): string {
  const columns = Object.entries(fields);
  const data = rows.map((row) => columns.map(([name, field]) => cellText(row[name], field)));
  return rows.length === 0 ? '' : `${Papa.unparse(data, { newline: '\r\n' })}\r\n`;
}
