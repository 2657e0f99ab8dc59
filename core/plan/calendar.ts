import type { Calendar, Hours } from './calendarSchema';

/** The days of a week, Monday first. */
export const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

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
