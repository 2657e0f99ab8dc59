import { rounded, spell } from '../quantity/duration';
import type { Bounds } from '../margin/bounds';
import { milestoneTime, type Milestone } from './milestone';
import type { Passage } from './milestones';

/** Width of the bounds, which is how finely a time read between two checks is known. */
const widthOf = ({ low, high }: { low: number; high: number }) => high - low;

/** A milestone as it is written. */
export interface WrittenMilestone {
  /** The time, no finer than it is known. */
  value?: string;
  /** What it lies between, as a sentence says it, or why there is none. */
  detail: string;
  /** What it lies between, as a table says it. */
  range: string;
}

/** A time as it is written, in seconds: one that is told by its latest is rounded up. */
export function shownTime(bounds: Bounds, at: number): number {
  const resolution = widthOf(bounds);
  return rounded(at, resolution, at === bounds.high && resolution >= 1 ? 'up' : 'near');
}

/**
 * The time and bounds of a milestone in words: `53 min`, `between 48 and 53 min`, `48–53 min`.
 *
 * @param isByLatest whether 100 % is told by when it was first seen; else by the middle of what it lies between
 */
export function writeMilestone(found: Milestone, isByLatest = true): WrittenMilestone {
  const none = (why: string) => ({ detail: why, range: why });
  switch (found.state) {
    case 'no levels':
      return none('no level was read');
    case 'void':
      return {
        value: 'void',
        ...none(found.unheld === undefined ? found.why : `${found.why}; not held, about ${spell(found.unheld)} in pencil`),
      };
    case 'started above':
      return none('already there at the first reading');
    case 'not reached':
      return { value: 'not reached', ...none(`not by ${spell(found.bounds.low, 60, 'down')}`) };
    case 'reached': {
      const written = writeTime(found.bounds, isByLatest ? (milestoneTime(found) ?? 0) : found.estimate);
      return found.level === 100 && isByLatest ? { ...written, detail: `first seen; ${written.detail}` } : written;
    }
  }
}

/** A time and what it lies between, no finer than that, and never narrower: `53 min`, `between 48 and 53 min`, `48–53 min`. */
function writeTime(bounds: Bounds, at: number): Required<WrittenMilestone> {
  const resolution = widthOf(bounds);
  const isSeen = resolution < 1;
  const [low, high] = isSeen
    ? [spell(bounds.low, resolution), spell(bounds.high, resolution)]
    : [spell(bounds.low, resolution, 'down'), spell(bounds.high, resolution, 'up')];
  const shared = /^\d+ min$/.test(low) && /^\d+ min$/.test(high) ? low.replace(' min', '') : low;
  const between = isSeen ? `at ${high}` : `between ${shared} and ${high}`;
  // One that is told by its latest is the same time.
  const value = at === bounds.high ? high : spell(at, resolution);
  return { value, detail: between, range: isSeen ? high : `${shared}–${high}` };
}

export const PASSAGES: Readonly<Record<Passage['what'], string>> = {
  boot: 'First level',
  'light out': 'Light out',
  'power gone': 'Power gone',
};

/** The time and bounds of something that came to pass. @param isByLatest whether it is told by its latest; else by the middle of what it lies between */
export function writePassage(
  { bounds, hasNoEarliest }: Pick<Passage, 'bounds' | 'hasNoEarliest'>,
  isByLatest = true,
): WrittenMilestone & { value: string } {
  if (!hasNoEarliest) return writeTime(bounds, isByLatest ? bounds.high : (bounds.low + bounds.high) / 2);
  const value = `by ${spell(bounds.high, 60, 'up')}`;
  return { value, detail: 'how long before, nobody saw', range: 'never seen lit' };
}
