import { standardUncertainty, type Bounds } from '../margin/bounds';
import { sighting, type Sighting, type Track } from '../ink/track';
import { spell } from '../quantity/duration';
import { AS_READ, crosses, isTurning, type Levels } from './pace';
import { plain, type Working } from './working';

/** When the display first showed a level, or something else came to pass for the first time. Times in seconds from plug-in. */
export type Milestone =
  | {
      state: 'reached';
      level: number;
      /** Between which it surely came; drawn in by the pace where that is trusted. */
      bounds: Bounds;
      /** The checks either side of it. */
      checked: Bounds;
      estimate: number;
      uncertainty: number;
      working: Working;
    }
  /** `bounds.low` is the least time it can have come at; `bounds.high` is open. */
  | { state: 'not reached'; level: number; bounds: Bounds; checked: Bounds; working: Working }
  /** Something other than charging set the time. */
  | {
      state: 'void';
      level: number;
      why: string;
      /** When it would have come had nothing held it, in seconds: pencil. */
      unheld?: number | undefined;
      working: Working;
    }
  | { state: 'started above'; level: number; working: Working }
  | { state: 'no levels'; level: number };

/** A display that was watched had not turned yet so many seconds before it was seen turning. */
export const WATCHED = 5;

/**
 * When the display first showed at least a level.
 *
 * `checked.high` is the first reading at or above it, `checked.low` the one before. Both are drawn in by the pace of the run, where that is
 * trusted: the display cannot have risen faster than it was ever seen to, with a quarter to spare. A displayed p stands for a true level in
 * [p, p + 1), one seen turning for p itself, so the line between the two readings runs through the middles; for 100 % the estimate is the
 * midpoint of the bounds, and its latest is never drawn in. On falling percentages the first passage counts.
 *
 * @param percent levels as displayed, seconds from plug-in
 * @param level   in %, above 0 up to 100
 * @param levels  what else is known of them: which were seen turning, and the pace
 * @see docs/numbers.md, *Milestone*; JCGM 100:2008 (GUM) 4.3.7 for the standard uncertainty.
 */
export function milestone(percent: Track, level: number, levels: Levels = AS_READ): Milestone {
  const first = sighting(percent, 0);
  if (!first) return { state: 'no levels', level };
  if (first.value >= level && !(first.value === level && isTurning(levels, first))) {
    const formula = `The first level seen was ${plain(first.value)} %, at ${spell(first.seconds, 1)}: already there.`;
    return { state: 'started above', level, working: { formula, unit: '%', uses: [first] } };
  }
  let index = first.value >= level ? 0 : 1;
  while (index < percent.seconds.length && (percent.values[index] ?? 0) < level) index += 1;
  const before = sighting(percent, index - 1);
  const after = sighting(percent, index);
  if (after) return reached(level, before, after, levels);
  return notReached(level, before ?? first, levels);
}

function reached(level: number, before: Sighting | undefined, after: Sighting, levels: Levels): Milestone {
  const turned = after.value === level && isTurning(levels, after);
  const from = before ?? { seconds: Math.max(0, after.seconds - WATCHED), value: level - 1 };
  const checked = { low: from.seconds, high: after.seconds };
  const drawn = drawnIn(level, from, after, levels, checked);
  const bounds = coarsened(drawn, levels.clock);
  const [one, other] = [trueOf(from, levels), trueOf(after, levels)];
  const width = after.seconds - from.seconds;
  const share = other > one ? clamp((level - one) / (other - one)) : 1;
  const straight = from.seconds + share * width;
  const estimate = level === 100 || turned ? (bounds.low + bounds.high) / 2 : Math.min(bounds.high, Math.max(bounds.low, straight));
  const isDrawn = drawn.low > checked.low || drawn.high < checked.high;
  const line =
    level === 100 || turned
      ? `${spell(bounds.low, 1)} + ½ × ${spell(bounds.high - bounds.low, 1)}`
      : `${spell(from.seconds, 1)} + (${level} − ${plain(one)}) ÷ ${plain(other - one)} × ${spell(width, 1)}` +
        (estimate === straight && share > 0 && share < 1 ? '' : ', kept within its bounds');
  const why = turned
    ? '; seen turning'
    : isDrawn
      ? `; bounds drawn in by the pace, at most ${plain(60 * (levels.pace.drawsIn ?? 0))} % a minute`
      : '';
  return {
    state: 'reached',
    level,
    bounds,
    checked,
    estimate,
    uncertainty: standardUncertainty(bounds) ?? 0,
    working: { unit: '%', formula: line + why + clipSays(levels), uses: before ? [before, after] : [after] },
  };
}

/** Bounds as wide as a clock that is off by so much at most makes them. */
export const coarsened = ({ low, high }: Bounds, clock = 0): Bounds => ({ low: Math.max(0, low - clock), high: high + clock });

const clipSays = ({ clock = 0 }: Levels) => (clock > 1 ? `; a second of the clip is ${spell(clock, 1)}` : '');

/** The true level that a reading stands for: the middle of what is displayed alike, or the level that it turned to. */
const trueOf = (seen: Sighting, levels: Levels) => seen.value + (isTurning(levels, seen) ? 0 : 0.5);

/** The two checks as bounds, drawn in as far as the pace allows. */
function drawnIn(level: number, before: Sighting, after: Sighting, levels: Levels, checked: Bounds): Bounds {
  const { drawsIn, broken } = levels.pace;
  let { low, high } = checked;
  if (drawsIn !== undefined && !crosses({ from: low, to: high }, broken)) {
    const above = isTurning(levels, before) ? 0 : 1;
    low = Math.max(low, before.seconds + (level - before.value - above) / drawsIn);
    if (level < 100) high = Math.min(high, after.seconds - (after.value - level) / drawsIn);
  }
  if (after.value === level && isTurning(levels, after)) low = Math.max(low, high - WATCHED);
  return low <= high ? { low, high } : checked;
}

function notReached(level: number, last: Sighting, { pace, clock = 0 }: Levels): Milestone {
  const checked = { low: last.seconds, high: Infinity };
  const seen = `The last level seen was ${plain(last.value)} %, at ${spell(last.seconds, 1)}.`;
  const on = pace.drawsOn === undefined ? 0 : Math.max(0, (level - last.value - 1) / pace.drawsOn);
  const formula = on > 0 ? `${seen} At twice the highest pace it would take ${spell(on)} more at least.` : seen;
  return {
    state: 'not reached',
    level,
    bounds: { low: Math.max(0, last.seconds + on - clock), high: Infinity },
    checked,
    working: { formula, unit: '%', uses: [last] },
  };
}

const clamp = (share: number) => Math.min(1, Math.max(0, share));

/** A milestone's time as it is quoted: 100 % as first seen, others as estimated; `undefined` when there is none. */
export function milestoneTime(found: Milestone): number | undefined {
  if (found.state !== 'reached') return undefined;
  return found.level === 100 ? found.bounds.high : found.estimate;
}
