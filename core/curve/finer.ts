import { min } from 'd3-array';
import type { RunRecord } from '../ink/fold';

/** Some of a run, and its levels. */
export type WithLevels<Keys extends keyof RunRecord> = Pick<RunRecord, Keys> & { tracks: Pick<RunRecord['tracks'], 'percent'> };

/** From when on a run is to be read finely, in seconds from plug-in: its display showed the level, or that of another of its set did. */
export function finerFrom({ header: { cadence }, tracks: { percent }, events }: WithLevels<'header' | 'events'>): number | undefined {
  if (cadence?.kind !== 'coarse then fine') return undefined;
  const row = Array.from(percent.values).findIndex((level) => level >= cadence.level);
  const shown = [percent.seconds[row], ...events.filter(({ event }) => event === 'fine').map(({ seconds }) => seconds)];
  return min(shown, (seconds) => seconds);
}
