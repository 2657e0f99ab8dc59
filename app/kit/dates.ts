import { format, isValid, parse } from 'date-fns';
import { wallTime } from './clock';
import { dateManner } from './manner';

/** What of a date a person types. The value is that of the browser’s own field: `2026-11-26`, `2026-11-26T14:05`, `14:05`. */
export type DatePart = 'date' | 'datetime-local' | 'time';

const DAYS = {
  day: { year: 'd MMM yyyy', short: 'd MMM' },
  month: { year: 'MMM d, yyyy', short: 'MMM d' },
  year: { year: 'yyyy-MM-dd', short: 'MM-dd' },
};

/** A day in words: `26 Nov`, with its year `26 Nov 2026`, with its name `Thu 26 Nov`. */
export function dayText(at: number, { year = false, weekday = false } = {}): string {
  return format(at, `${weekday ? 'EEE ' : ''}${DAYS[dateManner.order][year ? 'year' : 'short']}`);
}

/** A moment in words: `26 Nov 2026, 14:05`. */
export const momentText = (at: number, parts: { year?: boolean; weekday?: boolean } = {}): string =>
  `${dayText(at, parts)}, ${wallTime(at)}`;

/** What is typed for a date, part by part, as date-fns has it. */
export function typedPattern(part: DatePart): string {
  const { order, separator, twelve } = dateManner;
  const orders = { day: ['dd', 'MM', 'yyyy'], month: ['MM', 'dd', 'yyyy'], year: ['yyyy', 'MM', 'dd'] };
  const [day, time] = [orders[order].join(separator), twelve ? 'h:mm a' : 'HH:mm'];
  return { date: day, 'datetime-local': `${day} ${time}`, time }[part];
}

/** With its month by name a day says itself in which order it is. */
const NAMED = ['d MMM yyyy', 'd MMMM yyyy', 'MMM d yyyy', 'MMMM d yyyy'];

const KEPT = { date: 'yyyy-MM-dd', 'datetime-local': "yyyy-MM-dd'T'HH:mm", time: 'HH:mm' };

/** A field’s value as a person types it; what is no value stays empty. */
export function typedDate(value: string, part: DatePart): string {
  const at = parse(value, KEPT[part], new Date());
  const whole = isValid(at) ? at : new Date(value);
  return isValid(whole) ? format(whole, typedPattern(part)) : '';
}

/** What a person typed as a field’s value; `undefined` where it is no such date. A date as the files of this program have it is always understood. */
export function readDate(typed: string, part: DatePart): string | undefined {
  if (typed.trim() === '') return '';
  const days = [typedPattern('date'), KEPT.date, ...NAMED];
  const times = [typedPattern('time'), KEPT.time, 'h:mm a'];
  const both = [KEPT['datetime-local'], ...days.flatMap((day) => times.map((time) => `${day} ${time}`))];
  const patterns = { date: days, time: times, 'datetime-local': both }[part];
  const plain = typed.trim().replace(/(?<=[a-z]|\d)[.,]? +/gi, ' ');
  // Whatever stands between day, month and year.
  const texts = [plain, plain.replace(/(?<=\d)[./-](?=\d)/g, dateManner.separator)];
  for (const text of texts)
    for (const pattern of patterns) {
      const at = parse(text, pattern, new Date());
      if (isValid(at) && at.getFullYear() > 99) return format(at, KEPT[part]);
    }
  return undefined;
}
