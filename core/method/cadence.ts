import type { Cadence } from './cadenceSchema';

/** A nominal time and what came of it. `seen` is the time of the reading that answers it, in seconds from plug-in. */
export interface Check {
  due: number;
  seen?: number;
  state: 'on time' | 'late' | 'missed' | 'waiting';
}

/** How long before its time a reading still answers a check: a quarter of the interval, a minute at most. */
const headStart = ({ every }: Cadence) => Math.min(every / 4, 60);

/** How long after its time a check can be answered before it counts as missed: half the interval. */
const patience = ({ every }: Cadence) => every / 2;

/** How long after its time a reading counts as late: a tenth of the interval, 15 s at least. */
const lateAfter = ({ every }: Cadence) => Math.max(every / 10, 15);

const answers = (cadence: Cadence, due: number, seen: number) => seen >= due - headStart(cadence) && seen < due + patience(cadence);

/**
 * What became of every check of a run up to now.
 *
 * @param seen times at which readings were seen, in seconds from plug-in, ascending
 * @param now  seconds from plug-in; the time of stopping for a finished run
 */
export function checks(cadence: Cadence, seen: readonly number[], now: number): Check[] {
  const all: Check[] = [];
  let next = 0;
  for (let due = cadence.every; due <= now; due += cadence.every) {
    while (next < seen.length && (seen[next] ?? 0) < due - headStart(cadence)) next += 1;
    const at = seen[next];
    if (at !== undefined && answers(cadence, due, at)) {
      all.push({ due, seen: at, state: at > due + lateAfter(cadence) ? 'late' : 'on time' });
    } else {
      all.push({ due, state: now >= due + patience(cadence) ? 'missed' : 'waiting' });
    }
  }
  return all;
}

/**
 * The check a person should take next: the first that is neither answered nor missed. In the past when overdue.
 *
 * @param lastSeen time of the newest reading, in seconds from plug-in; `undefined` before the first
 * @param now      seconds from plug-in
 * @returns its nominal time, in seconds from plug-in
 */
export function nextDue(cadence: Cadence, lastSeen: number | undefined, now: number): number {
  const { every } = cadence;
  let due = Math.max(1, Math.floor((now - patience(cadence)) / every) + 1) * every;
  while (lastSeen !== undefined && lastSeen >= due - headStart(cadence)) due += every;
  return due;
}
