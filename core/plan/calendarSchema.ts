import { array, boolean, number, object, string, type InferType } from 'yup';
import { instantField } from '../ink/fields';
import { MOMENTS } from '../ink/ranges';

/** A clock time of a day, in minutes from midnight. */
const dayTime = () => number().integer().min(0).max(1440).required();

const hoursSchema = object({ day: number().integer().min(1).max(7).required(), from: dayTime(), to: dayTime() })
  .noUnknown()
  .test('forward', 'A day ends before it begins: write the later time second.', ({ from, to }) => to > from);

/** Hours of a weekday at which a person is there; `day` 1 is Monday; minutes from midnight, by the clock on the wall. */
export type Hours = InferType<typeof hoursSchema>;

const amount = (min: number, max: number, message: string) =>
  number().typeError(message).min(min, message).max(max, message).required(message);

/** Runs that are started together stand in one name. */
const LONGEST_RUNS = 4000;
/** More hours than a week has stretches that anybody keeps, and more runs than any study has. */
const [MOST_HOURS, MOST_LAID] = [70, 20_000];

/** Whether a day is in the calendar at all, and within what is kept. */
function isDay(day: string | undefined): boolean {
  const at = Date.parse(`${day ?? ''}T00:00:00Z`);
  return at >= MOMENTS.min && at <= MOMENTS.max && new Date(at).toISOString().startsWith(day ?? '');
}

/** A run with its time: `at` is when the person sits down to it, epoch milliseconds. */
const laidSchema = object({ run: string().required().max(LONGEST_RUNS), at: instantField().required() }).noUnknown();

/** When the runs of a study are made: the hours, what a person needs, and the days as they were last laid. Seconds where nothing is said. */
export const calendarSchema = object({
  /** First day, ISO 8601. */
  from: string()
    .matches(/^\d{4}-\d\d-\d\d$/, 'Choose the first day.')
    .test('day', 'Choose the first day, from 1970 to 2199.', isDay)
    .required('Choose the first day.'),
  hours: array()
    .of(hoursSchema)
    .required()
    .max(MOST_HOURS)
    .test('apart', 'Two stretches of hours overlap: join them, or move one.', areApart),
  /** Of the person, for one reading. */
  reading: amount(5, 600, 'A reading takes between 5 and 600 s.'),
  /** Before plug-in, and after the last reading: the person’s time, and the gear lies on the table. */
  setUp: amount(0, 3600, 'Setting up takes an hour at most.'),
  packUp: amount(0, 3600, 'Packing up takes an hour at most.'),
  /** To bring a device down to its start level. */
  drain: amount(0, 24 * 3600, 'Draining takes a day at most.'),
  sockets: number()
    .typeError('Count the sockets.')
    .integer('Count whole sockets.')
    .min(1, 'At least one socket.')
    .max(24, 'Up to 24 sockets.')
    .required(),
  /** Room left for a run that takes longer than expected, as a share of it. */
  allowance: amount(0, 1, 'Leave room of 0 to 100 %.'),
  /** Whether a run that fits into no day may go on while nobody is there. */
  nights: boolean().required(),
  /** How long to plan for runs whose length cannot be expected. */
  otherwise: number().typeError('Write minutes.').min(60, 'At least a minute.').max(172_800, 'Two days are the most.'),
  pins: array().of(laidSchema).required().max(MOST_LAID),
  /** As last laid. */
  laid: array().of(laidSchema).required().max(MOST_LAID),
}).noUnknown();

export type Calendar = InferType<typeof calendarSchema>;

function areApart(hours: readonly Hours[] | undefined): boolean {
  const sorted = [...(hours ?? [])].sort((one, other) => one.day - other.day || one.from - other.from);
  return sorted.every((each, index) => {
    const before = sorted[index - 1];
    return !before || before.day !== each.day || each.from >= before.to;
  });
}
