import { quoted } from '../quantity/letters';
import { DAYS } from './calendar';
import type { Hours } from './calendarSchema';

const two = (value: number) => String(value).padStart(2, '0');
const written = (minutes: number) => `${Math.floor(minutes / 60)}:${two(minutes % 60)}`;

/** The hours of a day as a person types them: `9:00–12:30, 13:30–17:00`; empty where nobody is there. @param day 1 is Monday */
export function writeHours(hours: readonly Hours[], day: number): string {
  return hours
    .filter((each) => each.day === day)
    .sort((one, other) => one.from - other.from)
    .map(({ from, to }) => `${written(from)}–${written(to)}`)
    .join(', ');
}

const STRETCH = /^(\d{1,2})(?:[:.](\d\d))?\s*(?:-|–|to)\s*(\d{1,2})(?:[:.](\d\d))?$/i;

/**
 * Reads the hours of a day: `9-17`, `9:00–12:30, 13:30–17`. Minutes from midnight.
 *
 * @param day 1 is Monday
 * @returns the hours, or a sentence that says what of them cannot be read
 */
export function readHours(text: string, day: number): { hours: Hours[] } | { error: string } {
  const hours: Hours[] = [];
  for (const part of text.split(/[,;]/).map((each) => each.trim())) {
    if (part === '') continue;
    const match = STRETCH.exec(part);
    const [from, to] = [clockMinutes(match?.[1], match?.[2]), clockMinutes(match?.[3], match?.[4])];
    if (from === undefined || to === undefined)
      return { error: `${DAYS[day - 1] ?? 'A day'}: ${quoted(part)} is no stretch of hours. Write it as 9:00–17:00, several with commas.` };
    if (to <= from) return { error: `${DAYS[day - 1] ?? 'A day'}: ${quoted(part)} ends before it begins. Write the later time second.` };
    hours.push({ day, from, to });
  }
  return { hours };
}

function clockMinutes(hours: string | undefined, minutes = '0'): number | undefined {
  const total = Number(hours) * 60 + Number(minutes);
  return Number(minutes) < 60 && total <= 1440 ? total : undefined;
}
