import { nominal, spell } from '../quantity/duration';
import { temperature, temperatureRise } from '../quantity/figures';
import { quantityOf } from '../quantity/quantity';
import type { Heat } from './heat';
import type { WrittenFigure } from './written';

/** Surfaces and the battery are kept apart. */
export function heatFigure({ of, name, first, top, read, marks, levels, overRoom, tooHot, backAt }: Heat): WrittenFigure {
  const { place, unit } = quantityOf(of);
  const where = name ?? (place === 'bat' ? 'battery' : place);
  const says = [
    `at ${spell(top.seconds)}`,
    top !== first && `${temperatureRise(top.value - first.value)} more than at first`,
    overRoom !== undefined && `${temperatureRise(overRoom)} over the room`,
    ...marks.map(({ seconds, celsius }) => `${temperature(celsius)} at ${nominal(seconds)}`),
    ...levels.map(({ level, celsius }) => `${temperature(celsius)} at ${level} %`),
    tooHot && `above ${temperature(tooHot.limit, 0)} for ${spell(tooHot.seconds)}`,
    backAt !== undefined && `back at ${spell(backAt)}`,
  ];
  return {
    id: place === undefined ? 'hottest' : `hottest-${place}`,
    group: 'Heat',
    label: where === undefined ? 'Hottest' : `Hottest, ${where}`,
    value: temperature(top.value),
    detail: says.filter(Boolean).join(' · '),
    working: { formula: `the highest of ${read} readings; marks on the line between them`, unit, uses: [top] },
    span: { from: top.seconds, to: top.seconds },
  };
}
