import { firstAfter } from '../samples/column';
import { sighting, type Sighting, type Track } from '../ink/track';
import type { Bounds } from '../margin/bounds';
import { spell } from '../quantity/duration';
import { AS_READ, crosses, isTurning, type Levels } from './pace';
import { plain, type Working } from './working';

/** Standard uncertainty that a display adds, in %: one that shows whole percents, or moves by several. */
const roundingOf = ({ step = 1 }: Levels) => step / Math.sqrt(12);
/** No level is known better than this, in %. */
const LEAST = 0.15;
/** How long before a nominal time the last reading may lie and still serve: a share of its interval, and so many seconds. */
const MISSED = { share: 0.1, max: 60 };

/** A level, or a gain, at a nominal time. In %. */
export interface ValueAt {
  /** The nominal time, seconds from plug-in. */
  seconds: number;
  value: number;
  /** What it surely lies between: for rising percentages the two readings around it, as far as the pace allows. */
  bounds: Bounds;
  /** Its standard uncertainty. */
  uncertainty: number;
  working: Working;
}

/**
 * The level at a nominal time, on the line between the readings around it; up to a tenth of an interval after the last reading, carried on at the
 * slope that was last read.
 *
 * u² = 1 ÷ 12 for the display (nothing where it was seen turning) + (a quarter of the range that monotony and pace leave)² ÷ 3.
 *
 * @param percent levels as displayed
 * @param seconds the nominal time, from plug-in
 * @param rounding standard uncertainty of what else is taken off it or added to it, in %
 * @returns `undefined` outside the time that readings cover
 * @see docs/numbers.md, *Value at a nominal time*.
 */
export function levelAt(percent: Track, seconds: number, levels: Levels = AS_READ, rounding = 0): ValueAt | undefined {
  const after = firstAfter(percent, seconds);
  const one = sighting(percent, after - 1);
  if (!one) return undefined;
  const ownRounding = (seen: Sighting) => (isTurning(levels, seen) ? 0 : roundingOf(levels));
  const other = sighting(percent, after);
  const off = offBy(sighting(percent, after - 2) ?? one, other ?? one, levels);
  if (one.seconds === seconds) {
    const { value } = one;
    const formula = `${plain(value)} % was seen at ${spell(seconds, 1)}`;
    const uncertainty = Math.max(LEAST, Math.hypot(ownRounding(one), rounding, off / Math.sqrt(3)));
    const bounds = { low: Math.max(0, value - off), high: Math.min(100, value + off) };
    return { seconds, value, bounds, uncertainty, working: { formula, unit: '%', uses: [one] } };
  }
  if (!other) return carriedOn(percent, seconds, levels, rounding);
  const slope = (other.value - one.value) / (other.seconds - one.seconds);
  const value = one.value + slope * (seconds - one.seconds);
  const range = rangeAt(one, other, seconds, levels);
  const bounds = { low: Math.max(0, range.low - off), high: Math.min(100, range.high + off) };
  return {
    seconds,
    value: Math.min(bounds.high, Math.max(bounds.low, value)),
    bounds,
    uncertainty: Math.max(LEAST, Math.hypot(Math.max(ownRounding(one), ownRounding(other)), rounding, leftOpen(range), off / Math.sqrt(3))),
    working: {
      unit: '%',
      formula: `${plain(one.value)} + ${plain(other.value - one.value)} × ${spell(seconds - one.seconds, 1)} ÷ ${spell(other.seconds - one.seconds, 1)}`,
      uses: [one, other],
    },
  };
}

/** How far a level can be off because its time is, in %: by the rate between the readings around it. */
function offBy(before: Sighting, after: Sighting, { clock = 0 }: Levels): number {
  const apart = after.seconds - before.seconds;
  return clock === 0 || apart <= 0 ? 0 : (clock * Math.abs(after.value - before.value)) / apart;
}

/** Standard uncertainty that a line between readings leaves: a quarter of the range it lies in, as likely anywhere within. */
const leftOpen = ({ low, high }: Bounds) => (high - low) / 4 / Math.sqrt(3);

/** Levels that a moment between two readings can have shown: between theirs, and no further from either than the pace goes. */
function rangeAt(one: Sighting, other: Sighting, seconds: number, { pace }: Levels): Bounds {
  const [least, most] = [Math.min(one.value, other.value), Math.max(one.value, other.value)];
  if (pace.drawsIn === undefined || other.value < one.value || crosses({ from: one.seconds, to: other.seconds }, pace.broken))
    return { low: least, high: most };
  const low = Math.max(least, other.value - pace.drawsIn * (other.seconds - seconds));
  const high = Math.min(most, one.value + pace.drawsIn * (seconds - one.seconds));
  return low <= high ? { low, high } : { low: least, high: most };
}

/** A nominal time that was a little missed: the last reading before it, carried on. */
function carriedOn(percent: Track, seconds: number, levels: Levels, rounding: number): ValueAt | undefined {
  const last = percent.seconds.length - 1;
  const [before, one] = [sighting(percent, last - 1), sighting(percent, last)];
  if (!before || !one) return undefined;
  const wait = seconds - one.seconds;
  const interval = one.seconds - before.seconds;
  if (wait > Math.min(MISSED.share * interval, MISSED.max)) return undefined;
  const slope = Math.max(0, (one.value - before.value) / (one.seconds - before.seconds));
  const value = Math.min(100, one.value + slope * wait);
  const fastest = Math.max(levels.pace.drawsIn ?? 0, 2 * slope);
  const bounds = { low: one.value, high: Math.max(value, Math.min(100, one.value + fastest * wait)) };
  return {
    seconds,
    value,
    bounds,
    uncertainty: Math.max(LEAST, Math.hypot(isTurning(levels, one) ? 0 : roundingOf(levels), rounding, leftOpen(bounds))),
    working: {
      unit: '%',
      formula: `${plain(one.value)} + ${plain(one.value - before.value)} ÷ ${spell(one.seconds - before.seconds, 1)} × ${spell(wait, 1)}: read a little before`,
      uses: [before, one],
    },
  };
}

/** A run without a pace of its own rose no faster than so many times its mean rate: assumed, for nominal times (docs/numbers.md). */
const ASSUMED_PACE = 3;

/** The levels with a pace for nominal times: their own, else the assumed one up to the reading after it; none across a boot, a swap or a hold. */
function paced(percent: Track, seconds: number, levels: Levels): Levels {
  const { pace } = levels;
  const [first, until] = [
    sighting(percent, 0),
    sighting(percent, Math.min(firstAfter(percent, seconds - 1e-9), percent.seconds.length - 1)),
  ];
  if (pace.drawsIn !== undefined || !first || !until || until.value <= first.value) return levels;
  if (crosses({ from: first.seconds, to: until.seconds }, pace.broken)) return levels;
  return {
    ...levels,
    pace: { ...pace, drawsIn: (ASSUMED_PACE * (until.value - first.value)) / Math.max(1, until.seconds - first.seconds) },
  };
}

/** When the display showed 100 % and was at it from then on, by a nominal time. */
function fullBy({ seconds, values }: Track, moment: number): Sighting | undefined {
  const next = firstAfter({ seconds }, moment);
  let since = next;
  while (since > 0 && (values[since - 1] ?? 0) >= 100) since -= 1;
  const fell = values[next];
  return since === next || (fell !== undefined && fell < 100) ? undefined : sighting({ seconds, values }, since);
}

export type Gain =
  | ({
      state: 'known';
      /** The start was dead, so nothing was seen: 0 % is assumed. */
      isAssumed: boolean;
      /** It was full by then, so that it could gain no more. */
      isFull?: boolean;
    } & ValueAt)
  | { state: 'start unknown'; seconds: number }
  | { state: 'not covered'; seconds: number };

/**
 * Level gained by a nominal time: the level then less the level at plug-in; from 0 %, assumed, where it was dead at plug-in.
 *
 * @param percent levels as displayed; the one at 0 s is the start
 * @param seconds the nominal time, from plug-in
 * @param isDead  whether the display showed nothing at plug-in
 */
export function gainAt(percent: Track, seconds: number, levels: Levels = AS_READ, isDead = false): Gain {
  const first = sighting(percent, 0);
  const start = isDead && (!first || first.seconds > 0) ? { seconds: 0, value: 0 } : first;
  if (!start || start.seconds > 0) return { state: 'start unknown', seconds };
  const isAssumed = start !== first;
  const off = isAssumed ? '0 %, assumed: dead at plug-in' : `${plain(start.value)} % at plug-in`;
  const startRounding = isAssumed || isTurning(levels, start) ? 0 : roundingOf(levels);
  // Of a display that moves by several percent the battery can have gained so much more, or less, than it shows.
  const hidden = (levels.step ?? 1) - 1;
  const full = fullBy(percent, seconds);
  if (full) {
    const gained = 100 - start.value;
    return {
      state: 'known',
      isAssumed,
      isFull: true,
      seconds,
      value: gained,
      bounds: { low: gained, high: gained },
      uncertainty: Math.max(LEAST, startRounding),
      working: {
        unit: '%',
        formula: `full at ${spell(full.seconds, 1)}: 100 %, less ${off}`,
        uses: isAssumed ? [full] : [start, full],
      },
    };
  }
  const own = isAssumed ? withDead(percent) : percent;
  // A dead battery stands at nothing, and not anywhere in the first percent.
  const then = levelAt(own, seconds, paced(own, seconds, levels), startRounding);
  if (!then) return { state: 'not covered', seconds };
  const { formula, uses } = then.working;
  return {
    ...then,
    state: 'known',
    isAssumed,
    value: then.value - start.value,
    bounds: { low: then.bounds.low - start.value - hidden, high: then.bounds.high - start.value + hidden },
    working: {
      unit: '%',
      formula: `${formula}, less ${off}`,
      uses:
        isAssumed || uses.some(({ seconds: used }) => used === start.seconds)
          ? uses.filter(({ seconds: used }) => !isAssumed || used > 0)
          : [start, ...uses],
    },
  };
}

/** Levels with the one that was not seen at plug-in. */
const withDead = ({ seconds, values, entries }: Track): Track => ({
  seconds: [0, ...Array.from(seconds)],
  values: [0, ...Array.from(values)],
  entries: entries && ['', ...entries],
});
