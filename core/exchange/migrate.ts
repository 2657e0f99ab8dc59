import { SCHEMA } from '../ink/version';
import { ImportError } from './importError';

/** Anything with a schema number, before it is known to fit the present one. */
export type Versioned = { schema: number } & Record<string, unknown>;

/** Raises a value from the schema of its key to the next one. Pure; kept for ever, with a fixture of the old shape. */
export type Migrations = Readonly<Record<number, (old: Versioned) => Versioned>>;

/** There is one schema so far. */
export const MIGRATIONS: Migrations = {};

/**
 * Brings a stored or exported value up to the present schema, one version at a time.
 *
 * @param value as read
 * @param where what it was read from, for errors
 * @throws {ImportError} when it has no schema number, comes from a newer version, or from one no migration is known for
 */
export function migrate(value: unknown, where: string, migrations: Migrations = MIGRATIONS, present: number = SCHEMA): Versioned {
  if (typeof value !== 'object' || value === null || !('schema' in value) || !Number.isInteger(value.schema)) {
    throw new ImportError(`${where} does not say which schema it has. Choose a file that Inkpath Log wrote.`);
  }
  let current = value as Versioned;
  if (current.schema > present) {
    throw new ImportError(
      `${where} was written by a newer Inkpath Log (schema ${current.schema}; this one reads up to ${present}). Update this one, then bring it in again.`,
    );
  }
  while (current.schema < present) {
    const raise = migrations[current.schema];
    if (!raise)
      throw new ImportError(`${where} has schema ${current.schema}, which was never in use. Choose a file that Inkpath Log wrote.`);
    current = raise(current);
  }
  return current;
}
