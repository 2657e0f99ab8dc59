import type { RunRecord } from '../ink/fold';
import type { EventId } from '../ink/events';
import { sightings, type Sighting } from '../ink/track';
import type { Span } from './energy';

/** How fast a display has been seen to rise. In % a second. */
export interface Pace {
  /** The highest between two neighbouring checks. */
  highest: number;
  /** No faster than this did it rise between any two checks: what draws bounds in. `undefined` while too few checks have gained. */
  drawsIn?: number | undefined;
  /** No faster than this will it go on: what draws the least time of a level on that was not seen. */
  drawsOn?: number | undefined;
  /** Spans in which something else than charging decided: nothing is drawn in across one. */
  broken: readonly Span[];
}

/** How many checks have to have gained, and by how many % altogether, before the pace is trusted (docs/numbers.md, *Milestone*). */
const TRUSTED = { intervals: 4, gain: 25 };
/** By how much a display may be faster between two checks than it was ever seen to be; and after the last of them. */
export const ROOM = { within: 1.25, after: 2 };

/** Two levels within a second say nothing of a pace, in s. */
const LEAST_STEP = 1;

/** What changes how fast it charges, so that the pace before says nothing of the pace after. */
const CHANGES: ReadonlySet<EventId> = new Set(['booted', 'unplugged', 'replugged', 'switched off', 'switched on', 'swapped', 'moved']);

/** The pace of a run, from its ordinary checks: a reading that was seen turning is not spaced as they are. */
export function paceOf({ tracks: { percent }, events, unplugged, turning }: RunRecord, held: readonly Span[]): Pace {
  const broken = [
    ...events.filter(({ event }) => CHANGES.has(event)).map(({ seconds }) => ({ from: seconds, to: seconds })),
    ...unplugged,
    ...held,
  ];
  const checks = turning.size > 0 ? sightings(percent).filter(({ entry }) => entry === undefined || !turning.has(entry)) : undefined;
  const rows = checks?.length ?? percent.seconds.length;
  const [seconds, values] = checks
    ? [checks.map((each) => each.seconds), checks.map((each) => each.value)]
    : [percent.seconds, percent.values];
  let [highest, gained] = [0, 0];
  for (let row = 1; row < rows; row += 1) {
    const from = seconds[row - 1] ?? 0;
    const to = seconds[row] ?? 0;
    const gain = (values[row] ?? 0) - (values[row - 1] ?? 0);
    if (gain <= 0 || to <= from || (broken.length > 0 && crosses({ from, to }, broken))) continue;
    gained += 1;
    highest = Math.max(highest, gain / Math.max(LEAST_STEP, to - from));
  }
  const whole = (percent.values[percent.values.length - 1] ?? 0) - (percent.values[0] ?? 0);
  const isTrusted = gained >= TRUSTED.intervals;
  return {
    highest,
    broken,
    ...(isTrusted && { drawsIn: ROOM.within * highest }),
    ...(isTrusted && whole >= TRUSTED.gain && { drawsOn: ROOM.after * highest }),
  };
}

/** Whether one of the spans meets the time between two readings. */
export const crosses = ({ from, to }: Span, broken: readonly Span[]): boolean => broken.some((each) => each.from <= to && each.to >= from);

/** Levels of a run with what else is known of them. */
export interface Levels {
  /** Ids of readings that were seen turning: the display had changed just then. */
  turning: ReadonlySet<string>;
  pace: Pace;
  /** By what steps the display moves, in %, where that is not one. */
  step?: number | undefined;
  /** By how much a time is off at most, in seconds, where it was read off the seconds of a clip that plays faster. */
  clock?: number | undefined;
}

/** Levels of which nothing is known but what was read. */
export const AS_READ: Levels = { turning: new Set(), pace: { highest: 0, broken: [] } };

export const isTurning = ({ turning }: Levels, { entry }: Sighting): boolean => entry !== undefined && turning.has(entry);
