import { LIGHT_OUT } from '../ink/events';
import type { RunRecord } from '../ink/fold';
import type { Span } from '../samples/gaps';
import { cycling, powerChanges } from './faults';

/** Power, or a light, that goes on and off again and again. */
export interface Cycle extends Span {
  /** From one time it comes on to the next, in seconds. */
  period: number;
  /** Share of it in which it is on, 0 to 1. */
  duty: number;
  /** What it was told by. */
  by: 'power' | 'light';
}

/** Times of coming on (true) and going off (false), in order. */
function cycleOf(changes: readonly { seconds: number; isOn: boolean }[], by: Cycle['by']): Cycle | undefined {
  const on = changes.filter(({ isOn }) => isOn);
  const [first, last] = [on[0], on.at(-1)];
  if (!first || !last || on.length < 2) return undefined;
  let lit = 0;
  for (const [index, { seconds, isOn }] of changes.entries()) {
    const next = changes[index + 1];
    if (isOn && next && next.seconds <= last.seconds) lit += next.seconds - seconds;
  }
  const whole = last.seconds - first.seconds;
  return whole > 0 ? { from: first.seconds, to: last.seconds, period: whole / (on.length - 1), duty: lit / whole, by } : undefined;
}

/** On–off cycling with its period and duty, by the power that was read or by a light that was seen to go on and off. */
export function cyclesOf(run: RunRecord): Cycle[] {
  const changes = powerChanges(run);
  const byPower = cycling(run).flatMap(
    ({ from, to }) =>
      cycleOf(
        changes.filter(({ seconds }) => seconds >= from && seconds <= to),
        'power',
      ) ?? [],
  );
  const lights = run.events.flatMap(({ event, seconds }) =>
    event === 'light on' || LIGHT_OUT.includes(event) ? [{ seconds, isOn: event === 'light on' }] : [],
  );
  const byLight = lights.length >= 4 ? cycleOf(lights, 'light') : undefined;
  return byLight ? [...byPower, byLight] : byPower;
}
