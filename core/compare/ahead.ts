import { levelAt } from '../curve/valueAt';
import type { Track } from '../ink/track';
import { difference, pooled, spreadOf, type Measured } from '../margin/told';

/** By how much one setup is ahead of another at a moment: in % of level, with the margin within which it lies in 95 of 100 cases. */
export interface Ahead {
  /** Seconds from plug-in. */
  seconds: number;
  value: number;
  margin: number;
  /** Whether the readings tell who is ahead. */
  isDistinguishable: boolean;
}

/** Moments at which two setups are set against each other. */
const MOMENTS = 120;

/** The level of a run at a moment; what was gained by then is what repeats vary in proportion to. */
function measuredAt(percent: Track, seconds: number): Measured | undefined {
  const found = levelAt(percent, seconds);
  return (
    found && { value: found.value, uncertainty: found.uncertainty, bounds: found.bounds, scale: found.value - (percent.values[0] ?? 0) }
  );
}

/**
 * How far one setup is ahead of another all along: the level of the one less that of the other, with its margin, while both were read.
 *
 * @param mine   levels of each of its runs
 * @param theirs those of the baseline
 */
export function aheadOf(mine: readonly Track[], theirs: readonly Track[]): Ahead[] {
  const lengths = [...mine, ...theirs].map(({ seconds }) => seconds[seconds.length - 1] ?? 0);
  const end = Math.min(...lengths);
  if (!(end > 0)) return [];
  return Array.from({ length: MOMENTS + 1 }, (_, index) => (end * index) / MOMENTS).flatMap((seconds) => {
    const at = (tracks: readonly Track[]) => tracks.map((track) => measuredAt(track, seconds)).filter((each) => each !== undefined);
    const [ones, others] = [at(mine), at(theirs)];
    if (ones.length < mine.length || others.length < theirs.length) return [];
    const spread = spreadOf([ones, others]);
    const [one, other] = [pooled(ones, spread), pooled(others, spread)];
    if (!one || !other) return [];
    const { value, margin, told } = difference(other, one);
    return [{ seconds, value, margin, isDistinguishable: told !== 'tie' }];
  });
}

/** A lead is one once it is told at so many moments in a row. */
const LEAD = 3;

/** When the lead of one setup over another changes hands for good, as far as it is told: `undefined` where it never does. */
export function turnOf(ahead: readonly Ahead[]): { from: number; to: number } | undefined {
  const told = ahead.filter(({ isDistinguishable }) => isDistinguishable);
  const last = told.at(-1);
  const others = last ? told.filter(({ value }) => Math.sign(value) !== Math.sign(last.value)) : [];
  const before = others.length >= LEAD ? others.at(-1) : undefined;
  const after = before && told.find(({ seconds }) => seconds > before.seconds);
  return before && after ? { from: before.seconds, to: after.seconds } : undefined;
}
