import { array, number, object, string, ValidationError, type InferType } from 'yup';
import { chargerSchema, deviceSchema } from '../bench/gear';
import { entriesSchema, headerSchema, SCHEMA, type Entry, type Header } from '../ink/entry';
import { QUANTITIES, type Quantity, type Samples } from '../ink/track';
import { ImportError } from './importError';
import { migrate } from './migrate';

/** A run as it is kept: its header, its ink and a meter's samples if it has any. */
export interface StoredRun {
  header: Header;
  entries: Entry[];
  samples?: Samples | undefined;
}

/** Everything a logbook holds, as one JSON file. */
export interface Logbook {
  format: 'inkpath-logbook';
  schema: typeof SCHEMA;
  /** ISO 8601. */
  exportedAt: string;
  devices: InferType<typeof deviceSchema>[];
  chargers: InferType<typeof chargerSchema>[];
  runs: StoredRun[];
}

const column = object({
  seconds: array().of(number().required()).required(),
  values: array().of(number().required()).required(),
})
  .noUnknown()
  .test('even', 'has columns of unequal length', (given) => !(given as object | undefined) || given.seconds.length === given.values.length);

const samplesSchema = object(
  Object.fromEntries(QUANTITIES.map((quantity) => [quantity, column.default(undefined).optional()])),
).noUnknown();

const logbookSchema = object({
  format: string()
    .oneOf(['inkpath-logbook'] as const)
    .required(),
  schema: number().oneOf([SCHEMA]).required(),
  exportedAt: string().required(),
  devices: array().of(deviceSchema).required(),
  chargers: array().of(chargerSchema).required(),
  runs: array()
    .of(object({ header: headerSchema, entries: entriesSchema, samples: samplesSchema.default(undefined).optional() }).noUnknown())
    .required(),
}).noUnknown();

/** Gear and runs as a logbook, dated now. */
export function logbookOf({ devices, chargers }: Pick<Logbook, 'devices' | 'chargers'>, runs: StoredRun[]): Logbook {
  return { format: 'inkpath-logbook', schema: SCHEMA, exportedAt: new Date().toISOString(), devices, chargers, runs };
}

/** Writes a logbook as JSON. Samples become plain arrays; figures keep every digit. */
export function writeLogbook(logbook: Logbook): string {
  return JSON.stringify(logbook, (_key, value: unknown) => (value instanceof Float64Array ? Array.from(value) : value));
}

/**
 * Reads a logbook from JSON, of this schema or an older one.
 *
 * @param text the file's contents
 * @param name its name, for errors
 * @throws {ImportError} naming the place in the file and the way out
 */
export function readLogbook(text: string, name: string): Logbook {
  const value = migrate(parse(text, name), name);
  if (value.format !== 'inkpath-logbook')
    throw new ImportError(`${name} is JSON, but not a logbook. Choose a file that Inkpath Log exported.`);
  try {
    logbookSchema.validateSync(value, { strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const place = error.path ? `${error.path}: ` : '';
    throw new ImportError(
      `${name} does not fit at ${place}${error.message}. It was changed or cut off after it was exported: export it again.`,
    );
  }
  const logbook = value as unknown as Logbook;
  for (const run of logbook.runs) if (run.samples) run.samples = typed(run.samples);
  requireUnique(logbook, name);
  return logbook;
}

function parse(text: string, name: string): unknown {
  if (text.trim() === '') throw new ImportError(`${name} is empty. Choose the file again, or export it again from where it was made.`);
  try {
    return JSON.parse(text);
  } catch {
    throw new ImportError(`${name} is not JSON, or was cut off. Choose a logbook that Inkpath Log exported, or export it again.`);
  }
}

function typed(samples: Samples): Samples {
  const columns = Object.entries(samples) as [Quantity, { seconds: ArrayLike<number>; values: ArrayLike<number> }][];
  return Object.fromEntries(
    columns.map(([quantity, { seconds, values }]) => [
      quantity,
      { seconds: Float64Array.from(seconds), values: Float64Array.from(values) },
    ]),
  );
}

function requireUnique({ runs }: Logbook, name: string): void {
  const ids = new Set<string>();
  for (const { header, entries } of runs) {
    if (ids.has(header.id)) throw new ImportError(`${name} holds run ${header.id} twice. Export it again.`);
    ids.add(header.id);
    if (new Set(entries.map(({ id }) => id)).size < entries.length)
      throw new ImportError(`${name} holds an entry of run ${header.id} twice. Export it again.`);
  }
}

/**
 * Joins two copies of a run's ink. Ink is only ever added to, so what stands in either stands in both.
 *
 * @throws {ImportError} when the copies tell the same entry differently
 */
export function joinInk(mine: readonly Entry[], theirs: readonly Entry[], where: string): Entry[] {
  const joined = new Map(mine.map((entry) => [entry.id, entry]));
  for (const entry of theirs) {
    const known = joined.get(entry.id);
    if (known && !sameEntry(known, entry)) {
      throw new ImportError(
        `Entry ${entry.seq} of ${where} differs from the one already here. Nothing was brought in; keep the file apart, or use another address.`,
      );
    }
    joined.set(entry.id, entry);
  }
  return [...joined.values()].sort((one, other) => one.seq - other.seq || (one.id < other.id ? -1 : 1));
}

function sameEntry(one: Entry, other: Entry): boolean {
  const sorted = (entry: Entry) => JSON.stringify(Object.entries(entry).sort(([left], [right]) => (left < right ? -1 : 1)));
  return sorted(one) === sorted(other);
}
