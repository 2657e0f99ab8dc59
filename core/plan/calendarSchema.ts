import { array, boolean, number, object, string, type InferType } from 'yup';
import { instantField } from '../ink/fields';

/** A clock time of a day, in minutes from midnight. */
const dayTime = () => number().integer().min(0).max(1440).required();

const hoursSchema = object({ day: number().integer().min(1).max(7).required(), from: dayTime(), to: dayTime() })
  .noUnknown()
  .test('forward', 'A day ends before it begins: write the later time second.', ({ from, to }) => to > from);

/** Hours of a weekday at which a person is there; `day` 1 is Monday; minutes from midnight, by the clock on the wall. */
export type Hours = InferType<typeof hoursSchema>;

const amount = (least: number, most: number, message: string) =>
  number().typeError(message).min(least, message).max(most, message).required(message);

/** A run with its time: `at` is when the person sits down to it, epoch milliseconds. */
const laidSchema = object({ run: string().required(), at: instantField().required() }).noUnknown();

/** When the runs of a study are made: the hours, what a person needs, and the days as they were last laid. Seconds where nothing is said. */
export const calendarSchema = object({
  /** First day, ISO 8601. */
  from: string()
    .matches(/^\d{4}-\d\d-\d\d$/, 'Choose the first day.')
    .required('Choose the first day.'),
  hours: array().of(hoursSchema).required().test('apart', 'Two stretches of hours overlap: join them, or move one.', areApart),
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
  pins: array().of(laidSchema).required(),
  /** As last laid. */
  laid: array().of(laidSchema).required(),
}).noUnknown();

export type Calendar = InferType<typeof calendarSchema>;

function areApart(hours: readonly Hours[] | undefined): boolean {
  const sorted = [...(hours ?? [])].sort((one, other) => one.day - other.day || one.from - other.from);
  return sorted.every((each, index) => {
    const before = sorted[index - 1];
    return !before || before.day !== each.day || each.from >= before.to;
  });
}
