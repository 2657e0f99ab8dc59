import type { Elapsed } from '../quantity/times';
import type { SampleColumn } from '../samples/column';

/** One quantity of a run over time. `entries` names the ink each row came from; a meter's samples have none. */
export interface Track extends SampleColumn {
  entries?: readonly string[] | undefined;
}

/** One row of a track: a value and when it was seen, with its place in the ink if it has one. */
export interface Sighting {
  seconds: Elapsed;
  value: number;
  entry?: string | undefined;
}

export const EMPTY_TRACK: Track = { seconds: [], values: [] };

/** Row `index` of a track; `undefined` outside it. */
export function sighting(track: Track, index: number): Sighting | undefined {
  const seconds = track.seconds[index];
  const value = track.values[index];
  if (seconds === undefined || value === undefined) return undefined;
  return { seconds, value, entry: track.entries?.[index] || undefined };
}

/** Every row of a track, in order. For drawing and tables; sums walk the columns. */
export function sightings(track: Track): Sighting[] {
  return Array.from(track.seconds, (seconds, index) => ({
    seconds,
    value: track.values[index] ?? 0,
    entry: track.entries?.[index] || undefined,
  }));
}

/** A track of the given rows, put in order of time. */
export function trackOf(rows: readonly Sighting[]): Track {
  const ordered = [...rows].sort((one, other) => one.seconds - other.seconds);
  return {
    seconds: ordered.map(({ seconds }) => seconds),
    values: ordered.map(({ value }) => value),
    entries: ordered.some(({ entry }) => entry !== undefined) ? ordered.map(({ entry }) => entry ?? '') : undefined,
  };
}
