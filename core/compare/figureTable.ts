import { shownMargin } from '../margin/bounds';
import { shownDifference, shownIn, shownUnit } from '../quantity/manner';
import type { PlainTable } from '../quantity/plainTable';
import { roundedAmount, type MeasureUnit } from './amounts';
import type { Cell, Measure } from './cells';
import type { FigureMatrix } from './matrix';

/** What a figure is handed on in: times in minutes, shares in percent, all else as it is shown. */
const UNIT: Readonly<Partial<Record<MeasureUnit, string>>> = { s: 'min', share: '%', points: 'points', price: '' };
const near = (value: number): number => Math.round(value * 100) / 100;

/** How a figure kept in a unit is handed on, and in which unit. */
interface HandedOn {
  unit: (unit: MeasureUnit) => string;
  convert: (value: number, unit: MeasureUnit) => number;
}

/** As it is shown to this person. */
const AS_SHOWN: HandedOn = {
  unit: (unit) => UNIT[unit] ?? shownUnit(unit === 'K' ? '°C' : unit),
  convert: (value, unit) => (unit === 'K' ? shownDifference('°C', value) : shownIn(unit, value)),
};
/** The same for everybody: for other programs. */
export const AS_KEPT: HandedOn = { unit: (unit) => UNIT[unit] ?? unit, convert: (value) => value };

/** To two decimals: a second is a hundredth of a minute or two. */
function handed(value: number, unit: MeasureUnit, { convert }: HandedOn): number {
  if (unit === 's') return near(value / 60);
  return near(unit === 'share' ? value * 100 : convert(value, unit));
}

/** A figure as it is told, and what it lies between, as numbers; nothing where none can be compared. */
export function numbersOf(
  cell: Cell | undefined,
  unit: MeasureUnit,
  as: HandedOn = AS_SHOWN,
): { value: number; low: number; high: number } | undefined {
  const { mean } = cell ?? {};
  if (!mean || mean.isLeast) return undefined;
  const margin = mean.margin ?? shownMargin(mean.uncertainty);
  const value = mean.shown ?? roundedAmount(mean.value, margin, unit);
  const isByBounds = mean.runs === 1 && mean.margin === undefined;
  const bounds = isByBounds && mean.bounds ? mean.bounds : { low: value - margin, high: value + margin };
  const told = mean.runs === 1 && cell?.isByLatest ? bounds.high : value;
  const [low, high] = [Math.min(bounds.low, told), Math.max(bounds.high, told)];
  return { value: handed(told, unit, as), low: handed(low, unit, as), high: handed(high, unit, as) };
}

/** What is handed on of each figure: its place, itself, what it lies between, and its unit, in columns of their own. */
const headsOf = ({ title, better }: Measure): string[] => [
  ...(better ? [`${title}: rank`] : []),
  title,
  `${title}: lower`,
  `${title}: upper`,
  `${title}: unit`,
  `${title}: as told`,
];

function cellsOf(cell: Cell | undefined, { unit, better }: Measure): (string | number | undefined)[] {
  const numbers = numbersOf(cell, unit);
  const told = [cell?.value, cell?.range].filter(Boolean).join(', ');
  return [
    ...(better ? [cell?.place] : []),
    numbers?.value,
    numbers?.low,
    numbers?.high,
    numbers ? AS_SHOWN.unit(unit) : undefined,
    told === '' ? undefined : told,
  ];
}

/**
 * A comparison as it is handed on: a row a setup, and of each figure its rank, value, lower and upper bound and unit in columns of their own, so that no
 * program reads a rank and a figure as one number.
 *
 * @param order of the setups, by their place in the cells
 */
export const figureTable = (
  caption: string,
  names: readonly string[],
  measures: readonly Measure[],
  cells: readonly (readonly Cell[])[],
  order: readonly number[] = [...names.keys()],
): PlainTable => ({
  caption,
  heads: ['Setup', ...measures.flatMap(headsOf)],
  rows: order.map((index) => [names[index], ...measures.flatMap((measure, at) => cellsOf(cells[at]?.[index], measure))]),
});

/** A matrix of one figure as it is handed on: a row a device and source. */
export const matrixTable = ({ devices, sources }: FigureMatrix, measure: Measure): PlainTable => ({
  caption: `${measure.title}, devices by chargers`,
  heads: ['Device', 'Charger', ...headsOf(measure)],
  rows: devices.flatMap(({ name, cells }) =>
    cells.flatMap((found, at) => (found ? [[name, sources[at]?.name, ...cellsOf(found.cell, measure)]] : [])),
  ),
});
