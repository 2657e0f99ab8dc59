import type { ReadRun } from '../curve/figures';
import { milestoneTime, type Milestone } from '../curve/milestone';
import type { Peak } from '../curve/peak';
import type { Gain } from '../curve/valueAt';
import type { RunInk } from '../ink/fold';
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

/** One run of a comparison. Arrays follow the levels and marks its figures were asked for. */
export interface Row {
  run: RunInk;
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
 * @example compareRuns(records.map((record) => readRun(record)), 'run-1', 80)[0].standing // how the first stands to run-1 at 80 %
 * @param all      runs and their figures, all asked for the same levels and marks, in the order they are shown
 * @param baseline id of the run the others are set against
 * @param level    the level at which they are set against it, in %: one of those asked for
 */
export function compareRuns(all: readonly ReadRun[], baseline: string, level: number): Row[] {
  const milestones = ranked(
    all.map(({ figures }) => figures.milestones),
    milestoneBounds,
    'less',
  );
  const gains = ranked(
    all.map(({ figures }) => figures.gains),
    gainBounds,
    'more',
  );
  const timeTo = ({ figures }: ReadRun) => figures.milestones.find((found) => found.level === level);
  const zero = all.find(({ run }) => run.header.id === baseline);
  const goal = zero && timeTo(zero);
  return all.map((one, index) => {
    const { battery, peak, startLevel } = one.figures;
    const [mine, myGains] = [timeTo(one), gains[index] ?? []];
    return {
      run: one.run,
      milestones: milestones[index] ?? [],
      gains: myGains,
      gainedWattHours: myGains.map(({ found }) => {
        return found.state === 'known' && battery !== undefined ? (battery * found.value) / 100 : undefined;
      }),
      peak,
      startLevel,
      standing: one === zero || !goal ? { state: 'baseline' } : mine ? standing(mine, goal) : { state: 'no time', level },
    };
  });
}

/** Every figure with its rank among those that stand at the same place in the other rows. */
function ranked<Found>(
  rows: readonly (readonly Found[])[],
  boundsOf: (found: Found) => Bounds | undefined,
  better: 'less' | 'more',
): Ranked<Found>[][] {
  const columns = (rows[0] ?? []).map((_, at) =>
    rank(
      rows.map((row) => (row[at] === undefined ? undefined : boundsOf(row[at]))),
      better,
    ),
  );
  return rows.map((row, index) => row.map((found, at) => ({ found, rank: columns[at]?.[index] })));
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
