import { nominal } from '../quantity/duration';
import { listed } from '../quantity/listed';
import type { Cadence } from './cadenceSchema';

/** A nominal time and what came of it. `seen` is the time of the reading that answers it, in seconds from plug-in. */
export interface Check {
  due: number;
  seen?: number;
  state: 'on time' | 'late' | 'missed' | 'waiting';
  /** The stretch of the run that this check stands for, half-way to its neighbours. */
  from: number;
  to: number;
}

/** A nominal time, and how far its neighbours lie. */
interface Due {
  at: number;
  /** Seconds since the one before, or since plug-in. */
  before: number;
  /** Seconds until the next; as long as before where there is none. */
  after: number;
}

/** How long before its time a reading still answers a check: a quarter of the interval, a minute at most. */
const headStart = ({ before }: Due) => Math.min(before / 4, 60);
/** How long after its time a check can be answered before it counts as missed: half the interval. */
const patience = ({ after }: Due) => after / 2;
/** How long after its time a reading counts as late: a tenth of the interval, 15 s at least. */
const lateAfter = ({ before }: Due) => Math.max(before / 10, 15);

function* multiples(every: number, after: number): Generator<number> {
  for (let count = Math.floor(after / every) + 1; ; count += 1) yield count * every;
}

/**
 * The nominal times of a cadence from plug-in on, ascending; endless where the cadence is.
 *
 * @param fineFrom when the level that makes a cadence fine was first shown, in seconds from plug-in; `undefined` while it was not
 */
export function* dueTimes(cadence: Cadence, fineFrom?: number): Generator<number> {
  switch (cadence.kind) {
    case 'fixed':
      yield* multiples(cadence.every, 0);
      break;
    case 'coarse then fine':
      for (const due of multiples(cadence.every, 0)) {
        if (fineFrom !== undefined && due > fineFrom) break;
        yield due;
      }
      yield* multiples(cadence.then, fineFrom ?? 0);
      break;
    case 'marks':
      yield* cadence.at;
      if (cadence.then !== undefined) yield* multiples(cadence.then, cadence.at.at(-1) ?? 0);
      break;
    case 'spot':
      yield cadence.settle;
      break;
    case 'sampled':
      break;
  }
}

/** Nominal times with their neighbours, each known before the next is asked for. */
function* dues(cadence: Cadence, fineFrom?: number): Generator<Due> {
  let [before, at]: [number, number | undefined] = [0, undefined];
  for (const next of dueTimes(cadence, fineFrom)) {
    if (at !== undefined) yield { at, before: at - before, after: next - at };
    if (at !== undefined) before = at;
    at = next;
  }
  if (at !== undefined) yield { at, before: at - before, after: at - before };
}

/**
 * What became of every check of a run up to now.
 *
 * @param seen times at which readings were seen, in seconds from plug-in, ascending
 * @param now  seconds from plug-in; the time of stopping for a finished run
 * @param fineFrom when the level that makes the cadence fine was first shown
 */
export function checks(cadence: Cadence, seen: readonly number[], now: number, fineFrom?: number): Check[] {
  const all: Check[] = [];
  let next = 0;
  for (const due of dues(cadence, fineFrom)) {
    if (due.at > now) break;
    const span = { from: due.at - due.before / 2, to: due.at + due.after / 2 };
    while (next < seen.length && (seen[next] ?? 0) < due.at - headStart(due)) next += 1;
    const at = seen[next];
    if (at !== undefined && at < due.at + patience(due)) {
      all.push({ due: due.at, seen: at, state: at > due.at + lateAfter(due) ? 'late' : 'on time', ...span });
    } else {
      all.push({ due: due.at, state: now >= due.at + patience(due) ? 'missed' : 'waiting', ...span });
    }
  }
  return all;
}

/**
 * The check a person should take next: the first that is neither answered nor missed. In the past when overdue.
 *
 * @param lastSeen time of the newest reading, in seconds from plug-in; `undefined` before the first
 * @param now      seconds from plug-in
 * @returns its nominal time, in seconds from plug-in; `undefined` when no more are wanted
 */
export function nextDue(cadence: Cadence, lastSeen: number | undefined, now: number, fineFrom?: number): number | undefined {
  for (const due of dues(cadence, fineFrom)) {
    const isAnswered = lastSeen !== undefined && lastSeen >= due.at - headStart(due);
    if (!isAnswered && now < due.at + patience(due)) return due.at;
  }
  return undefined;
}

/** The last moment up to now at which a check could turn out missed, in seconds from plug-in; 0 before the first. */
export function lastVerdict(cadence: Cadence, now: number, fineFrom?: number): number {
  let last = 0;
  for (const due of dues(cadence, fineFrom)) {
    const verdict = due.at + patience(due);
    if (verdict > now) break;
    last = verdict;
  }
  return last;
}

/** A cadence in words: `every 5 min`, `at 5, 10 and 15 min`, `every 10 min, from 90 % on every 5 min`. */
export function cadenceInWords(cadence: Cadence): string {
  switch (cadence.kind) {
    case 'fixed':
      return `every ${nominal(cadence.every)}`;
    case 'coarse then fine':
      return `every ${nominal(cadence.every)}, from ${cadence.level} % on every ${nominal(cadence.then)}`;
    case 'marks': {
      const then = cadence.then === undefined ? '' : `, then every ${nominal(cadence.then)}`;
      return cadence.of === undefined ? `at ${listed(cadence.at.map(nominal))}${then}` : `at the times of an earlier run${then}`;
    }
    case 'sampled':
      return 'sampled by a meter';
    case 'spot':
      return `once, after ${nominal(cadence.settle)}`;
  }
}
