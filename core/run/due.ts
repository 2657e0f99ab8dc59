import type { WallTime } from '../quantity/times';
import { elapsedAt, type RunRecord } from '../ink/fold';
import { stretchesOf } from '../curve/stretches';
import { finerFrom } from '../curve/finer';
import { lastVerdict, nextDue } from '../method/cadence';

/** When a live run wants its next reading. */
export interface Due {
  runId: string;
  /** The nominal time, seconds from plug-in. */
  due: number;
  /** Seconds until then; below zero when overdue. */
  wait: number;
}

/**
 * When a run wants its next reading.
 *
 * @param now what the wall clock shows, epoch milliseconds
 * @returns `undefined` for a run that has stopped, has no cadence, or wants no more readings
 */
export function dueOf(run: RunRecord, now: WallTime): Due | undefined {
  const { cadence, id } = run.header;
  if (!cadence || run.stop) return undefined;
  const elapsed = elapsedAt(run, now);
  const { from, to } = stretchesOf(run).at(-1) ?? { from: 0, to: Infinity };
  if (elapsed > to) return undefined;
  const seen = run.readings.at(-1)?.seconds;
  const next = nextDue(cadence, seen === undefined || seen < from ? undefined : seen - from, elapsed - from, finerFrom(run));
  return next === undefined ? undefined : { runId: id, due: from + next, wait: from + next - elapsed };
}

/** How far a live run’s checks are settled: the last moment at which one could turn out missed, in seconds from plug-in. */
export function decidedAt(run: RunRecord, elapsed: number): number {
  const { cadence } = run.header;
  const { from } = stretchesOf(run).at(-1) ?? { from: 0 };
  return cadence ? from + lastVerdict(cadence, elapsed - from, finerFrom(run)) : run.end;
}

/** The live runs in the order in which they want a reading, the most urgent first. */
export function inOrderOfDue(runs: readonly RunRecord[], now: number): Due[] {
  return runs
    .map((run) => dueOf(run, now))
    .filter((due) => due !== undefined)
    .sort((one, other) => one.wait - other.wait);
}
