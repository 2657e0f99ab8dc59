import type { KeySpan } from './samples';

/** Held, by any number at once, while a picture is stored that no ink names yet. */
export const TAKING = 'pictures';

/**
 * What is large is stored before the act that names it, and taken away after the act that removes it. What of it is named by nothing stands in the
 * logbook meanwhile: whatever a kill leaves of it is swept at a later start (sweep.ts).
 */
export interface Unnamed {
  /** Runs that were packed and are not listed. */
  runs?: readonly string[];
  /** Runs that were removed. */
  removed?: readonly string[];
  samples?: readonly KeySpan[];
  pictures?: readonly string[];
}
