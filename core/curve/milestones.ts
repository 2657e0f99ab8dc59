import { sum } from 'd3-array';
import { LIGHT_OUT } from '../ink/events';
import type { RunRecord } from '../ink/fold';
import { sighting, type Track } from '../ink/track';
import { standardUncertainty, type Bounds } from '../margin/bounds';
import { spell } from '../quantity/duration';
import { HELD_FROM, highestValue, holds } from './faults';
import { firstAfter } from '../samples/column';
import { coarsened, milestone, milestoneTime, WATCHED, type Milestone } from './milestone';
import { paceOf, type Levels } from './pace';
import { plain, type Working } from './working';
import { displayStep } from './displayStep';
import type { Span } from './energy';

/** The levels of a run, with what is known of them beside what was read. */
export interface RunLevels extends Levels {
  percent: Track;
  held: readonly Span[];
}

export function displayedLevels(run: RunRecord): RunLevels {
  const held = holds(run);
  const { percent } = run.tracks;
  return { percent, turning: run.turning, pace: paceOf(run, held), held, step: displayStep(percent), clock: clockOf(run) };
}

/** What a second of its clip is of a run that was filmed, in seconds: its times are known no better; 0 for any other run. */
export const clockOf = ({ header: { footage } }: Pick<RunRecord, 'header'>): number => footage?.speed ?? 0;

/** When a run’s display first showed a level; void when an adaptive setting held the charge before, for then it tells of the setting. */
export function milestoneOf({ percent, held, ...levels }: RunLevels, level: number): Milestone {
  const found = milestone(percent, level, levels);
  if (found.state !== 'reached' || level < HELD_FROM) return found;
  const hold = held.find(({ from }) => from < found.bounds.high);
  if (!hold) return found;
  const at = milestoneTime(found) ?? found.estimate;
  // As if each hold had taken no time at all.
  const unheld = at - sum(held, ({ from, to }) => Math.max(0, Math.min(to, at) - from));
  const why = `held by an adaptive setting from ${spell(hold.from)} to ${spell(hold.to)}`;
  return { state: 'void', level, why, unheld, working: found.working };
}

/** Something that came to pass once, told from outside the display: bounded like a level. */
export interface Passage {
  /** `boot`: the first level after a dead start. `light out`: the charge light. `power gone`: below 3 % of the peak, or 0.5 W, for 5 min. */
  what: 'boot' | 'light out' | 'power gone';
  bounds: Bounds;
  uncertainty: number;
  working: Working;
  /** Nobody saw it before it came to pass: only its latest is known, and it is ranked by nothing. */
  hasNoEarliest?: true;
}

function passage(run: Pick<RunRecord, 'header'>, what: Passage['what'], checked: Bounds, working: Working): Passage {
  const bounds = coarsened(checked, clockOf(run));
  return { what, bounds, uncertainty: standardUncertainty(bounds) ?? 0, working };
}

/** When a device that was dead at plug-in first showed a level, or was seen to boot. `undefined` where it was not dead, or nothing came. */
export function bootOf(run: RunRecord): Passage | undefined {
  if (!run.isDead) return undefined;
  const first = sighting(run.tracks.percent, 0);
  const booted = run.events.find(({ event }) => event === 'booted');
  const dead = run.events.filter(({ event }) => event === 'dead').map(({ seconds }) => Math.max(0, seconds));
  const until = Math.min(first?.seconds ?? Infinity, booted?.seconds ?? Infinity);
  if (!Number.isFinite(until)) return undefined;
  // A person who noted the boot was watching it.
  const isSeen = booted?.seconds === until;
  const low = isSeen ? until : Math.max(0, ...dead.filter((seconds) => seconds <= until));
  const formula = isSeen ? `seen booting at ${spell(until, 1)}` : `last seen dead at ${spell(low, 1)}, first level at ${spell(until, 1)}`;
  return passage(run, 'boot', { low, high: until }, { formula, unit: '%', uses: first ? [first] : [] });
}

/** A light that took this much lit it, in A: what is left once a battery is full is less (common practice, no source). */
const LIT_AMPS = 0.1;

/**
 * When the charge light went out for good: between the last time it was seen lit, or took 0.1 A and more, and the first time it was seen out; at most 5 s
 * before somebody saw it go out. Where nobody saw it lit there is no earliest.
 */
export function lightOut(run: RunRecord): Passage | undefined {
  const {
    events,
    tracks: { amps },
  } = run;
  const lights = events.filter(({ event }) => event === 'light on' || LIGHT_OUT.includes(event));
  const lastLit = lights.findLastIndex(({ event }) => event === 'light on');
  const out = lights[lastLit + 1];
  if (!out) return undefined;
  let taking = firstAfter(amps, out.seconds - 1e-6) - 1;
  while (taking >= 0 && (amps.values[taking] ?? 0) < LIT_AMPS) taking -= 1;
  const seen = [lights[lastLit]?.seconds, amps.seconds[taking]].filter((each) => each !== undefined);
  const isWatched = out.event === 'light went out';
  const lit = Math.max(0, ...seen, ...(isWatched ? [out.seconds - WATCHED] : []));
  const hasNoEarliest = seen.length === 0 && !isWatched;
  const formula = isWatched
    ? `seen going out at ${spell(out.seconds, 1)}`
    : hasNoEarliest
      ? `out at ${spell(out.seconds, 1)}, and never seen lit`
      : `lit at ${spell(lit, 1)}, out at ${spell(out.seconds, 1)}`;
  const found = passage(run, 'light out', { low: Math.min(lit, out.seconds), high: out.seconds }, { formula, unit: '', uses: [] });
  return hasNoEarliest ? { ...found, hasNoEarliest } : found;
}

/** Power that is gone: below this share of the peak or so many watts, for so many seconds (docs/numbers.md, *True full*). */
export const POWER_GONE = { share: 0.03, watts: 0.5, lasting: 300 };

/** Below this, in W, power counts as gone. */
export const goneBelow = (watts: Track): number => Math.max(POWER_GONE.watts, POWER_GONE.share * highestValue(watts));

/** When power was gone: the first time after which it stays below 3 % of its peak, or 0.5 W, for five minutes as read. */
export function powerGone(run: RunRecord): Passage | undefined {
  const { watts } = run.tracks;
  const { seconds, values } = watts;
  const floor = goneBelow(watts);
  let since: number | undefined;
  let before: number | undefined;
  for (let row = 0; row < values.length; row += 1) {
    if ((values[row] ?? 0) >= floor) {
      since = undefined;
      before = row;
    } else if (before !== undefined) since ??= row;
    if (since !== undefined && (seconds[row] ?? 0) - (seconds[since] ?? 0) >= POWER_GONE.lasting) break;
    if (row === values.length - 1) since = undefined;
  }
  const [last, first] = [sighting(watts, before ?? -1), sighting(watts, since ?? -1)];
  if (!last || !first) return undefined;
  const formula = `${plain(last.value)} W at ${spell(last.seconds, 1)}, and below ${plain(floor)} W from ${spell(first.seconds, 1)} on`;
  return passage(run, 'power gone', { low: last.seconds, high: first.seconds }, { formula, unit: 'W', uses: [last, first] });
}
