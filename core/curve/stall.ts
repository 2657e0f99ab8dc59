import type { Track } from '../ink/track';
import type { Span } from './energy';

/** Time without gain that counts as a stall, in seconds (numbers.md, *Stall*). */
export const STALL = 3600;

/**
 * Spans of at least an hour below 100 % in which the level did not rise.
 *
 * @param percent levels as displayed
 * @param patience seconds without gain that count as a stall
 */
export function stalls(percent: Track, patience = STALL): Span[] {
  const spans: Span[] = [];
  let [from, highest] = [percent.seconds[0] ?? 0, percent.values[0] ?? 0];
  const close = (to: number) => {
    if (to - from >= patience) spans.push({ from, to });
  };
  for (let index = 1; index < percent.seconds.length && highest < 100; index += 1) {
    const seconds = percent.seconds[index] ?? 0;
    const value = percent.values[index] ?? 0;
    if (value <= highest) {
      if (index === percent.seconds.length - 1) close(seconds);
      continue;
    }
    close(percent.seconds[index - 1] ?? from);
    [from, highest] = [seconds, value];
  }
  return spans;
}
