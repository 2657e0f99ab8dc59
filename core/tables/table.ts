/** What a cell holds. A moment is in epoch milliseconds; `undefined` where nothing is known. */
export type Value = string | number | boolean | undefined;

export type FieldType = 'string' | 'integer' | 'number' | 'boolean' | 'datetime';

/** What a column of a table means. */
export interface Field {
  type: FieldType;
  /** What stands in it, as a sentence. */
  says: string;
  unit?: string;
  /** Whether every row has it. */
  isNeeded?: true;
}

/** A table of what a logbook holds, as it is handed to other programs: data package, Parquet and sheet are made of this description. */
export interface Table {
  name: string;
  title: string;
  says: string;
  fields: Readonly<Record<string, Field>>;
  /** The columns that tell a row from every other. */
  key: readonly string[];
  /** Columns that hold the key of another table, in its order. */
  refers?: readonly { columns: readonly string[]; to: string }[];
}

/** A row of a table: a value for each of its columns, none for those it lacks. */
export type RowOf<Of extends Table> = Readonly<Partial<Record<keyof Of['fields'], Value>>>;
export type AnyRow = Readonly<Record<string, Value>>;

export const textColumn = (says: string): Field => ({ type: 'string', says });
export const figureColumn = (says: string, unit?: string): Field => ({ type: 'number', says, ...(unit && { unit }) });
export const wholeColumn = (says: string, unit?: string): Field => ({ type: 'integer', says, ...(unit && { unit }) });
export const yesColumn = (says: string): Field => ({ type: 'boolean', says });
export const momentColumn = (says: string): Field => ({ type: 'datetime', says, unit: 'UTC' });
export const needed = (field: Field): Field => ({ ...field, isNeeded: true });

/** What a column means and in which unit, in one sentence. */
export const fieldSays = ({ says, unit }: Field): string => (unit ? `${says} In ${unit}.` : says);

/** A moment as ISO 8601; nothing beyond what dates are kept for. */
export function isoOf(at: number): string {
  const date = new Date(at);
  return Number.isNaN(date.getTime()) ? '' : date.toISOString();
}
