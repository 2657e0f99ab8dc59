import { AMBIENT } from '../method/conditions';
import { HOT } from '../method/rule';
import { readDecimal } from '../quantity/decimal';
import { TEMPERATURES, type Quantity } from '../quantity/quantity';
import type { RunRecord } from '../ink/fold';
import { sighting, type Sighting, type Track } from '../ink/track';
import { firstAfter } from '../samples/column';
import { surfaceName } from '../bench/surfaces';
import { levelTime } from './levelTime';
import { timeAbove } from './power';

/** How hot one surface, or the battery, became. */
export interface Heat {
  /** A temperature. */
  of: Quantity;
  first: Sighting;
  top: Sighting;
  /** How many times it was read. */
  read: number;
  /** At the marks, on the line between readings, in °C. */
  marks: { seconds: number; celsius: number }[];
  /** When the display showed the levels, on the line between readings, in °C. */
  levels: { level: number; celsius: number }[];
  /** What its surface is called on this device, where it has a name. */
  name?: string | undefined;
  /** Above the room at its hottest, in °C, where the room was noted. */
  overRoom?: number | undefined;
  /** For how long it lay above the limit of the method, in seconds. */
  tooHot?: { limit: number; seconds: number } | undefined;
  /** When it was back within 1 °C of where it began, after its peak. */
  backAt?: number | undefined;
}

/** Levels at which heat is quoted, in %. */
const AT_LEVELS = [20, 50, 80];
/** Marks at which heat is quoted, in seconds from plug-in (common practice, no source). */
export const MARKS = [600, 1200, 1800];
/** A rise of less is none to come back from, and as near as this is back, in °C. */
const BACK = { rise: 3, within: 1 };

/** The value of a track at a moment, on the line between the rows around it; `undefined` outside them. */
export function lineAt(track: Track, moment: number): number | undefined {
  const after = firstAfter(track, moment);
  const [one, other] = [sighting(track, after - 1), sighting(track, after)];
  if (!one) return undefined;
  if (one.seconds === moment || !other) return one.seconds === moment ? one.value : undefined;
  return one.value + ((other.value - one.value) * (moment - one.seconds)) / (other.seconds - one.seconds);
}

/** How warm the room was, as it was noted, in °C. */
export function roomOf({ header: { conditions = [] } }: Pick<RunRecord, 'header'>): number | undefined {
  const typed = conditions.find(({ name }) => name === AMBIENT)?.value ?? '';
  const celsius = readDecimal(typed);
  return typed.trim() === '' || Number.isNaN(celsius) ? undefined : celsius;
}

/** The heat of a run: each surface and the battery apart, those that were read. */
export function heatOf(run: RunRecord): Heat[] {
  const room = roomOf(run);
  const limit = run.header.rule?.hot ?? HOT;
  const reached = AT_LEVELS.flatMap((level) => {
    const found = levelTime(run.tracks.percent, level);
    return found ? [{ level, at: found.at }] : [];
  });
  return TEMPERATURES.flatMap((of): Heat[] => {
    const track = run.tracks[of];
    const first = sighting(track, 0);
    if (!first) return [];
    let row = 0;
    for (let each = 1; each < track.values.length; each += 1) if ((track.values[each] ?? 0) > (track.values[row] ?? 0)) row = each;
    const top = row === 0 ? first : (sighting(track, row) ?? first);
    const above = timeAbove(track, limit);
    return [
      {
        of,
        first,
        top,
        read: track.values.length,
        marks: MARKS.flatMap((seconds) => {
          const celsius = lineAt(track, seconds);
          return celsius === undefined ? [] : [{ seconds, celsius }];
        }),
        levels: reached.flatMap(({ level, at }) => {
          const celsius = lineAt(track, at);
          return celsius === undefined ? [] : [{ level, celsius }];
        }),
        name: surfaceName(run.header.device, of),
        overRoom: room === undefined ? undefined : top.value - room,
        tooHot: above ? { limit, seconds: above } : undefined,
        backAt: top.value - first.value < BACK.rise ? undefined : backAfter(track, row, first.value + BACK.within),
      },
    ];
  });
}

/** When a track is back at a value after a row. */
function backAfter(track: Track, row: number, value: number): number | undefined {
  for (let after = row + 1; after < track.values.length; after += 1) if ((track.values[after] ?? 0) <= value) return track.seconds[after];
  return undefined;
}
