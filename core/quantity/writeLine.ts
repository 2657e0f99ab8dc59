import { clock } from './duration';
import type { LineValues } from './entryLine';
import { QUANTITIES, quantityOf } from './quantity';

/** Writes values as the entry line that says them: what a struck reading is written again from. The time is cut to the second. */
export function writeEntryLine(values: LineValues): string {
  const words = QUANTITIES.flatMap((quantity) => {
    const { place, typed } = quantityOf(quantity);
    const [unit = ''] = Object.keys(typed);
    const turned = quantity === 'percent' && values.turning ? '!' : '';
    return values[quantity] === undefined ? [] : [`${place ? `${place} ` : ''}${values[quantity]}${unit}${turned}`];
  });
  if (values.direction) words.push(values.direction);
  if (values.seen !== undefined) words.push(`@${clock(values.seen)}`);
  if (values.note) words.push(`# ${values.note}`);
  return words.join(' ');
}
