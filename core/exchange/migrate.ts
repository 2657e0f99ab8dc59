import { SCHEMA } from '../ink/version';
import { fromSchema1 } from './fromSchema1';
import { fromSchema2 } from './fromSchema2';
import type { Migrations, Versioned } from './versioned';
import { ImportError } from './importError';

export const MIGRATIONS: Migrations = { 1: fromSchema1, 2: fromSchema2 };

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
      `${where} was written by a newer Inkpath Log (schema ${current.schema}; this one reads up to ${present}). Update this one, then import it again.`,
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
