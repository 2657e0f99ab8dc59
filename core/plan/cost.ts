import { dueTimes } from '../method/cadence';
import type { Cadence } from '../method/cadenceSchema';
import type { Expected } from '../simulate/expected';
import { usualCalendar } from './calendar';
import { runsOf } from './matrix';
import type { Setup } from './setups';
import type { Study } from './study';

/** What a study costs. Seconds. */
export interface StudyCost {
  runs: number;
  /** Runs whose length cannot be expected; they count in nothing else. */
  unknown: number;
  /** Of all runs, made one after another. */
  length: number;
  /** Of the person’s time. */
  attended: number;
  readings: number;
}

/**
 * When a run by this cadence is read, in seconds from plug-in: at plug-in, at every check, and at the first check that can show it full.
 *
 * @param full     expected time to 100 %, in seconds; `undefined` where none can be expected
 * @param finerFrom when the level that makes the cadence fine is expected
 * @returns `undefined` where no end can be expected
 */
export function readingTimes(cadence: Cadence, full: number | undefined, finerFrom?: number): number[] | undefined {
  const hasEnd = cadence.kind === 'spot' || (cadence.kind === 'marks' && cadence.then === undefined);
  if (!hasEnd && full === undefined) return undefined;
  if (cadence.kind === 'sampled') return [0, full ?? 0];
  const times = [0];
  for (const due of dueTimes(cadence, finerFrom)) {
    times.push(due);
    if (!hasEnd && full !== undefined && due >= full) break;
  }
  return times;
}

/** What is expected of a setup, as far as its readings hang on it. */
type Foreseen = { expected?: Pick<Expected, 'reaches'> | undefined };

/**
 * The expected times of reading a setup.
 *
 * @param allowance room for it to take longer, as a share
 * @param set       those that start with it: the first of them that shows the level makes all of them fine
 */
export function readingsOf(
  study: Pick<Study, 'cadence'>,
  setup: Foreseen,
  allowance = 0,
  set: readonly Foreseen[] = [setup],
): number[] | undefined {
  const { cadence } = study;
  const reaches = ({ expected }: Foreseen, level: number) => {
    const at = expected?.reaches(level);
    return at === undefined ? undefined : at * (1 + allowance);
  };
  const fine = cadence.kind === 'coarse then fine' ? set.flatMap((each) => reaches(each, cadence.level) ?? []) : [];
  return readingTimes(cadence, reaches(setup, 100), fine.length > 0 ? Math.min(...fine) : undefined);
}

/** Adds up what the runs of a study cost. */
export function costOf(study: Study, setups: readonly Setup[]): StudyCost {
  const { reading, setUp, packUp } = study.calendar ?? usualCalendar('');
  const cost: StudyCost = { runs: 0, unknown: 0, length: 0, attended: 0, readings: 0 };
  const timesOf = new Map(setups.map((setup) => [setup.cell.key, readingsOf(study, setup)]));
  for (const { cell } of runsOf(study)) {
    const times = timesOf.get(cell.key);
    cost.runs += 1;
    if (!times) cost.unknown += 1;
    else {
      cost.length += times.at(-1) ?? 0;
      cost.readings += times.length;
      cost.attended += times.length * reading + setUp + packUp;
    }
  }
  return cost;
}
