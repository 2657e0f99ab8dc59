import { array, lazy, number, object, string, type InferType } from 'yup';

/** The longest a run can be, in seconds: two centuries and more, which is what dates are kept for. */
const LONGEST_RUN = 7_258_118_400;

const kind = <Kind extends string>(name: Kind) =>
  string()
    .oneOf([name] as const)
    .required();
const interval = () =>
  number()
    .typeError('Write the minutes between readings, such as 5.')
    .required('Say how often a reading is wanted.')
    .min(30, 'Half a minute is the shortest interval: below it use a meter.')
    .max(12 * 3600, 'Twelve hours is the longest interval.');
/** Most marks of one run: as many as five-minute checks in a day. */
const MOST_MARKS = 288;

/** Readings at every multiple of `every`. */
const fixedSchema = object({ kind: kind('fixed'), every: interval() }).noUnknown();

/** Readings at given times, and from the last of them at every multiple of `then`, if it is given. */
const marksSchema = object({
  kind: kind('marks'),
  at: array()
    .of(number().required().min(30, 'The first mark is at half a minute or later.').max(LONGEST_RUN, 'That is longer than a run is kept.'))
    .required()
    .min(1, 'Give at least one time, such as 15.')
    .max(MOST_MARKS, `Up to ${MOST_MARKS} times can be kept.`)
    .test('ascending', 'Write the times in order, each once.', (at) =>
      at.every((each, index) => index === 0 || each > (at[index - 1] ?? 0)),
    ),
  then: number()
    .min(30)
    .max(12 * 3600),
  /** The run whose check times these are, so that runs made one after another can be laid side by side. */
  of: string().max(40),
}).noUnknown();

/** Readings at every multiple of `every` until a display shows `level` %, then at every multiple of `then`. */
const coarseThenFineSchema = object({
  kind: kind('coarse then fine'),
  every: interval(),
  level: number().required().min(1, 'Give a level from 1 to 99 %.').max(99, 'Give a level from 1 to 99 %.'),
  then: interval(),
}).noUnknown();

/** A meter samples every so many seconds; no reading by hand falls due. */
const sampledSchema = object({
  kind: kind('sampled'),
  every: number()
    .typeError('Write the seconds between samples, such as 1.')
    .required('Say how often the meter samples, in seconds.')
    .min(0.001, 'A thousandth of a second is the shortest.')
    .max(3600, 'An hour is the longest.'),
}).noUnknown();

/** One reading once things have settled. */
const spotSchema = object({ kind: kind('spot'), settle: interval() }).noUnknown();

const KINDS = {
  fixed: fixedSchema,
  marks: marksSchema,
  'coarse then fine': coarseThenFineSchema,
  sampled: sampledSchema,
  spot: spotSchema,
} as const;

/** Every kind of cadence. */
export const CADENCE_SCHEMAS = Object.values(KINDS);

/** When readings fall due, by its kind. Times in seconds from plug-in. */
export const cadenceSchema = lazy((value: unknown) => {
  if (value === undefined) return object({ kind: string().required() }).default(undefined).optional();
  const name = typeof value === 'object' && value !== null && 'kind' in value ? value.kind : undefined;
  const known = Object.entries(KINDS).find(([each]) => each === name)?.[1];
  return known ?? object({ kind: string().oneOf(Object.keys(KINDS)).required() });
});

export type Cadence = InferType<(typeof KINDS)[keyof typeof KINDS]>;
