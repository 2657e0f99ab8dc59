import type { ReadRun } from '../curve/figures';
import type { Milestone } from '../curve/milestone';
import type { Passage } from '../curve/milestones';
import { shownTime } from '../curve/timeWords';
import type { Gain } from '../curve/valueAt';
import type { RunInk } from '../ink/fold';
import { difference, type Difference, type Measured, type Pooled } from '../margin/told';
import { column, type Compared } from './column';
import { baselineOf, setupsOf } from './setups';
import { speedUp, type Goal, type SpeedUp } from './speedUp';

/** How a setup stands to the baseline at one level. */
export type Standing =
  | { state: 'baseline' }
  /** Several sources fed it: it is set against nothing. */
  | { state: 'sequence' }
  | { state: 'no time'; level: Goal }
  /** These readings cannot tell them apart; `saved` is what they differ by, as far as both were seen. */
  | { state: 'tie'; level: Goal; saved?: Difference | undefined }
  | ({ state: 'told apart' } & SpeedUp)
  /** Only one of the two got there: surely sooner, or surely later, by at least `atLeast` seconds. */
  | { state: 'only this one' | 'only the baseline'; level: Goal; atLeast: number };

/** One setup of a comparison. Arrays follow the levels and marks its figures were asked for. */
export interface Row {
  /** The first of its runs: its gear speaks for all. */
  run: RunInk;
  runs: RunInk[];
  /** The setup that it is. */
  key: string;
  isSequence: boolean;
  milestones: Compared<Milestone>[];
  /** What came to pass beside levels, where any run has it: the light out, power gone, the boot. */
  passages: Partial<Record<Passage['what'], Compared<Passage>>>;
  /** In %; the means in Wh where batteries differ, for a percent of one is not a percent of another. */
  gains: Compared<Gain>[];
  /** The level at plug-in, if it was seen; of repeats the lowest. */
  startLevel: number | undefined;
  standing: Standing;
  /** What its standing is about: the level asked for; where no run shows any, the light out or power gone. */
  goal: Goal;
}

/** A milestone as it is compared: one that was not seen by the end stands for the least it can be. */
export function timeOf(found: Milestone): Measured | undefined {
  if (found.state === 'reached')
    return {
      value: found.estimate,
      uncertainty: found.uncertainty,
      bounds: found.bounds,
      shown: shownTime(found.bounds, found.estimate),
      ...(found.level === 100 && { latest: shownTime(found.bounds, found.bounds.high) }),
    };
  return found.state === 'not reached' ? { value: found.bounds.low, uncertainty: 0, bounds: found.bounds, isLeast: true } : undefined;
}

export const whenOf = ({ bounds, uncertainty, hasNoEarliest }: Passage): Measured | undefined => {
  if (hasNoEarliest) return undefined;
  const value = (bounds.low + bounds.high) / 2;
  return { value, uncertainty, bounds, shown: shownTime(bounds, value), latest: shownTime(bounds, bounds.high) };
};

/** A gain as it is compared. @param perPercent what one percent of the battery is, in the unit that it is told in */
export const gainOf =
  (perPercent: number) =>
  (gain: Gain): Measured | undefined =>
    gain.state === 'known'
      ? {
          value: gain.value * perPercent,
          uncertainty: gain.uncertainty * perPercent,
          bounds: { low: gain.bounds.low * perPercent, high: gain.bounds.high * perPercent },
          isFull: gain.isFull,
        }
      : undefined;

/**
 * Lays setups beside each other: runs that repeat each other are one.
 *
 * @example compareRuns(records.map((record) => readRun(record)), 'run-1', 80)[0].standing // how the first stands to run-1 at 80 %
 * @param all      runs and their figures, all asked for the same levels and marks, in the order they are shown
 * @param baseline id of a run of the setup that the others are set against
 * @param level    the level at which they are set against it, in %: one of those asked for
 * @see docs/numbers.md, *Told apart*.
 */
export function compareRuns(all: readonly ReadRun[], baseline: string, level: number): Row[] {
  const setups = setupsOf(all);
  const batteries = setups.map(({ runs }) => runs[0]?.figures.battery);
  const inWattHours = new Set(batteries).size > 1 && batteries.every((battery) => battery !== undefined);
  const isUnlike = new Set(setups.map(({ runs }) => runs[0]?.run.header.device.id)).size > 1;
  const levels = all[0]?.figures.milestones.map((found) => found.level) ?? [];
  const times = levels.map((_, at) =>
    column(
      setups,
      setups.map(({ runs }) => runs.flatMap(({ figures }) => figures.milestones[at] ?? [])),
      () => timeOf,
      's',
      'less',
    ),
  );
  const gains = (all[0]?.figures.gains ?? []).map((_, at) => {
    const found = column(
      setups,
      setups.map(({ runs }) => runs.flatMap(({ figures }) => figures.gains[at] ?? [])),
      (index) => gainOf(inWattHours ? (batteries[index] ?? 0) / 100 : 1),
      inWattHours ? 'Wh' : 'points',
      'more',
    );
    // A percent of one device is not a percent of another: where its battery is not known, nothing says which gained more.
    return isUnlike && !inWattHours && new Set(batteries).size > 1 ? found.map((cell) => ({ ...cell, rank: undefined })) : found;
  });
  const kinds = new Set(all.flatMap(({ figures }) => figures.passages.map(({ what }) => what)));
  const passages = [...kinds].map((what) => {
    const found = setups.map(({ runs }) => runs.flatMap(({ figures }) => figures.passages.filter((passage) => passage.what === what)));
    return [what, column(setups, found, () => whenOf, 's', 'less')] as const;
  });
  const zero = baselineOf(setups, baseline);
  const goal = goalOf(all, level);
  const taken: Compared<Milestone | Passage>[] | undefined =
    typeof goal === 'number' ? times[levels.indexOf(goal)] : passages.find(([what]) => what === goal)?.[1];
  return setups.flatMap(({ runs, key, isSequence }, index) => {
    const [first] = runs;
    if (!first) return [];
    const starts = runs.flatMap(({ figures }) => figures.startLevel ?? []);
    return [
      {
        run: first.run,
        runs: runs.map(({ run }) => run),
        key,
        isSequence,
        milestones: times.flatMap((cells) => cells[index] ?? []),
        passages: Object.fromEntries(passages.flatMap(([what, cells]) => (cells[index] ? [[what, cells[index]] as const] : []))),
        gains: gains.flatMap((cells) => cells[index] ?? []),
        startLevel: starts.length === runs.length ? Math.min(...starts) : undefined,
        standing: isSequence
          ? { state: 'sequence' }
          : index === zero
            ? { state: 'baseline' }
            : standing(goal, taken?.[index], taken?.[zero]),
        goal,
      },
    ];
  });
}

/** What setups are set against each other by. */
function goalOf(all: readonly ReadRun[], level: number): Goal {
  const hasLevels = all.some(({ figures }) => figures.milestones.some(({ state }) => state !== 'no levels'));
  if (hasLevels) return level;
  const whats = all.flatMap(({ figures }) => figures.passages.map(({ what }) => what));
  return (['light out', 'power gone'] as const).find((what) => whats.includes(what)) ?? level;
}

function standing<Found>(level: Goal, mine: Compared<Found> | undefined, theirs: Compared<Found> | undefined): Standing {
  const [one, zero] = [mine?.mean, theirs?.mean];
  if (!one || !zero || (one.isLeast && zero.isLeast)) return { state: 'no time', level };
  const differ = difference(one, zero);
  if (differ.told === 'tie') return { state: 'tie', level, ...(!one.isLeast && !zero.isLeast && { saved: differ }) };
  if (one.isLeast) return { state: 'only the baseline', level, atLeast: leastBetween(zero, one, differ) };
  if (zero.isLeast) return { state: 'only this one', level, atLeast: leastBetween(one, zero, differ) };
  return { state: 'told apart', ...speedUp(level, one, zero, differ) };
}

/** The least that the sooner of two was sooner by: between the bounds of single runs; of repeats, what the margin leaves. */
function leastBetween(sooner: Pooled, later: Pooled, { value, margin }: Difference): number {
  const gap = sooner.bounds && later.bounds ? later.bounds.low - sooner.bounds.high : Math.abs(value) - margin;
  return Math.max(0, gap);
}
