import type { Forecast } from '../run/forecast';
import { attended } from './calendar';
import type { Calendar } from './calendarSchema';

/**
 * Whether a live run will end while somebody is there.
 *
 * @param full the forecast of its end, in seconds from plug-in
 * @param plugInAt epoch milliseconds by the wall clock
 * @returns in words; `undefined` outside all hours
 */
export function endsAttended(calendar: Pick<Calendar, 'hours'>, full: Forecast, plugInAt: number, now: number): string | undefined {
  const day = new Date(now);
  const today = [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((part) => String(part).padStart(2, '0')).join('-');
  const stretch = attended(calendar.hours, today, 0, 1).find(({ from, to }) => from * 1000 <= now && now < to * 1000);
  if (!stretch) return undefined;
  const until = new Date(stretch.to * 1000);
  const clock = `${String(until.getHours()).padStart(2, '0')}:${String(until.getMinutes()).padStart(2, '0')}`;
  const end = (seconds: number) => plugInAt / 1000 + seconds;
  if (full.high !== undefined && end(full.high) <= stretch.to) return `ends within your hours, before ${clock}`;
  if (end(full.low) > stretch.to) return `will not be full by ${clock}, when your hours end`;
  // Of a device that was never charged before only the earliest is known: that says nothing of whether it will be late.
  return full.high === undefined ? undefined : `may not be full by ${clock}, when your hours end`;
}
