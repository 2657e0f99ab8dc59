import { bisectRight } from 'd3-array';
import { nominal } from '../quantity/duration';
import { listed } from '../quantity/listed';
import type { Cadence } from './cadenceSchema';

/**
 * A nominal time and what came of it, or a stretch of them that were missed one after another. `seen` is the time of the reading that answers
 * it, in seconds from plug-in.
 */
export interface Check {
  due: number;
  seen?: number;
  state: 'on time' | 'late' | 'missed' | 'waiting';
  /** How many checks it stands for: more than one only of a stretch that was missed. */
  count: number;
  /** The nominal time of the last of them. */
  last: number;
  /** The stretch of the run that it stands for, half-way to its neighbours. */
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

/** Nominal times, ascending, each found by its place and none by going through those before it: a run left alone for a year costs no more than one of an hour. */
interface Times {
  /** How many there are; `Infinity` where they never end. */
  count: number;
  /** The time at a place, from 0, in seconds from plug-in. */
  at: (place: number) => number;
  /** The place of the first time later than a moment. */
  after: (moment: number) => number;
}

const NONE: Times = { count: 0, at: () => Infinity, after: () => 0 };

const listedTimes = (all: readonly number[]): Times => ({
  count: all.length,
  at: (place) => all[place] ?? Infinity,
  after: (moment) => bisectRight(all, moment),
});

/** The multiples of an interval that are later than a moment. */
function multiples(every: number, later: number): Times {
  const skipped = Math.floor(later / every);
  return {
    count: Infinity,
    at: (place) => (skipped + 1 + place) * every,
    after: (moment) => Math.max(0, Math.floor(moment / every) - skipped),
  };
}

/** Times that others follow. */
function followed(first: Times, next: Times): Times {
  return {
    count: first.count + next.count,
    at: (place) => (place < first.count ? first.at(place) : next.at(place - first.count)),
    after: (moment) => {
      const place = first.after(moment);
      return place < first.count ? place : first.count + next.after(moment);
    },
  };
}

function timesOf(cadence: Cadence, finerFrom?: number): Times {
  switch (cadence.kind) {
    case 'fixed':
      return multiples(cadence.every, 0);
    case 'coarse then fine': {
      const coarse = multiples(cadence.every, 0);
      if (finerFrom === undefined) return coarse;
      return followed({ ...coarse, count: coarse.after(finerFrom) }, multiples(cadence.then, finerFrom));
    }
    case 'marks': {
      const marks = listedTimes(cadence.at);
      return cadence.then === undefined ? marks : followed(marks, multiples(cadence.then, cadence.at.at(-1) ?? 0));
    }
    case 'spot':
      return listedTimes([cadence.settle]);
    case 'sampled':
      return NONE;
  }
}

/**
 * The nominal times of a cadence from plug-in on, ascending; endless where the cadence is.
 *
 * @param finerFrom when the level that makes a cadence fine was first shown, in seconds from plug-in; `undefined` while it was not
 */
export function* dueTimes(cadence: Cadence, finerFrom?: number): Generator<number> {
  const times = timesOf(cadence, finerFrom);
  for (let place = 0; place < times.count; place += 1) yield times.at(place);
}

function dueAt(times: Times, place: number): Due {
  const at = times.at(place);
  const before = at - (place > 0 ? times.at(place - 1) : 0);
  return { at, before, after: place + 1 < times.count ? times.at(place + 1) - at : before };
}

/** How far apart the checks around a moment lie, in seconds: the last of them for ever after. `Infinity` where there is none. */
export function intervalAt(cadence: Cadence, moment: number, finerFrom?: number): number {
  const times = timesOf(cadence, finerFrom);
  if (times.count === 0) return Infinity;
  // Of a moment at a check, the interval that ends there.
  const { before } = dueAt(times, Math.min(times.count - 1, Math.max(0, times.after(moment - 1e-6))));
  return before;
}

/** As `intervalAt`; `undefined` after the last check, and what a meter writes down where nobody checks. */
export function widthAt(cadence: Cadence, moment: number, finerFrom?: number): number | undefined {
  if (cadence.kind === 'sampled') return cadence.every;
  const times = timesOf(cadence, finerFrom);
  return times.after(moment - 1e-6) < times.count ? intervalAt(cadence, moment, finerFrom) : undefined;
}

/**
 * What became of the checks of a run up to now. Those that were missed one after another are one: it takes as long as there are readings, not as
 * long as the run.
 *
 * @param seen times at which readings were seen, in seconds from plug-in, ascending
 * @param now  seconds from plug-in; the time of stopping for a finished run
 * @param finerFrom when the level that makes the cadence fine was first shown
 */
export function checks(cadence: Cadence, seen: readonly number[], now: number, finerFrom?: number): Check[] {
  const times = timesOf(cadence, finerFrom);
  const end = Math.min(times.count, times.after(now));
  const all: Check[] = [];
  let next = 0;
  for (let place = 0; place < end; place += 1) {
    const due = dueAt(times, place);
    while (next < seen.length && (seen[next] ?? 0) < due.at - headStart(due)) next += 1;
    const at = seen[next];
    if (at !== undefined && at < due.at + patience(due)) {
      all.push({ ...alone(due), seen: at, state: at > due.at + lateAfter(due) ? 'late' : 'on time' });
      continue;
    }
    // Up to the next reading all are missed, but for the one before it, which it may still answer.
    const lastMissed = Math.min(end, at === undefined ? end : times.after(at)) - 2;
    if (lastMissed > place) {
      miss(all, due, dueAt(times, lastMissed), lastMissed - place + 1);
      place = lastMissed;
    } else if (now >= due.at + patience(due)) miss(all, due, due, 1);
    else all.push({ ...alone(due), state: 'waiting' });
  }
  return all;
}

const alone = ({ at, before, after }: Due) => ({ due: at, last: at, count: 1, from: at - before / 2, to: at + after / 2 });

/** Adds checks that were missed, to those just before where these were missed too. */
function miss(all: Check[], first: Due, last: Due, count: number): void {
  const before = all.at(-1);
  if (before?.state === 'missed') Object.assign(before, { count: before.count + count, last: last.at, to: alone(last).to });
  else all.push({ ...alone(first), state: 'missed', count, last: last.at, to: alone(last).to });
}

/**
 * The check a person should take next: the first that is neither answered nor missed. In the past when overdue.
 *
 * @example nextDue({ kind: 'fixed', every: 300 }, 310, 400) // 600: what was read at 310 s answered the check at 300 s
 * @param lastSeen time of the newest reading, in seconds from plug-in; `undefined` before the first
 * @param now      seconds from plug-in
 * @returns its nominal time, in seconds from plug-in; `undefined` when no more are wanted
 */
export function nextDue(cadence: Cadence, lastSeen: number | undefined, now: number, finerFrom?: number): number | undefined {
  const times = timesOf(cadence, finerFrom);
  // Before the last that has come, all are missed; before the last reading, all are answered.
  const least = Math.max(times.after(now), times.after(lastSeen ?? 0)) - 1;
  for (let place = Math.max(0, least); place < times.count; place += 1) {
    const due = dueAt(times, place);
    const isAnswered = lastSeen !== undefined && lastSeen >= due.at - headStart(due);
    if (!isAnswered && now < due.at + patience(due)) return due.at;
  }
  return undefined;
}

/** The last moment up to now at which a check could turn out missed, in seconds from plug-in; 0 before the first. */
export function lastVerdict(cadence: Cadence, now: number, finerFrom?: number): number {
  const times = timesOf(cadence, finerFrom);
  for (let place = Math.min(times.count, times.after(now)) - 1; place >= 0; place -= 1) {
    const due = dueAt(times, place);
    if (due.at + patience(due) <= now) return due.at + patience(due);
  }
  return 0;
}

/** Moments in words, a unit that several share said once: `10, 20 and 30 min`, `30, 45 min and 1 h`. */
function momentsListed(seconds: readonly number[]): string {
  const all = seconds.map(nominal);
  const unitOf = (text: string | undefined) => /^\S+( \S+)$/.exec(text ?? '')?.[1];
  return listed(
    all.map((each, index) => {
      const unit = unitOf(each);
      return unit !== undefined && unit === unitOf(all[index + 1]) ? each.slice(0, -unit.length) : each;
    }),
  );
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
      return cadence.of === undefined ? `at ${momentsListed(cadence.at)}${then}` : `at the times of an earlier run${then}`;
    }
    case 'sampled':
      return 'sampled by a meter';
    case 'spot':
      return `once, after ${nominal(cadence.settle)}`;
  }
}

/** The marks of a method that reads at marks, in seconds from plug-in. */
export const marksOf = (cadence: Cadence | undefined): readonly number[] =>
  cadence?.kind === 'marks' && cadence.of === undefined ? cadence.at : [];
