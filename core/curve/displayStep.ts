import type { Track } from '../ink/track';

/** Steps that displays move by, in %, beside single ones. */
const STEPS = [5, 4, 3, 2];
/** Levels that all lie on the steps of one are no chance, where it would be one in so many. */
const CHANCE = 500;

/**
 * By what steps a display moves, in %: 1 for most, 5 for one that shows 5, 10, 15. It is told by the levels that were seen: all lie on its steps, so many of
 * them that it is no chance, and they do not rise evenly, for who writes down every tenth percent reads an even rise. Nothing and full tell nothing.
 *
 * @see docs/numbers.md, *Value at a nominal time*.
 */
export function displayStep({ values }: Pick<Track, 'values'>): number {
  const seen = new Set<number>();
  const rises = new Set<number>();
  for (let row = 0; row < values.length; row += 1) {
    const value = values[row] ?? 0;
    if (value <= 0 || value >= 100) continue;
    seen.add(value);
    rises.add(value - (values[row - 1] ?? value));
    if (STEPS.every((step) => value % step !== 0)) return 1;
  }
  if (rises.size < 3) return 1;
  return STEPS.find((step) => step ** seen.size >= CHANCE && [...seen].every((level) => level % step === 0)) ?? 1;
}
