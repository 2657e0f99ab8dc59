import { parseClock } from '../quantity/duration';

/**
 * Whether a moment of the day falls into quiet hours, which may run over midnight.
 *
 * @param from `22:00`; quiet from here
 * @param to   `07:00`; up to here. Equal or unreadable: there are none.
 * @param now  minutes from midnight
 */
export function isQuiet(from: string, to: string, now: number): boolean {
  // A clock time reads as minutes and seconds: hours and minutes here.
  const [begins, ends] = [parseClock(from), parseClock(to)];
  if (begins === undefined || ends === undefined || begins === ends) return false;
  return begins < ends ? now >= begins && now < ends : now >= begins || now < ends;
}
