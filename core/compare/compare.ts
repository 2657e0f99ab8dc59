import { batteryOf } from '../bench/battery';
import { LEVELS, GAIN_TIMES, milestoneTime } from '../curve/figures';
import { milestoneOf } from '../curve/faults';
import type { Milestone } from '../curve/milestone';
import { peak, type Peak } from '../curve/peak';
import { gainAt, type Gain } from '../curve/valueAt';
import type { RunRecord } from '../ink/fold';
import { sighting } from '../ink/track';
import { isTie, rank, type Bounds, type Rank } from '../margin/bounds';
import { speedUp, type SpeedUp } from './speedUp';

/** How a run stands to the baseline at one level. */
export type Standing =
  | { state: 'baseline' }
  | { state: 'no time'; level: number }
  /** The bounds overlap or touch, or lie closer than runs vary. */
  | { state: 'tie'; level: number }
  | ({ state: 'told apart' } & SpeedUp)
  /** Only one of the two got there: surely sooner, or surely later, by at least `atLeast` seconds. */
  | { state: 'only this one' | 'only the baseline'; level: number; atLeast: number };

export interface Ranked<Found> {
  found: Found;
  rank: Rank | undefined;
}

/** One run of a comparison. Arrays follow `LEVELS` and `GAIN_TIMES`. */
export interface Row {
  run: RunRecord;
  milestones: Ranked<Milestone>[];
  gains: Ranked<Gain>[];
  /** What each gain is of the battery, in Wh: the fair figure across unlike batteries. */
  gainedWattHours: (number | undefined)[];
  peak: Peak | undefined;
  /** The level at plug-in, if it was seen. */
  startLevel: number | undefined;
  standing: Standing;
}

/** Bounds of a milestone that can be ranked: a run that never got there is bounded below only. */
export function milestoneBounds(found: Milestone): Bounds | undefined {
  return found.state === 'reached' || found.state === 'not reached' ? found.bounds : undefined;
}

/** Value ± margin: what ties go by. */
function gainBounds(gain: Gain): Bounds | undefined {
  return gain.state === 'known' ? { low: gain.value - gain.margin, high: gain.value + gain.margin } : undefined;
}

/**
 * Lays runs beside each other.
 *
 * @param runs     records, in the order they are shown
 * @param baseline id of the run the others are set against
 * @param level    the level at which they are set against it, in %
 */
export function compareRuns(runs: readonly RunRecord[], baseline: string, level: number): Row[] {
  const milestones = LEVELS.map((each) =>
    ranked(
      runs.map((run) => milestoneOf(run, each)),
      milestoneBounds,
      'less',
    ),
  );
  const gains = GAIN_TIMES.map((seconds) =>
    ranked(
      runs.map((run) => gainAt(run.tracks.percent, seconds)),
      gainBounds,
      'more',
    ),
  );
  const zero = runs.find((run) => run.header.id === baseline);
  const goal = zero && milestoneOf(zero, level);
  return runs.map((run, index) => {
    const battery = batteryOf(run.header.device);
    const myGains = gains.flatMap((column) => column[index] ?? []);
    const start = sighting(run.tracks.percent, 0);
    return {
      run,
      milestones: milestones.flatMap((column) => column[index] ?? []),
      gains: myGains,
      gainedWattHours: myGains.map(({ found }) => {
        return found.state === 'known' && battery !== undefined ? (battery * found.value) / 100 : undefined;
      }),
      peak: peak(run.tracks.watts, run.sampled.has('watts')),
      startLevel: start?.seconds === 0 ? start.value : undefined,
      standing: run === zero || !goal ? { state: 'baseline' } : standing(milestoneOf(run, level), goal),
    };
  });
}

function ranked<Found>(all: Found[], boundsOf: (found: Found) => Bounds | undefined, better: 'less' | 'more'): Ranked<Found>[] {
  const ranks = rank(all.map(boundsOf), better);
  return all.map((found, index) => ({ found, rank: ranks[index] }));
}

function standing(mine: Milestone, theirs: Milestone): Standing {
  const { level } = mine;
  const [bounds, others] = [milestoneBounds(mine), milestoneBounds(theirs)];
  if (!bounds || !others) return { state: 'no time', level };
  const [time, baseline] = [milestoneTime(mine), milestoneTime(theirs)];
  if (time === undefined && baseline === undefined) return { state: 'no time', level };
  if (isTie(bounds, others)) return { state: 'tie', level };
  if (time === undefined) return { state: 'only the baseline', level, atLeast: bounds.low - others.high };
  if (baseline === undefined) return { state: 'only this one', level, atLeast: others.low - bounds.high };
  return { state: 'told apart', ...speedUp(level, time, baseline) };
}
