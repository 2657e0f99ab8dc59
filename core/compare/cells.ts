import type { ReadRun } from '../curve/figures';
import type { Working } from '../curve/working';
import { shownMargin } from '../margin/bounds';
import { difference, writeRank, type Measured, type Pooled, type Rank } from '../margin/told';
import { fixed } from '../quantity/figures';
import { differenceUnit, writeAmount, writeApart, type MeasureUnit } from './amounts';
import { column, ranksAmong } from './column';
import type { SetupRuns } from './setups';

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
  /** Several sources fed the setup: it is told by itself, and set against no other. */
  isAlone: boolean;
  /** It is told by its latest, and ranked by the middle of what it lies between. */
  isByLatest: boolean;
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
  /** Its figure of every setup that stands on a page: how repeats vary, and how a time is told, is one for all of them. */
  compare: (setups: readonly SetupRuns[]) => Cell[];
  /** Figures of some of these setups, as they stand there, ranked among themselves alone. */
  ranked: (setups: readonly SetupRuns[], cells: readonly Cell[]) => Cell[];
}
export type MeasureGroup = 'Gains' | 'Times' | 'Power and energy' | 'Heat' | 'Price';

/** How a figure is found in a run, measured and said. */
export interface MeasureParts<Found> extends Omit<Measure, 'compare' | 'ranked'> {
  find: (one: ReadRun) => Found | undefined;
  /** `undefined` where it cannot be compared. */
  measured: (found: Found, one: ReadRun) => Measured | undefined;
  /** @param isByLatest whether what is told by its latest is told so here */
  says: (found: Found, one: ReadRun, isByLatest: boolean) => Said;
  /** Whether the figures of these setups may be ranked against each other. */
  mayRank?: ((setups: readonly SetupRuns[]) => boolean) | undefined;
}

/** Makes a measure of its parts. */
export function measure<Found>({ find, measured, says, mayRank, ...about }: MeasureParts<Found>): Measure {
  const ranked: Measure['ranked'] = (setups, cells) => {
    const ranks = ranksAmong(
      cells.map(({ mean }) => mean),
      (index) => cells[index]?.isAlone ?? false,
      mayRank && !mayRank(setups) ? undefined : about.better,
    );
    return cells.map((cell, index) => {
      const its = ranks[index];
      return { ...cell, rank: its, place: its && writeRank(its), isBest: its?.place === 1 };
    });
  };
  return {
    ...about,
    ranked,
    compare(setups) {
      const found = setups.map(({ runs }) =>
        runs.map((one) => {
          const its = find(one);
          return { one, found: its, measured: its === undefined ? undefined : measured(its, one) };
        }),
      );
      const cells = column(setups, found, () => (each) => each.measured, about.unit, undefined);
      const unranked = cells.map((cell, index): Cell => {
        const each = cell.each.map(({ one, found: its, measured: figure }) => ({
          id: one.run.header.id,
          isSeen: isSeen(figure),
          ...(its === undefined ? {} : says(its, one, cell.isByLatest)),
        }));
        return {
          mean: cell.mean,
          rank: undefined,
          isAlone: setups[index]?.isSequence ?? false,
          isByLatest: cell.isByLatest && cell.each.some(({ measured: figure }) => figure?.latest !== undefined),
          ...written(each, cell.mean, about.unit),
          isBest: false,
          each,
        };
      });
      return ranked(setups, unranked);
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

/** How a setup differs from the baseline in one figure: `−12 min`, `± 3 min`; a tie as a tie; nothing where either has none. */
export function writeDifference(cell: Cell, zero: Cell, unit: MeasureUnit): Pick<Cell, 'value' | 'range'> {
  const [one, base] = [cell.mean, zero.mean];
  if (cell.isAlone) return { range: 'several sources fed it' };
  if (cell === zero) return cell.value === undefined ? { range: '' } : { value: 'baseline', range: cell.value };
  if (!one || !base || one.isLeast || base.isLeast)
    return { range: one?.isLeast ? 'not seen by the end' : base?.isLeast ? 'the baseline was not seen so far' : '' };
  const differ = difference(base, one);
  const { value, range, both } = writeApart(differ, unit);
  const sign = differ.shown < 0 ? '−' : differ.shown > 0 ? '+' : '';
  // What has no margin of its own is told as it is.
  if (differ.margin === 0) return { value: sign + value, range: '' };
  return differ.told === 'tie' ? { value: 'a tie', range: sign + both } : { value: sign + value, range };
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
  const { mean } = cell;
  const { spread } = mean;
  const { value, margin } = writeAmount(mean.value, shownMargin(mean.uncertainty), unit);
  const known = Number.isFinite(spread.freedom)
    ? `as repeats here show, with ${fixed(spread.freedom, 1)} degrees of freedom`
    : 'assumed, for nothing here is repeated';
  const says = [
    mean.runs > 1
      ? `Mean of ${mean.runs} runs: ${value} ± ${margin}.`
      : `One run: ${cell.value ?? value}; ${cell.isByLatest && cell.value !== value ? `ranked by its middle, ${value}; ` : ''}with how runs vary ± ${margin}.`,
    `Runs of one setup differ by ${fixed(spread.sigma * 100, 1)} %, ${known}.`,
  ];
  if (!better) return [...says, 'It is told and not ranked.'];
  if (cell.isAlone) return [...says, 'Several sources fed it, one after another: it is told by itself.'];
  for (const [other, theirs] of cells.entries()) {
    if (other === index || !theirs.mean || theirs.isAlone) continue;
    const differ = difference(mean, theirs.mean);
    const by = writeApart(differ, unit);
    const name = names[other] ?? '';
    if (differ.told === 'tie')
      says.push(
        `${name}: a tie; ${by.value} apart, and a difference is told from ${writeAmount(differ.margin, differ.margin, differenceUnit(unit)).margin} on.`,
      );
    else says.push(`${name} is surely ${(differ.told === 'below') === (better === 'more') ? 'better' : 'worse'}: by ${by.both}.`);
  }
  return says;
}
