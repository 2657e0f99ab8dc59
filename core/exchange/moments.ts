import { parseClock } from '../quantity/duration';

/** Which comes first in a date such as 03/11/2026. */
export type DateOrder = 'day' | 'month';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const NAMED = String.raw`(?<name>[A-Za-z]{3,9})\.?`;
/** A date as logs write it, each with what stands behind it: a time of day. */
const FORMS: readonly RegExp[] = [
  // 2026/11/03, and 2026-11-3
  /^(?<year>\d{4})[-/.](?<month>\d{1,2})[-/.](?<day>\d{1,2})(?:[T ,]+(?<time>\d.*))?$/,
  // 03/11/2026, 3-11-2026: either way
  /^(?<one>\d{1,2})(?<mark>[-/])(?<other>\d{1,2})\k<mark>(?<year>\d{4})(?:[T ,]+(?<time>\d.*))?$/,
  // 3.11.2026: the day first
  /^(?<day>\d{1,2})\.\s?(?<month>\d{1,2})\.\s?(?<year>\d{4})(?:[T ,]+(?<time>\d.*))?$/,
  new RegExp(String.raw`^(?<day>\d{1,2})[ -]${NAMED}[ -](?<year>\d{4})(?:[T ,]+(?<time>\d.*))?$`),
  new RegExp(String.raw`^${NAMED} (?<day>\d{1,2}),? (?<year>\d{4})(?:[T ,]+(?<time>\d.*))?$`),
];
const TWELVE = /^(\d{1,2})(:\d\d(?::\d\d(?:[.,]\d+)?)?)\s*([ap])\.?\s?m\.?$/i;

/** A date that was read: the day, and what time of it, where it says. */
export interface ReadDate {
  /** Midnight of it by the clock on the wall, epoch milliseconds. */
  midnight: number;
  /** Seconds into the day; `undefined` where it is a day alone. */
  seconds: number | undefined;
  /** It can be read the other way just as well, as another day. */
  isEither: boolean;
}

/** A time of day: `14:02:05`, `2:02:05 PM`. @returns seconds; `undefined` for what is none */
export function readTimeOfDay(text: string): number | undefined {
  const twelve = TWELVE.exec(text.trim());
  if (!twelve) {
    const plain = /^\d{1,2}:\d\d$/.test(text.trim()) ? `${text.trim()}:00` : text.trim();
    return parseClock(plain.replace(',', '.'));
  }
  const [, hour = '', rest = '', half = ''] = twelve;
  if (Number(hour) < 1 || Number(hour) > 12) return undefined;
  const minutes = /^:\d\d$/.test(rest) ? `${rest}:00` : rest.replace(',', '.');
  const hours = (Number(hour) % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  return parseClock(`${hours}${minutes}`);
}

/**
 * Reads a date in words and figures, with its time of day.
 *
 * @param order which comes first where a date can be read either way
 * @returns `undefined` for what is no such date; `no day` for a day that there is not
 */
export function readLogDate(text: string, order: DateOrder): ReadDate | 'no day' | undefined {
  for (const form of FORMS) {
    const { year, month, day, name, one, other, time } = form.exec(text)?.groups ?? {};
    if (year === undefined) continue;
    const named = name === undefined ? -1 : MONTHS.indexOf(name.slice(0, 3).toLowerCase());
    if (name !== undefined && named < 0) continue;
    const [first, second] = [Number(one), Number(other)];
    const isEither = one !== undefined && first <= 12 && second <= 12 && first !== second;
    const isDayFirst = isEither ? order === 'day' : first > 12;
    const [asMonth, asDay] =
      one === undefined ? [name === undefined ? Number(month) : named + 1, Number(day)] : isDayFirst ? [second, first] : [first, second];
    if (!isDay(Number(year), asMonth, asDay)) return 'no day';
    const seconds = time === undefined ? undefined : readTimeOfDay(time);
    if (time !== undefined && seconds === undefined) return undefined;
    return { midnight: new Date(Number(year), asMonth - 1, asDay).getTime(), seconds, isEither };
  }
  return undefined;
}

/** The last moment of a time of day, in seconds, that is not later than one, epoch milliseconds. */
export function lastAt(timeOfDay: number, latest: number): number {
  const day = new Date(latest);
  const at = (back: number) => new Date(day.getFullYear(), day.getMonth(), day.getDate() - back).getTime() + timeOfDay * 1000;
  return at(0) <= latest ? at(0) : at(1);
}

/** Which comes first in some dates, as far as one of them tells: there is no 13th month. */
export function orderIn(cells: Iterable<string>): DateOrder | undefined {
  for (const cell of cells) {
    const { one, other } = FORMS[1]?.exec(cell.trim())?.groups ?? {};
    if (Number(one) > 12) return 'day';
    if (Number(other) > 12) return 'month';
  }
  return undefined;
}

/** Whether there is such a day: February has 28 days, or 29. */
export function isDay(year: number, month: number, day: number): boolean {
  return month >= 1 && month <= 12 && day >= 1 && day <= new Date(Date.UTC(year, month, 0)).getUTCDate();
}

/** From when on a number counts seconds since 1970, and no time of a run; the same in milliseconds and microseconds. */
const EPOCH = { seconds: 9e8, milli: 9e11, micro: 9e14 };

/** Epoch milliseconds that a number is, in seconds, milliseconds or microseconds; `undefined` for a time of a run. */
export function epochOf(value: number): number | undefined {
  if (value < EPOCH.seconds) return undefined;
  return value < EPOCH.milli ? value * 1000 : value < EPOCH.micro ? value : value / 1000;
}
