/**
 * A ticking clock: `m:ss` below an hour, `h:mm:ss` from there. The only place but the entry line where times carry colons.
 *
 * @param seconds elapsed or remaining, in seconds; the sign is dropped, the fraction cut off
 */
export function clock(seconds: number): string {
  const whole = Math.floor(Math.abs(seconds));
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor((whole % 3600) / 60);
  const rest = String(whole % 60).padStart(2, '0');
  return hours > 0 ? `${hours}:${String(minutes).padStart(2, '0')}:${rest}` : `${minutes}:${rest}`;
}

/**
 * A ticking clock towards a moment, and on past it: whole seconds still to go, then whole seconds since.
 *
 * @param wait seconds until the moment; below zero when it has passed
 */
export const countdown = (wait: number): string => clock(wait <= 0 ? -wait : wait + 0.999);

/** The moment of a reading is no surer than this, in seconds (common practice, no source): so little beyond a minute makes no minute more. */
const MOMENT = 2;

/** Bounds round outward: an earliest `down`, a latest `up`. */
type Towards = 'near' | 'down' | 'up';

/** A length of time as `spell` writes it, in seconds: whole minutes where it is known to a minute or coarser, else whole seconds. */
export function rounded(seconds: number, resolution = 60, towards: Towards = 'near'): number {
  const [step, slack] = resolution >= 60 ? [60, MOMENT / 60] : [1, 1e-9];
  const exact = Math.abs(seconds) / step;
  const isAway = towards === 'up' ? seconds >= 0 : seconds < 0;
  const whole = towards === 'near' ? Math.round(exact) : isAway ? Math.ceil(exact - slack) : Math.floor(exact + slack);
  return seconds < 0 ? -whole * step : whole * step;
}

/**
 * A length of time in words, no finer than it is known.
 *
 * @param seconds    the time, in seconds
 * @param resolution how finely it is known, in seconds: from a minute up, whole minutes are written; below, seconds too
 * @returns `27 min`, `1 h 52`, `54 min 54 s`, `40 s`
 * @example spell(3294, 300) // '55 min': known to five minutes, so no seconds are claimed
 */
export function spell(seconds: number, resolution = 60, towards: Towards = 'near'): string {
  const sign = seconds < 0 ? '−' : '';
  const whole = Math.abs(rounded(seconds, resolution, towards));
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60)];
  if (resolution >= 60) return hours > 0 ? `${sign}${hours} h ${String(minutes).padStart(2, '0')}` : `${sign}${minutes} min`;
  const parts = [hours > 0 && `${hours} h`, minutes > 0 && `${minutes} min`, whole % 60 > 0 && `${whole % 60} s`];
  return sign + (parts.filter(Boolean).join(' ') || '0 s');
}

/** A round time, as marks and rulers carry it: `15 min`, `1 h`, `1 h 30`. */
export function nominal(seconds: number): string {
  return spell(seconds).replace(/ h 00$/, ' h');
}

/**
 * Reads a time as it is written on clocks: `m:ss` or `h:mm:ss`, with an optional fraction of a second.
 *
 * @returns seconds; `undefined` when the text is not such a time
 */
export function parseClock(text: string): number | undefined {
  const match = /^(?:(\d{1,4}):)?(\d{1,3}):([0-5]\d(?:[.,]\d+)?)$/.exec(text.trim());
  if (!match) return undefined;
  const [, hours, minutes, seconds] = match;
  if (hours !== undefined && Number(minutes) > 59) return undefined;
  return Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds?.replace(',', '.'));
}
