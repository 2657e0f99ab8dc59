import { standardUncertainty, type Bounds } from '../margin/bounds';
import { sighting, type Track } from '../ink/track';
import { spell } from '../quantity/duration';
import { plain, type Working } from './working';

/** When the display first showed a level. Times in seconds from plug-in. */
export type Milestone =
  | { state: 'reached'; level: number; bounds: Bounds; estimate: number; uncertainty: number; working: Working }
  | { state: 'not reached'; level: number; bounds: Bounds; working: Working }
  /** Something else than charging decided when. */
  | { state: 'void'; level: number; why: string; working: Working }
  | { state: 'started above'; level: number; working: Working }
  | { state: 'no levels'; level: number };

/**
 * When the display first showed at least a level.
 *
 * `bounds.high` is the first reading at or above it, `bounds.low` the one before. A displayed p stands for a true level in
 * [p, p + 1), so the line between the two readings runs through the middles; for 100 % the estimate is the midpoint of the
 * bounds. On falling percentages the first passage counts.
 *
 * @param percent levels as displayed, seconds from plug-in
 * @param level   in %, above 0 up to 100
 * @see numbers.md, *Milestone*; JCGM 100:2008 (GUM) 4.3.7 for the standard uncertainty.
 */
export function milestone(percent: Track, level: number): Milestone {
  const first = sighting(percent, 0);
  if (!first) return { state: 'no levels', level };
  if (first.value >= level) {
    const formula = `The first level seen was ${plain(first.value)} %, at ${spell(first.seconds, 1)}: already there.`;
    return { state: 'started above', level, working: { formula, unit: '%', uses: [first] } };
  }
  let index = 1;
  while (index < percent.seconds.length && (percent.values[index] ?? 0) < level) index += 1;
  const before = sighting(percent, index - 1) ?? first;
  const after = sighting(percent, index);
  if (!after) {
    const formula = `The last level seen was ${plain(before.value)} %, at ${spell(before.seconds, 1)}.`;
    return {
      state: 'not reached',
      level,
      bounds: { low: before.seconds, high: Infinity },
      working: { formula, unit: '%', uses: [before] },
    };
  }
  const bounds = { low: before.seconds, high: after.seconds };
  const width = bounds.high - bounds.low;
  const share = level === 100 ? 0.5 : clamp((level - (before.value + 0.5)) / (after.value - before.value));
  return {
    state: 'reached',
    level,
    bounds,
    estimate: bounds.low + share * width,
    uncertainty: standardUncertainty(bounds) ?? 0,
    working: {
      unit: '%',
      formula:
        level === 100
          ? `${spell(bounds.low, 1)} + ½ × ${spell(width, 1)}`
          : `${spell(bounds.low, 1)} + (${level} − ${plain(before.value + 0.5)}) ÷ ${plain(after.value - before.value)} × ${spell(width, 1)}` +
            (share === 0 || share === 1 ? ', kept within the two readings' : ''),
      uses: [before, after],
    },
  };
}

const clamp = (share: number) => Math.min(1, Math.max(0, share));

/** A milestone's time as it is quoted: 100 % as first seen, others as estimated; `undefined` when there is none. */
export function milestoneTime(found: Milestone): number | undefined {
  if (found.state !== 'reached') return undefined;
  return found.level === 100 ? found.bounds.high : found.estimate;
}
