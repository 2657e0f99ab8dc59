import type { ReadRun } from '../curve/figures';
import type { Working } from '../curve/working';
import { shownMargin } from '../margin/bounds';
import { difference, writeRank, type Difference, type Measured, type Pooled, type Rank } from '../margin/told';
import { spell } from '../quantity/duration';
import { fixed, percentWithMargin, price, withMargin } from '../quantity/figures';
import { shownDifference, shownIn, shownUnit } from '../quantity/manner';
import { column, type Compared } from './column';
import type { SetupRuns } from './setups';

/** What a figure that is compared is kept in: seconds, degrees, a rise in degrees, a share, points of a percentage, or a unit as it is written. */
export type MeasureUnit = 's' | '°C' | 'K' | 'share' | 'price' | '%' | 'points' | 'W' | 'Wh' | 'mAh' | 'h';

/** What one run says of a figure, in words. */
export interface Said {
  value?: string | undefined;
  range?: string | undefined;
  working?: Working | undefined;
}

/** A figure of a setup as a table has it. */
export interface Cell {
  /** The mean of its runs, where each of them has the figure. */
  mean: Pooled | undefined;
  rank: Rank | undefined;
  spread: Compared<unknown>['spread'];
  /** Several sources fed the setup: it is told by itself, and set against no other. */
  isAlone: boolean;
  /** Absent where there is none. */
  value?: string | undefined;
  /** What it lies between, or the one margin it has. */
  range: string;
  /** `1`, `2=`; absent without one. */
  place?: string | undefined;
  /** Whether none is surely better. */
  isBest: boolean;
  /** What each of its runs says. */
  each: (Said & { id: string; /** Whether it was seen by the end. */ isSeen: boolean })[];
}

/** A figure by which setups can be compared. */
export interface Measure {
  id: string;
  group: MeasureGroup;
  title: string;
  unit: MeasureUnit;
  /** Whether less of it or more of it wins; `undefined` of what is told and not ranked. */
  better?: 'less' | 'more' | undefined;
  /** Its figure of every setup. */
  compare: (setups: readonly SetupRuns[]) => Cell[];
}
export type MeasureGroup = 'Gains' | 'Times' | 'Power and energy' | 'Heat' | 'Price';

/** How a figure is found in a run, measured and said. */
export interface MeasureParts<Found> extends Omit<Measure, 'compare'> {
  find: (one: ReadRun) => Found | undefined;
  /** `undefined` where it cannot be compared. */
  measured: (found: Found, one: ReadRun) => Measured | undefined;
  says: (found: Found, one: ReadRun) => Said;
  /** Whether the figures of these setups may be ranked against each other. */
  mayRank?: ((setups: readonly SetupRuns[]) => boolean) | undefined;
}

/** Makes a measure of its parts. */
export function measure<Found>({ find, measured, says, mayRank, ...about }: MeasureParts<Found>): Measure {
  return {
    ...about,
    compare(setups) {
      const found = setups.map(({ runs }) => runs.map((one) => ({ one, found: find(one) })));
      const cells = column(
        found,
        () => (each) => (each.found === undefined ? undefined : measured(each.found, each.one)),
        mayRank && !mayRank(setups) ? undefined : about.better,
        (index) => setups[index]?.isSequence ?? false,
      );
      return cells.map((cell, index) => {
        const each = cell.each.map(({ one, found: its }) => ({
          id: one.run.header.id,
          isSeen: isSeen(its === undefined ? undefined : measured(its, one)),
          ...(its === undefined ? {} : says(its, one)),
        }));
        return {
          mean: cell.mean,
          rank: cell.rank,
          spread: cell.spread,
          isAlone: setups[index]?.isSequence ?? false,
          ...written(each, cell.mean, about.unit),
          place: cell.rank && writeRank(cell.rank),
          isBest: cell.rank?.place === 1,
          each,
        };
      });
    },
  };
}

const isSeen = (found: Measured | undefined) => found !== undefined && !found.isLeast;

/** A setup of one run says what the run says; one of several their mean; one that has the figure of some of them alone says so. */
function written(each: Cell['each'], mean: Pooled | undefined, unit: MeasureUnit): Pick<Cell, 'value' | 'range'> {
  const [only] = each;
  if (each.length === 1) return { value: only?.value, range: only?.range ?? '' };
  if (mean && !mean.isLeast) {
    const { value, margin } = writeAmount(mean.value, shownMargin(mean.uncertainty), unit);
    return { value, range: mean.uncertainty === 0 ? `of ${mean.runs}` : `± ${margin}, mean of ${mean.runs}` };
  }
  const some = each.filter((one) => one.isSeen);
  return some.length === 0
    ? { value: only?.value, range: only?.range ?? '' }
    : { value: `${some.length} of ${each.length}`, range: 'of its runs' };
}

/** Digits after the point at most. */
const MOST_DECIMALS: Readonly<Record<Exclude<MeasureUnit, 's' | '%' | 'points' | 'price'>, number>> = {
  '°C': 1,
  K: 1,
  share: 0,
  W: 1,
  Wh: 1,
  mAh: 0,
  h: 1,
};

/** A figure and its margin, with their unit, rounded to what the margin supports: `53 min`, `3 min`; `12.4 W`, `0.3 W`. */
export function writeAmount(value: number, margin: number, unit: MeasureUnit): { value: string; margin: string } {
  if (unit === 's') {
    const step = margin < 60 ? 1 : 60;
    const sign = value < 0 ? '−' : '';
    return { value: sign + spell(Math.abs(value), margin), margin: spell(Math.ceil(margin / step - 1e-9) * step, margin) };
  }
  if (unit === 'price') return { value: price(value), margin: price(margin) };
  const [shown, off] = inShown(value, margin, unit);
  const told = unit === '%' || unit === 'points' ? percentWithMargin(shown, off) : withMargin(shown, off, MOST_DECIMALS[unit]);
  return { value: `${told.value} ${unitName(unit, told.value)}`, margin: `${told.margin} ${unitName(unit, told.margin)}` };
}

/** A difference that is told, and its margin; or that it is just told, where the two would be written alike. */
export interface WrittenTold {
  value: string;
  margin: string;
  isJust?: true;
}

/**
 * A figure that lies beyond its margin, and that margin: a digit finer where rounding alone would make the margin as large as the figure. A margin has two
 * significant digits at most (GUM 7.2.6); where those do not tell them apart, it is *just* told.
 *
 * @param value without its sign
 * @param most  decimals at most where that is not so
 * @example toldFigures(8.4, 8.1, 0) // 8.4 and 8.1: rounded it would be 8 ± 9
 */
export function toldFigures(value: number, margin: number, most: number): WrittenTold {
  const usual = Math.min(most, Math.max(0, Math.ceil(-Math.log10(margin))));
  const isClear = (decimals: number) => Math.ceil(margin * 10 ** decimals - 1e-9) < Math.round(value * 10 ** decimals);
  if (margin >= value || !(margin > 0) || isClear(usual)) return withMargin(value, margin, most);
  const finest = Math.max(usual, 1 - Math.floor(Math.log10(margin)));
  const decimals = [1, 2, 3, 4, 5].find((each) => each > usual && each <= finest && isClear(each));
  if (decimals === undefined) return { ...withMargin(value, margin, usual), isJust: true };
  return { value: fixed(value, decimals), margin: fixed(Math.ceil(margin * 10 ** decimals - 1e-9) / 10 ** decimals, decimals) };
}

/** A difference that is told apart, and its margin, with their unit, as `toldFigures`. @param value without its sign */
export function writeTold(value: number, margin: number, unit: MeasureUnit): WrittenTold {
  const usual = writeAmount(value, margin, unit);
  if (unit === 'price' || (unit === 's' && margin < 60)) return usual;
  const [shown, off, most] =
    unit === 's'
      ? [value / 60, margin / 60, 0]
      : [...inShown(value, margin, unit), unit === '%' || unit === 'points' ? (margin < 0.5 ? 1 : 0) : MOST_DECIMALS[unit]];
  const told = toldFigures(shown, off, most);
  if (told.isJust) return { ...usual, isJust: true };
  const plain = withMargin(shown, off, most);
  if (told.value === plain.value && told.margin === plain.margin) return usual;
  const nameOf = (figure: string) => (unit === 's' ? 'min' : unitName(unit, figure));
  return { value: `${told.value} ${nameOf(told.value)}`, margin: `${told.margin} ${nameOf(told.margin)}` };
}

/** A difference without its sign, as it is told; of a tie as any figure. */
export const writeApart = ({ value, margin, told }: Pick<Difference, 'value' | 'margin' | 'told'>, unit: MeasureUnit): WrittenTold =>
  (told === 'tie' ? writeAmount : writeTold)(Math.abs(value), margin, differenceUnit(unit));

/** Behind a value: `± 3 min`, or that it is just told apart. */
export const marginSays = ({ margin, isJust }: WrittenTold): string => (isJust ? 'just told apart' : `± ${margin}`);

function inShown(value: number, margin: number, unit: MeasureUnit): [value: number, margin: number] {
  if (unit === 'share') return [value * 100, margin * 100];
  if (unit === '°C') return [shownIn('°C', value), shownDifference('°C', margin)];
  return unit === 'K' ? [shownDifference('°C', value), shownDifference('°C', margin)] : [value, margin];
}

function unitName(unit: MeasureUnit, figure: string): string {
  if (unit === 'points' && /^[−+]?1$/.test(figure)) return 'point';
  return unit === 'share' ? '%' : unit === '°C' || unit === 'K' ? shownUnit('°C') : unit;
}

/** What a difference is in, of figures in a unit: of temperatures a rise, of percentages points, for a percent of a figure is another thing. */
export const differenceUnit = (unit: MeasureUnit): MeasureUnit => (unit === '°C' ? 'K' : unit === '%' ? 'points' : unit);

/** How a setup differs from the baseline in one figure: `−12 min`, `± 3 min`; a tie as a tie; nothing where either has none. */
export function writeDifference(cell: Cell, zero: Cell, unit: MeasureUnit): Pick<Cell, 'value' | 'range'> {
  const [one, base] = [cell.mean, zero.mean];
  if (cell.isAlone) return { range: 'several sources fed it' };
  if (cell === zero) return cell.value === undefined ? { range: '' } : { value: 'baseline', range: cell.value };
  if (!one || !base || one.isLeast || base.isLeast)
    return { range: one?.isLeast ? 'not seen by the end' : base?.isLeast ? 'the baseline was not seen so far' : '' };
  const differ = difference(base, one, cell.spread);
  const written = writeApart(differ, unit);
  const { value, margin } = written;
  const signed = differ.value < 0 ? `−${value}` : differ.value > 0 ? `+${value}` : value;
  // What has no margin of its own is told as it is.
  if (differ.margin === 0) return { value: signed, range: '' };
  return differ.told === 'tie' ? { value: 'a tie', range: `${signed} ± ${margin}` } : { value: signed, range: marginSays(written) };
}

/** Where a figure lies for sure, or in 95 of 100 cases: the whiskers of its bar. */
export function whiskersOf({ mean }: Cell): { low: number; high: number } | undefined {
  if (!mean || mean.isLeast) return undefined;
  const margin = shownMargin(mean.uncertainty);
  return { low: mean.value - margin, high: mean.value + margin };
}

/**
 * How the figure of a setup came about, in sentences: each of its runs, what repeats vary by, and who is surely better.
 *
 * @param names of the setups, in the order of the cells
 */
export function workingOf(
  cells: readonly Cell[],
  index: number,
  names: readonly string[],
  { unit, better }: Pick<Measure, 'unit' | 'better'>,
): string[] {
  const cell = cells[index];
  if (!cell?.mean) return ['There is no figure to compare: not every run of this setup has it.'];
  const { mean, spread } = cell;
  const { value, margin } = writeAmount(mean.value, shownMargin(mean.uncertainty), unit);
  const known = Number.isFinite(spread.freedom)
    ? `as repeats here show, with ${fixed(spread.freedom, 1)} degrees of freedom`
    : 'assumed, for nothing here is repeated';
  const says = [
    mean.runs > 1 ? `Mean of ${mean.runs} runs: ${value} ± ${margin}.` : `One run: ${value}; with how runs vary ± ${margin}.`,
    `Runs of one setup differ by ${fixed(spread.sigma * 100, 1)} %, ${known}.`,
  ];
  if (!better) return [...says, 'It is told and not ranked.'];
  if (cell.isAlone) return [...says, 'Several sources fed it, one after another: it is told by itself.'];
  for (const [other, theirs] of cells.entries()) {
    if (other === index || !theirs.mean || theirs.isAlone) continue;
    const differ = difference(mean, theirs.mean, spread);
    const by = writeApart(differ, unit);
    const name = names[other] ?? '';
    if (differ.told === 'tie') says.push(`${name}: a tie; ${by.value} apart, and a difference is told from ${by.margin} on.`);
    else
      says.push(
        `${name} is surely ${(differ.told === 'below') === (better === 'more') ? 'better' : 'worse'}: ${by.value} ${marginSays(by)}.`,
      );
  }
  return says;
}
