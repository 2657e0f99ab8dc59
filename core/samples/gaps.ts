import type { SampleColumn } from './column';

/** A span of time, in seconds from plug-in. */
export interface Span {
  from: number;
  to: number;
}

/** Rows further apart than this many of the intervals in force there have a gap between them: what happened there is unseen. */
const LONGEST_BRIDGE = 3;

/** The longest time between two rows that may be bridged where one is due every so often, in seconds. */
export const bridgeOf = (interval: number): number => LONGEST_BRIDGE * interval;

const knownGaps = new WeakMap<object, Span[]>();

/**
 * Where nothing was seen for too long: longer than three times the longer of the two intervals beside it. Rows of one moment count as one. The
 * outermost interval has one beside it; a single one has none and is no gap.
 *
 * @param bridges the longest time that may be bridged from one row to the next, in seconds, where something else says it: a plan
 */
export function gapsOf(column: Pick<SampleColumn, 'seconds'>, bridges?: (from: number, to: number) => number): Span[] {
  if (bridges) return search(column, (from, to) => to - from > bridges(from, to));
  const kept = knownGaps.get(column.seconds) ?? search(column, (from, to, row) => isBeyondNeighbours(column, from, to, row));
  knownGaps.set(column.seconds, kept);
  return kept;
}

function search({ seconds }: Pick<SampleColumn, 'seconds'>, isGap: (from: number, to: number, row: number) => boolean): Span[] {
  const spans: Span[] = [];
  for (let row = 1; row < seconds.length; row += 1) {
    const from = seconds[row - 1] ?? 0;
    const to = seconds[row] ?? 0;
    if (to > from && isGap(from, to, row)) spans.push({ from, to });
  }
  return spans;
}

function isBeyondNeighbours({ seconds }: Pick<SampleColumn, 'seconds'>, from: number, to: number, row: number): boolean {
  const longest = (to - from) / LONGEST_BRIDGE;
  // Nearly every row of a stream is as far from the next as from the one before.
  if (row > 1 && from - (seconds[row - 2] ?? from) >= longest) return false;
  let before = row - 2;
  let after = row + 1;
  while (before >= 0 && seconds[before] === from) before -= 1;
  while (after < seconds.length && seconds[after] === to) after += 1;
  const beside = Math.max(before < 0 ? 0 : from - (seconds[before] ?? 0), after >= seconds.length ? 0 : (seconds[after] ?? 0) - to);
  return beside > 0 && beside < longest;
}

/** Says, of steps from row to row that are asked in order, whether each lies in one of the gaps. */
export function gapWalk(gaps: readonly Span[]): (from: number, to: number) => boolean {
  let at = 0;
  return (from, to) => {
    while (at < gaps.length && (gaps[at]?.to ?? 0) < to) at += 1;
    const gap = gaps[at];
    return gap !== undefined && gap.from <= from && to <= gap.to;
  };
}
