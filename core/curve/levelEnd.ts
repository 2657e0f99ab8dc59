import { firstAfter } from '../samples/column';
import { sighting } from '../ink/track';
import { trimmed } from '../quantity/figures';
import type { RunLevels } from './milestones';
import { levelAt } from './valueAt';

/** A level at the end of a stretch, in %. */
export interface EndLevel {
  percent: number;
  /** Whether it was read there; else it lies on the line between the readings around it. */
  isRead: boolean;
  /** Its standard uncertainty. */
  uncertainty: number;
}

/** How far from the end of a stretch a level may have been read and be the level there: a share of the stretch, and so many seconds. */
const NEAR = { share: 0.1, max: 60 };

/**
 * The level at one end of a stretch: one read within a tenth of the stretch, a minute at most, of that end; else on the line between the readings around
 * it. What was read last is never carried on.
 *
 * @param moment the end, in seconds from plug-in
 * @param length of the stretch, in seconds
 * @returns `undefined` where nothing tells
 * @see docs/numbers.md, *A level counts where it was read*
 */
export function levelEnd({ percent, ...levels }: RunLevels, moment: number, length: number): EndLevel | undefined {
  const after = firstAfter(percent, moment);
  const around = [sighting(percent, after - 1), sighting(percent, after)].flatMap((each) => (each ? [each] : []));
  const near = Math.min(NEAR.max, NEAR.share * length);
  const read = around
    .filter(({ seconds }) => Math.abs(seconds - moment) <= near)
    .sort((one, other) => Math.abs(one.seconds - moment) - Math.abs(other.seconds - moment))[0];
  if (read) return { percent: read.value, isRead: true, uncertainty: levelAt(percent, read.seconds, levels)?.uncertainty ?? 0 };
  const found = around.length === 2 ? levelAt(percent, moment, levels) : undefined;
  return found && { percent: found.value, isRead: false, uncertainty: found.uncertainty };
}

/** `85`, or of one that was not read there `about 93`. */
export const writeEndLevel = ({ percent, isRead }: EndLevel): string => (isRead ? trimmed(percent) : `about ${trimmed(percent, 0)}`);
