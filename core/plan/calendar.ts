import { array, boolean, number, object, string, type InferType } from 'yup';

/** The days of a week, Monday first. */
export const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

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
const laidSchema = object({ run: string().required(), at: number().integer().required() }).noUnknown();

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

/** A calendar to begin with: nine to five on weekdays, from a day on. @param from ISO 8601 */
export function usualCalendar(from: string): Calendar {
  return {
    from,
    hours: [1, 2, 3, 4, 5].map((day) => ({ day, from: 9 * 60, to: 17 * 60 })),
    reading: 20,
    setUp: 120,
    packUp: 60,
    drain: 3600,
    sockets: 4,
    allowance: 0.1,
    nights: false,
    pins: [],
    laid: [],
  };
}

/** A stretch of time, in seconds; since the epoch where nothing else is said. */
export interface Stretch {
  from: number;
  to: number;
}

/** A moment so many days after a day and minutes after its midnight, by the clock on the wall. Epoch seconds. @param day ISO 8601 */
export function momentOn(day: string, offset = 0, minutes = 0): number {
  const [year = 0, month = 1, first = 1] = day.split('-').map(Number);
  return new Date(year, month - 1, first + offset, 0, minutes).getTime() / 1000;
}

/**
 * The attended stretches from a day on, in the local time of the machine; changes of summer time fall where they fall.
 *
 * @param from     first day, ISO 8601
 * @param earliest nothing before it, epoch seconds
 * @param days     how many days to look ahead
 */
export function attended(hours: readonly Hours[], from: string, earliest: number, days: number): Stretch[] {
  const stretches: Stretch[] = [];
  for (let offset = 0; offset < days; offset += 1) {
    const moment = (minutes: number) => momentOn(from, offset, minutes);
    const weekday = new Date(moment(0) * 1000).getDay() || 7;
    for (const each of hours.filter(({ day }) => day === weekday).sort((one, other) => one.from - other.from)) {
      const start = Math.max(moment(each.from), Math.ceil(earliest / 60) * 60);
      if (start < moment(each.to)) stretches.push({ from: start, to: moment(each.to) });
    }
  }
  return stretches;
}
