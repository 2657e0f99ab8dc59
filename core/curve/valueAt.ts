import type { Bounds } from '../margin/bounds';
import { sighting, type Track } from '../ink/track';
import { firstAfter } from '../samples/column';
import { spell } from '../quantity/duration';
import { plain, type Working } from './working';

/** Standard uncertainty that a whole-number display adds, in %. */
export const DISPLAY_ROUNDING = 1 / Math.sqrt(12);

/** A level, or a gain, at a nominal time. In %. */
export interface ValueAt {
  /** The nominal time, seconds from plug-in. */
  seconds: number;
  value: number;
  /** The two readings' values around it: for rising percentages it lies surely between them. */
  bounds: Bounds;
  /** What ties and texts go by. */
  margin: number;
  working: Working;
}

/**
 * The level displayed at a nominal time, on the line between the readings around it.
 *
 * Margin = time to the nearer reading × local slope, combined with display rounding (1 ÷ √12) as independent uncertainties are.
 *
 * @param percent levels as displayed
 * @param seconds the nominal time, from plug-in
 * @returns `undefined` outside the time that readings cover
 * @see numbers.md, *Value at a nominal time*.
 */
export function levelAt(percent: Track, seconds: number): ValueAt | undefined {
  const after = firstAfter(percent, seconds);
  const one = sighting(percent, after - 1);
  if (!one) return undefined;
  if (one.seconds === seconds) {
    const { value } = one;
    const formula = `${plain(value)} % was seen at ${spell(seconds, 1)}`;
    return { seconds, value, bounds: { low: value, high: value }, margin: DISPLAY_ROUNDING, working: { formula, unit: '%', uses: [one] } };
  }
  const other = sighting(percent, after);
  if (!other) return undefined;
  const slope = (other.value - one.value) / (other.seconds - one.seconds);
  const value = one.value + slope * (seconds - one.seconds);
  const toNearer = Math.min(seconds - one.seconds, other.seconds - seconds);
  return {
    seconds,
    value,
    bounds: { low: Math.min(one.value, other.value), high: Math.max(one.value, other.value) },
    margin: Math.hypot(toNearer * slope, DISPLAY_ROUNDING),
    working: {
      unit: '%',
      formula: `${plain(one.value)} + ${plain(other.value - one.value)} × ${spell(seconds - one.seconds, 1)} ÷ ${spell(other.seconds - one.seconds, 1)}`,
      uses: [one, other],
    },
  };
}

export type Gain = ({ state: 'known' } & ValueAt) | { state: 'start unknown'; seconds: number } | { state: 'not covered'; seconds: number };

/**
 * Level gained by a nominal time: the level then less the level at plug-in.
 *
 * @param percent levels as displayed; the one at 0 s is the start
 * @param seconds the nominal time, from plug-in
 */
export function gainAt(percent: Track, seconds: number): Gain {
  const start = sighting(percent, 0);
  if (!start || start.seconds > 0) return { state: 'start unknown', seconds };
  const then = levelAt(percent, seconds);
  if (!then) return { state: 'not covered', seconds };
  const { formula, uses } = then.working;
  return {
    ...then,
    state: 'known',
    value: then.value - start.value,
    bounds: { low: then.bounds.low - start.value, high: then.bounds.high - start.value },
    working: {
      unit: '%',
      formula: `${formula}, less ${plain(start.value)} % at plug-in`,
      uses: uses.some(({ seconds: used }) => used === start.seconds) ? uses : [start, ...uses],
    },
  };
}
