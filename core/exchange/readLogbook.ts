import { array, lazy, number, object, string, ValidationError } from 'yup';
import { SCHEMAS } from '../bench/schemas';
import { ownMethodSchema } from '../method/ownMethod';
import { SCHEMA } from '../ink/version';
import { entriesSchema, headerSchema } from '../ink/entry';
import { QUANTITIES, type Quantity, type Samples } from '../ink/track';
import { studySchema } from '../plan/study';
import { ImportError } from './importError';
import type { Logbook } from './logbook';
import { migrate } from './migrate';

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
  devices: array().of(SCHEMAS.device).required(),
  chargers: array().of(SCHEMAS.charger).required(),
  cables: array().of(SCHEMAS.cable).required(),
  meters: array().of(SCHEMAS.meter).required(),
  methods: array().of(ownMethodSchema).required(),
  studies: array().of(studySchema).required(),
  runs: array()
    .of(object({ header: headerSchema, entries: entriesSchema, samples: samplesSchema.default(undefined).optional() }).noUnknown())
    .required(),
  pictures: lazy((given: unknown) =>
    object(
      Object.fromEntries(
        Object.keys(typeof given === 'object' && given !== null ? given : {}).map((id) => [
          id,
          string()
            .matches(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/=]+$/, 'is not a picture')
            .required(),
        ]),
      ),
    )
      .default(undefined)
      .optional(),
  ),
}).noUnknown();

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
