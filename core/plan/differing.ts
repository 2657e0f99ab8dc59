import type { Condition } from '../method/conditionSchema';

/** A condition that is not what it was in earlier runs of the study. */
export interface Differing {
  name: string;
  now: string;
  /** What it was, each value once, the newest first. */
  before: string[];
}

/**
 * Conditions that differ from those of earlier runs of the study: runs that differ cannot be laid beside each other in fairness.
 *
 * @param now     as they are to be confirmed
 * @param earlier those of earlier runs, the newest first; runs of another state are another setup and are left out by the caller
 */
export function differing(now: readonly Condition[], earlier: readonly (readonly Condition[])[]): Differing[] {
  return now.flatMap(({ name, value }) => {
    const before = [...new Set(earlier.flatMap((run) => run.filter((each) => each.name === name).map((each) => each.value)))];
    const others = before.filter((each) => each.toLowerCase() !== value.toLowerCase());
    return others.length > 0 ? [{ name, now: value, before: others }] : [];
  });
}
