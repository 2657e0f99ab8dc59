import type { LineValues } from './entryLine';
import { clock } from './duration';

const UNITS = [
  ['percent', ''],
  ['volts', 'v'],
  ['amps', 'a'],
  ['watts', 'w'],
  ['wattHours', 'wh'],
  ['milliampHours', 'mah'],
  ['celsius', 'c'],
  ['frontCelsius', 'c', 'front '],
  ['backCelsius', 'c', 'back '],
  ['batteryCelsius', 'c', 'bat '],
  ['batteryVolts', 'v', 'bat '],
  ['batteryAmps', 'a', 'bat '],
  ['batteryWatts', 'w', 'bat '],
] as const;

/** Writes values as the entry line that says them: what a struck reading is written again from. The time is cut to the second. */
export function writeEntryLine(values: LineValues): string {
  const words = UNITS.flatMap(([figure, unit, place = '']) => (values[figure] === undefined ? [] : [`${place}${values[figure]}${unit}`]));
  if (values.direction) words.push(values.direction);
  if (values.seen !== undefined) words.push(`@${clock(values.seen)}`);
  if (values.note) words.push(`# ${values.note}`);
  return words.join(' ');
}
