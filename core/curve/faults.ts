import type { RunRecord } from '../ink/fold';
import { sighting, type Track } from '../ink/track';
import { firstAfter } from '../samples/column';
import type { Span } from './energy';

/** Levels between which an adaptive setting holds a charge, and for how long at least, in seconds (numbers.md, *Adaptive hold*). */
/** Levels from which a hold decides when they come, in %. */
export const HELD_FROM = 75;
const HELD = { from: HELD_FROM, to: 90, within: 1, min: 1200 };
/** Power near idle: below this in W, or this share of the run’s highest. */
const IDLE = { watts: 1.5, share: 0.1 };
/** Power that is gone, and power that was there, in W. */
const LOST_POWER = { below: 0.3, above: 2 };
/** Below this level power has no reason to be gone, in %. */
const NEARLY_FULL = 95;
/** Changes between on and off within `span` seconds that make a cycling. */
const CYCLES = { changes: 4, span: 3600 };

/** The highest value of a track; zero where none is above. */
export function highestValue({ values }: Track): number {
  let top = 0;
  for (let index = 0; index < values.length; index += 1) top = Math.max(top, values[index] ?? 0);
  return top;
}

/**
 * Spans in which an adaptive setting held the charge: at least 20 min of power near idle within a span whose level stays within 1 % between 75 and
 * 90; power read before and after, while the level is still the same, voids nothing. Where watts were not read, only what a person noted counts:
 * from there until the level rises.
 */
export function holds(run: RunRecord): readonly Span[] {
  const found = knownHolds.get(run) ?? holdsOf(run);
  knownHolds.set(run, found);
  return found;
}

/** Of runs that were looked through. */
const knownHolds = new WeakMap<RunRecord, readonly Span[]>();

function holdsOf({ tracks: { percent, watts }, events, end }: RunRecord): Span[] {
  const idle = Math.max(IDLE.watts, IDLE.share * highestValue(watts));
  const isIdleFor = ({ from, to }: Span) => {
    let since: number | undefined;
    for (let index = firstAfter(watts, from - 1e-6); (watts.seconds[index] ?? Infinity) <= to; index += 1) {
      const at = watts.seconds[index] ?? 0;
      // It can have begun at the powered reading before.
      const before = Math.max(from, watts.seconds[index - 1] ?? from);
      since = (watts.values[index] ?? 0) > idle ? undefined : (since ?? before);
      if (since !== undefined && at - since >= HELD.min) return true;
    }
    return false;
  };
  const spans = stoodAt(percent).filter(isIdleFor);
  const noted = events
    .filter(({ event }) => event === 'hold')
    .map(({ seconds }) => ({ from: seconds, to: riseAfter(percent, seconds) ?? end }));
  return [...spans, ...noted.filter(({ from }) => !spans.some((span) => span.from <= from && from <= span.to))].sort(
    (one, other) => one.from - other.from,
  );
}

/** Spans in which a level that a setting may hold stood for long enough, give or take one. */
function stoodAt({ seconds, values }: Track): Span[] {
  const spans: Span[] = [];
  for (let start = 0; start < values.length;) {
    const level = values[start] ?? 0;
    let next = start + 1;
    if (level >= HELD.from && level <= HELD.to) {
      while (next < values.length && Math.abs((values[next] ?? 0) - level) <= HELD.within) next += 1;
      const span = { from: seconds[start] ?? 0, to: seconds[next - 1] ?? 0 };
      if (span.to - span.from >= HELD.min) spans.push(span);
      // From the next row of the same level it would be as far, and shorter.
      else for (next = start + 1; values[next] === level;) next += 1;
    }
    start = next;
  }
  return spans;
}

/** When the level rose by more than one after a moment. */
function riseAfter(percent: Track, moment: number): number | undefined {
  const after = firstAfter(percent, moment);
  const level = percent.values[after - 1] ?? 0;
  for (let index = after; index < percent.seconds.length; index += 1)
    if ((percent.values[index] ?? 0) > level + HELD.within) return percent.seconds[index];
  return undefined;
}

/** Moments at which power was suddenly gone: watts that were there, and at the next reading are not, before it was nearly full and while it was plugged in. */
export function losses({ tracks: { watts, percent }, unplugged }: RunRecord): Span[] {
  const spans: Span[] = [];
  for (let index = 1; index < watts.seconds.length; index += 1) {
    const from = watts.seconds[index - 1] ?? 0;
    const to = watts.seconds[index] ?? 0;
    if ((watts.values[index] ?? 0) > LOST_POWER.below || (watts.values[index - 1] ?? 0) < LOST_POWER.above) continue;
    const level = sighting(percent, firstAfter(percent, to) - 1)?.value ?? 0;
    const isAway = unplugged.some((span) => span.from <= to && to <= span.to);
    if (level < NEARLY_FULL && !isAway) spans.push({ from, to });
  }
  return spans;
}

/** When power came on, or went off, while it was read. */
export function powerChanges({ tracks: { watts } }: RunRecord): { seconds: number; isOn: boolean }[] {
  const changes: { seconds: number; isOn: boolean }[] = [];
  let isOn: boolean | undefined;
  for (let index = 0; index < watts.seconds.length; index += 1) {
    const value = watts.values[index] ?? 0;
    const now = value >= LOST_POWER.above ? true : value <= LOST_POWER.below ? false : isOn;
    if (isOn !== undefined && now !== undefined && now !== isOn) changes.push({ seconds: watts.seconds[index] ?? 0, isOn: now });
    isOn = now;
  }
  return changes;
}

/** Stretches in which power went on and off again and again: four changes within an hour. */
export function cycling(run: RunRecord): Span[] {
  const changes = powerChanges(run).map(({ seconds }) => seconds);
  const spans: Span[] = [];
  for (let last = CYCLES.changes - 1; last < changes.length; last += 1) {
    const [from, to] = [changes[last - CYCLES.changes + 1] ?? 0, changes[last] ?? 0];
    const before = spans.at(-1);
    if (to - from > CYCLES.span) continue;
    if (before && from <= before.to) before.to = to;
    else spans.push({ from, to });
  }
  return spans;
}
