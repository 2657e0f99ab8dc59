import type { RunRecord } from '../ink/fold';
import { firstAfter } from '../samples/column';
import { gapsOf, gapWalk } from '../samples/gaps';
import { QUANTITIES, quantityOf, type Quantity } from '../quantity/quantity';
import { unseenSpans } from './energy';
import { lineAt } from './heat';

/** What one quantity did within a stretch of a run. */
export interface SpanFigures {
  quantity: Quantity;
  min: number;
  /** Mean over the time in which it was seen; of a counter there is none. */
  mean?: number | undefined;
  max: number;
  /** On the line between readings, at either end of the stretch; none where nothing was read around it. */
  first?: number | undefined;
  last?: number | undefined;
  /** How many rows were read in it. */
  rows: number;
}

/** Counters only rise: what they rose by is what they tell. */
const isCounter = (quantity: Quantity) => ['Wh', 'mAh'].includes(quantityOf(quantity).unit);

/**
 * Least, mean and most of every quantity that was read within a stretch. The mean is the area under the line between rows ÷ the time that was seen,
 * its ends cut off where the stretch begins and ends.
 */
export function spanOf(run: RunRecord, from: number, to: number): SpanFigures[] {
  return QUANTITIES.flatMap((quantity): SpanFigures[] => {
    const track = run.tracks[quantity];
    const [begin, end] = [firstAfter(track, from - 1e-9), firstAfter(track, to)];
    const [first, last] = [lineAt(track, from), lineAt(track, to)];
    const ends = [first, last].filter((each) => each !== undefined);
    if (end <= begin && ends.length === 0) return [];
    let [min, max] = [Math.min(Infinity, ...ends), Math.max(-Infinity, ...ends)];
    for (let row = begin; row < end; row += 1) {
      const value = track.values[row] ?? 0;
      min = Math.min(min, value);
      max = Math.max(max, value);
    }
    const gaps = quantity === 'watts' ? unseenSpans(run) : gapsOf(track);
    const isUnseen = gapWalk(gaps);
    let [area, seen] = [0, 0];
    for (let row = Math.max(1, begin); row <= Math.min(end, track.seconds.length - 1); row += 1) {
      const early = track.seconds[row - 1] ?? 0;
      const late = track.seconds[row] ?? 0;
      const low = Math.max(early, from);
      const high = Math.min(late, to);
      if (isUnseen(early, late) || high <= low) continue;
      const slope = ((track.values[row] ?? 0) - (track.values[row - 1] ?? 0)) / (late - early);
      const middle = (track.values[row - 1] ?? 0) + slope * ((low + high) / 2 - early);
      area += middle * (high - low);
      seen += high - low;
    }
    return [{ quantity, min, max, mean: seen > 0 && !isCounter(quantity) ? area / seen : undefined, first, last, rows: end - begin }];
  });
}
