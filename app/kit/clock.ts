import type { WallTime } from '@core/quantity';
import { getCurrentScope, onScopeDispose, readonly, ref } from 'vue';
import { reportErrors } from './failures';
import { dateManner } from './manner';

const time = ref(Date.now());
/** By how much the wall clock is set aside, in milliseconds, until a person has said whether it was changed. */
const clockJumpHeld = ref(0);
let ticking = false;
const listeners = new Set<() => void>();

/** What the wall clock shows, epoch milliseconds, less a jump that nobody has explained yet. */
export const wallNow = (): WallTime => Date.now() - clockJumpHeld.value;

const twoDigits = (value: number) => String(value).padStart(2, '0');

/**
 * A moment by the clock on the wall: `14:05`, or with its day. Hours and minutes are written here: the first that is asked of the browser’s own
 * formats takes as long as a tenth of a start.
 */
export function wallTime(at: number, withDay = false): string {
  const moment = new Date(at);
  const hours = moment.getHours();
  const minutes = twoDigits(moment.getMinutes());
  const time = dateManner.twelve ? `${hours % 12 || 12}:${minutes} ${hours < 12 ? 'am' : 'pm'}` : `${twoDigits(hours)}:${minutes}`;
  if (!withDay) return time;
  const [day, month] = [moment.getDate(), moment.toLocaleString('en-GB', { month: 'short' })];
  const days = { day: `${day} ${month}`, month: `${month} ${day}`, year: `${twoDigits(moment.getMonth() + 1)}-${twoDigits(day)}` };
  return `${days[dateManner.order]}, ${time}`;
}

/** Sets a jump of the wall clock aside; 0 takes it as it is. */
export function setClockJump(jump: number): void {
  clockJumpHeld.value = jump;
  time.value = wallNow();
}

/**
 * Does something at every tick, as long as the scope lives in which it began to. The browser's own timers slip while the page is hidden; these do not.
 *
 * @returns ends it
 */
export function onTick(listen: () => void): () => void {
  listeners.add(listen);
  const stop = () => {
    listeners.delete(listen);
  };
  if (getCurrentScope()) onScopeDispose(stop);
  if (!ticking) startTicking();
  return stop;
}

function startTicking(): void {
  ticking = true;
  const worker = reportErrors(new Worker(new URL('./ticks.ts', import.meta.url), { type: 'module' }));
  worker.onmessage = () => {
    for (const each of listeners) each();
  };
}

/** The wall clock in epoch milliseconds, told twice a second for as long as the scope lives that asks for it. */
export function useNow() {
  onTick(() => {
    time.value = wallNow();
  });
  return readonly(time);
}
