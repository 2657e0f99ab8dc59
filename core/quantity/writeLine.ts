import { clock } from './duration';
import type { LineValues } from './entryLine';
import { trimmed } from './figures';
import { inManner, shownIn, shownUnit } from './manner';
import { QUANTITIES, quantityOf } from './quantity';

/** Writes values as the entry line that says them: what a struck reading is written again from. The time is cut to the second. */
export function writeEntryLine(values: LineValues): string {
  const words = QUANTITIES.flatMap((quantity) => {
    const { place, typed, unit } = quantityOf(quantity);
    const [first = ''] = Object.keys(typed);
    const turned = quantity === 'percent' && values.turning ? '!' : '';
    const { [quantity]: value } = values;
    if (value === undefined) return [];
    const typedUnit = shownUnit(unit) === '°F' ? 'f' : first;
    const figure = shownUnit(unit) === unit ? inManner(String(value)) : trimmed(shownIn(unit, value), 3);
    return [`${place ? `${place} ` : ''}${figure}${typedUnit}${turned}`];
  });
  if (values.direction) words.push(values.direction);
  if (values.seen !== undefined) words.push(`@${clock(values.seen)}`);
  if (values.note) words.push(`# ${values.note}`);
  return words.join(' ');
}
