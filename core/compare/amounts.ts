import type { Difference } from '../margin/told';
import { rounded, spell } from '../quantity/duration';
import { fixed, inPoints, percentDecimals, placesFor, price, withMargin } from '../quantity/figures';
import { keptFrom, shownDifference, shownIn, shownUnit } from '../quantity/manner';

/** What a figure that is compared is kept in: seconds, degrees, a rise in degrees, a share, points of a level, or a unit as it is written. */
export type MeasureUnit = 's' | '°C' | 'K' | 'share' | 'price' | 'points' | 'W' | 'Wh' | 'mAh' | 'h';

/** Digits after the point at most. */
const MOST_DECIMALS: Readonly<Record<Exclude<MeasureUnit, 's' | 'points' | 'price'>, number>> = {
  '°C': 1,
  K: 1,
  share: 0,
  W: 1,
  Wh: 1,
  mAh: 0,
  h: 1,
};

const mostDecimals = (unit: Exclude<MeasureUnit, 's' | 'price'>, margin: number): number =>
  unit === 'points' ? percentDecimals(margin) : MOST_DECIMALS[unit];

/** A figure and its margin, with their unit, rounded to what the margin supports: `53 min`, `3 min`; `12.4 W`, `0.3 W`. */
export function writeAmount(value: number, margin: number, unit: MeasureUnit): { value: string; margin: string } {
  if (unit === 's') {
    const step = margin < 60 ? 1 : 60;
    return { value: spell(value, margin), margin: spell(Math.ceil(margin / step - 1e-9) * step, margin) };
  }
  if (unit === 'price') return { value: price(value), margin: price(margin) };
  const [shown, off] = inShown(value, margin, unit);
  return withUnit(withMargin(shown, off, mostDecimals(unit, off)), unit);
}

/** What `writeAmount` writes, as a figure in the unit that it is kept in. */
export function roundedAmount(value: number, margin: number, unit: MeasureUnit): number {
  if (unit === 's') return rounded(value, margin);
  if (unit === 'price') return value;
  const [shown, off] = inShown(value, margin, unit);
  const near = Number(shown.toFixed(placesFor(off, mostDecimals(unit, off))));
  if (unit === 'share') return near / 100;
  return unit === 'K' ? near / shownDifference('°C', 1) : keptFrom(unit, near);
}

/** A figure that lies beyond its margin, and that margin; or that it is just told, where the two would be written alike. */
interface WrittenTold {
  value: string;
  margin: string;
  isJust?: true;
}

/**
 * A figure that lies beyond its margin, and that margin: a digit finer where rounding alone would make the margin as large as the figure. A margin has two
 * significant digits at most (GUM 7.2.6); where those do not tell them apart, it is *just* told.
 *
 * @param value without its sign
 * @param max  decimals at most where that is not so
 * @example toldFigures(8.4, 8.1, 0) // 8.4 and 8.1: rounded it would be 8 ± 9
 */
export function toldFigures(value: number, margin: number, max: number): WrittenTold {
  const usual = placesFor(margin, max);
  const isClear = (decimals: number) => Math.ceil(margin * 10 ** decimals - 1e-9) < Math.round(value * 10 ** decimals);
  if (margin >= value || !(margin > 0) || isClear(usual)) return withMargin(value, margin, max);
  const finest = Math.max(usual, 1 - Math.floor(Math.log10(margin)));
  const decimals = [1, 2, 3, 4, 5].find((each) => each > usual && each <= finest && isClear(each));
  if (decimals === undefined) return { ...withMargin(value, margin, usual), isJust: true };
  return { value: fixed(value, decimals), margin: fixed(Math.ceil(margin * 10 ** decimals - 1e-9) / 10 ** decimals, decimals) };
}

/** A difference as it is written, without its sign. */
export interface WrittenDifference {
  value: string;
  /** Behind it: `± 0.3 W`; of a time that is told `between 41 and 51 min`; `just told apart`. */
  range: string;
  /** Both in a sentence: `2.6 ± 0.3 W`, `44 min (41 to 51 min)`, `9 min, just told apart`. */
  both: string;
  /** Its margin nearly reaches it. */
  isJust?: true;
}
const JUST = 'just told apart';

/**
 * A difference, without its sign: that of the two values as they are shown, with what it lies between. The margin of a time that is told is written as its
 * two ends, for times are not shown by their middle everywhere; any other one as ±, and so wide that it holds both ends.
 *
 * @param unit of the figures that differ
 * @see docs/numbers.md, *A difference*.
 */
export function writeApart(differ: Pick<Difference, 'value' | 'shown' | 'margin' | 'told'>, figureUnit: MeasureUnit): WrittenDifference {
  const unit = differenceUnit(figureUnit);
  if (unit === 's' && differ.told !== 'tie') return timeApart(differ);
  const value = Math.abs(differ.shown);
  const margin = differ.margin + Math.abs(differ.shown - differ.value);
  if (differ.told !== 'tie' && margin >= value) return justBy(writeAmount(value, differ.margin, unit));
  if (unit === 's' || unit === 'price' || differ.told === 'tie') return apartBy(writeAmount(value, margin, unit));
  const [shown, off] = inShown(value, margin, unit);
  const told = toldFigures(shown, off, mostDecimals(unit, off));
  return (told.isJust ? justBy : apartBy)(withUnit(told, unit));
}

const justBy = ({ value }: { value: string }): WrittenDifference => ({ value, range: JUST, both: `${value}, ${JUST}`, isJust: true });

function apartBy({ value, margin }: { value: string; margin: string }): WrittenDifference {
  const [, own = ''] = /\s(\D+)$/.exec(margin) ?? [];
  // Of `5 points ± 1 point` too the unit is said once.
  const its = own.startsWith('point') ? [' points', ' point'] : own === '' ? [] : [` ${own}`];
  const end = its.find((each) => value.endsWith(each));
  const bare = end === undefined ? value : value.slice(0, -end.length);
  return { value, range: `± ${margin}`, both: `${bare} ± ${margin}` };
}

/** A time by which two are told apart. Its ends are rounded outward; where the lesser of them comes to nothing, it is just told. */
function timeApart({ value, shown, margin }: Pick<Difference, 'value' | 'shown' | 'margin'>): WrittenDifference {
  const by = Math.abs(shown);
  const ends = [Math.min(by, Math.abs(value) - margin), Math.max(by, Math.abs(value) + margin)] as const;
  const written = spell(by, margin);
  if (rounded(ends[0], margin, 'down') <= 0) return justBy({ value: written });
  const [low, high] = [spell(ends[0], margin, 'down'), spell(ends[1], margin, 'up')];
  const bare = low.endsWith(' min') && /^\d+ min$/.test(high) ? low.replace(' min', '') : low;
  return { value: written, range: `between ${bare} and ${high}`, both: `${written} (${bare} to ${high})` };
}

function inShown(value: number, margin: number, unit: MeasureUnit): [value: number, margin: number] {
  if (unit === 'share') return [value * 100, margin * 100];
  if (unit === '°C') return [shownIn('°C', value), shownDifference('°C', margin)];
  return unit === 'K' ? [shownDifference('°C', value), shownDifference('°C', margin)] : [value, margin];
}

const withUnit = ({ value, margin }: { value: string; margin: string }, unit: MeasureUnit) => ({
  value: inUnit(value, unit),
  margin: inUnit(margin, unit),
});

const inUnit = (figure: string, unit: MeasureUnit): string =>
  unit === 'points' ? inPoints(figure) : `${figure} ${unit === 'share' ? '%' : unit === '°C' || unit === 'K' ? shownUnit('°C') : unit}`;

/** What a difference is in, of figures in a unit: of temperatures a rise. */
export const differenceUnit = (unit: MeasureUnit): MeasureUnit => (unit === '°C' ? 'K' : unit);
