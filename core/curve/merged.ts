import type { Span } from './energy';

/**
 * Spans in order of time, joined where less than `nearer` seconds lie between them: a picture has only so many pixels, and a strip must not cost
 * more the longer the run.
 */
export function merged(spans: readonly Span[], nearer: number): Span[] {
  const all: Span[] = [];
  for (const { from, to } of [...spans].sort((one, other) => one.from - other.from)) {
    const last = all.at(-1);
    if (last && from - last.to < nearer) last.to = Math.max(last.to, to);
    else all.push({ from, to });
  }
  return all;
}
