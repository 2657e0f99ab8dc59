import type { Jotted } from '@core/ink';
import { feedOf, negotiate } from '@core/power';
import { displayed, parametersOf, simulate, vary, type Course } from '@core/simulate';
import { saltmarshHeader, type Take } from './saltmarsh';

/** The runs of the demo as the simulator charges them, and as a person reads them. */

/** Seconds from one row of the simulated charge to the next. */
export const STEP = 5;

/** The charge as it goes, with a specimen of everything of its own; the same at every call. */
export function courseOf(take: Take, seconds: number): Course {
  const header = saltmarshHeader(take);
  const fed = header.feed && feedOf(header.charger, header.feed);
  const parameters = parametersOf(negotiate({ ...header, fed }), take.circumstances);
  if (!parameters) throw new Error(`Nothing flows in ${take.id}.`);
  const specimen = vary(parameters, Number(take.id.replace(/\D/g, '').slice(0, 2)) * 7919);
  return simulate(specimen, ((take.from + 0.5) / 100) * 0.99, seconds, STEP, 3000);
}

export const roundedTo = (value: number) => Math.round(value * 10) / 10;

function jot({ share, watts, celsius, rows }: Course, seconds: number, noise: () => number, withWatts: boolean): Jotted {
  const row = Math.min(rows - 1, Math.round(seconds / STEP));
  return {
    seconds,
    percent: displayed(share[row] ?? 0),
    ...(withWatts && seconds > 0 && { watts: roundedTo(Math.max(0, (watts[row] ?? 0) + (noise() - 0.5) * 0.3)) }),
    ...(seconds > 0 && { celsius: roundedTo((celsius[row] ?? 0) + (noise() - 0.5) * 0.4) }),
  };
}

/** Readings as a person takes them: at each check, a little early or late, until the display shows 100 or it is given up. */
export function readings(take: Take, course: Course, noise: () => number, until: number): Jotted[] {
  const taken = [jot(course, 0, noise, false)];
  for (let check = 1; check * take.every * 60 <= until; check += 1) {
    const early = Math.round(-8 + noise() * 26);
    if (take.missed?.includes(check)) continue;
    const seconds = check * take.every * 60 + (take.late?.[check] ?? early);
    if (seconds > until) break;
    const reading = jot(course, seconds, noise, !take.noWatts);
    taken.push(reading);
    if (reading.percent === 100) break;
  }
  return taken;
}
