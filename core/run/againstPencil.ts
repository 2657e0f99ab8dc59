import { max } from 'd3-array';
import type { Figures } from '../curve/figures';
import { milestoneTime } from '../curve/milestone';
import type { RunRecord } from '../ink/fold';
import { expectedRun } from './expected';

/** One figure of a run beside what its gear let one expect. */
export interface AgainstPencil {
  what: { level: number } | 'peak' | 'average';
  /** Seconds from plug-in to a level, or W; `undefined` where it was not read or not reached. */
  measured: number | undefined;
  expected: number | undefined;
}

/** What was measured of a run beside its pencil: times to its levels, peak and average power. Nothing where no charge is expected of it. */
export function againstPencil(run: RunRecord, { milestones, peak, energy }: Figures): AgainstPencil[] {
  const expected = expectedRun(run);
  if (!expected) return [];
  const { seconds, watts } = expected;
  const within = Array.from(watts).filter((_, row) => (seconds[row] ?? 0) <= run.end);
  const average = within.length > 0 ? within.reduce((sum, each) => sum + each, 0) / within.length : undefined;
  const times = milestones.flatMap((found): AgainstPencil[] => {
    const at = milestoneTime(found);
    return found.state === 'started above' || found.state === 'no levels'
      ? []
      : [{ what: { level: found.level }, measured: at, expected: expected.reaches(found.level) }];
  });
  const powers: AgainstPencil[] = peak
    ? [
        { what: 'peak', measured: peak.watts, expected: max(within) },
        { what: 'average', measured: energy.averageWatts, expected: average },
      ]
    : [];
  return [...times, ...powers];
}
