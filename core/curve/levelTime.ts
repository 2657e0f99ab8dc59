import { sighting, type Track } from '../ink/track';

/**
 * When a run stood at a level as displayed: on the line through the middles of its readings, the first time.
 *
 * @returns seconds from plug-in, and how far apart the two readings are that it lies between; `undefined` where it never showed it
 */
export function levelTime(percent: Track, level: number): { at: number; within: number } | undefined {
  for (let index = 0; index < percent.values.length; index += 1) {
    if ((percent.values[index] ?? 0) < level) continue;
    const now = sighting(percent, index);
    if (!now) continue;
    const before = sighting(percent, index - 1);
    if (!before) return now.value === level ? { at: now.seconds, within: 0 } : undefined;
    const width = now.seconds - before.seconds;
    return { at: before.seconds + (width * (level - before.value)) / (now.value - before.value), within: width };
  }
  return undefined;
}
