import { levelTime } from '../curve/levelTime';
import { type RunRecord } from '../ink/fold';
import { sighting, type Track } from '../ink/track';
import { spell } from '../quantity/duration';

/** An earlier run under a live one. */
export interface Ghost {
  /** Seconds to add to a time of the earlier run, so that both show the live run’s first level at one time. */
  shift: number;
  /** By how many seconds the live run is ahead at its last reading; behind below zero. `undefined` where the earlier run did not come to that level. */
  ahead?: number | undefined;
  /** What the readings of the two leave open of it, in seconds. */
  margin: number;
}

/**
 * Lays the levels of an earlier run under a live one, from the level at which the live one began.
 *
 * @returns `undefined` where the earlier run never showed that level, or nothing was read yet
 */
export function ghostOf(run: RunRecord, earlier: Track): Ghost | undefined {
  const { percent } = run.tracks;
  const [first, last] = [sighting(percent, 0), sighting(percent, percent.seconds.length - 1)];
  const begun = first && levelTime(earlier, first.value);
  if (!first || !last || !begun) return undefined;
  const shift = first.seconds - begun.at;
  const then = levelTime(earlier, last.value);
  const margin = then ? Math.max(then.within, lastWait(percent)) : 0;
  return { shift, margin, ...(then && last !== first && { ahead: then.at + shift - last.seconds }) };
}

const lastWait = ({ seconds }: Track) => (seconds.length < 2 ? 0 : (seconds[seconds.length - 1] ?? 0) - (seconds[seconds.length - 2] ?? 0));

/** How a live run stands to its ghost: `ahead by 4 min`, `behind by 12 min`; within what the readings leave open, `level with it`. */
export function writeGhost({ ahead, margin }: Ghost): string {
  if (ahead === undefined) return 'no reading to hold against it yet';
  if (Math.abs(ahead) <= margin / 2) return 'level with it';
  return `${ahead > 0 ? 'ahead' : 'behind'} by ${spell(Math.abs(ahead), Math.max(60, margin / 2))}`;
}
