import { dueTimes } from '../method/cadence';
import type { Cadence } from '../method/cadenceSchema';

/** What a study costs. Seconds. */
export interface Cost {
  runs: number;
  /** Of all runs, made one after another. */
  length: number;
  /** Of the person’s time. */
  attended: number;
  readings: number;
}

/** Seconds of a person’s time that a reading takes, and plugging in and packing up. */
const READING = 20;
const AROUND_A_RUN = 180;

/**
 * How long a run by this cadence takes: until it is full, or until its last mark.
 *
 * @param full expected time to 100 %, in seconds
 */
export function runLength(cadence: Cadence, full: number): number {
  if (cadence.kind === 'spot') return cadence.settle;
  if (cadence.kind === 'marks' && cadence.then === undefined) return cadence.at.at(-1) ?? full;
  return full;
}

/**
 * Adds up what runs cost.
 *
 * @param lengths  of each run, in seconds
 * @param fineFrom when each shows the level that makes a cadence fine
 */
export function costOf(cadence: Cadence, runs: readonly { length: number; fineFrom?: number | undefined }[]): Cost {
  let readings = 0;
  for (const { length, fineFrom } of runs) {
    readings += 1;
    for (const due of dueTimes(cadence, fineFrom)) {
      if (due > length) break;
      readings += 1;
    }
  }
  const length = runs.reduce((sum, each) => sum + each.length, 0);
  return { runs: runs.length, length, attended: readings * READING + runs.length * AROUND_A_RUN, readings };
}
