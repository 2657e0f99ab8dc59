import { inManner, keptFrom, shownIn, shownUnit } from '../quantity/manner';
import { readDecimal } from '../quantity/decimal';
import { trimmed } from '../quantity/figures';
import type { Condition } from './conditionSchema';

/** The condition that says for how many minutes a device is left off before a run. */
export const REST = 'minutes left off before';

/** The condition that says how warm the room is. */
export const AMBIENT = 'ambient, °C';

/** Settings that must match from run to run (common practice, no source), each with the value usually chosen. */
export const CONDITIONS: readonly Condition[] = [
  { name: 'airplane mode', value: 'on' },
  { name: 'Wi-Fi', value: 'off' },
  { name: 'screen', value: 'off between checks' },
  { name: 'brightness', value: 'half' },
  { name: 'keyboard light', value: 'off' },
  { name: 'locked', value: 'yes' },
  { name: 'low-power mode', value: 'off' },
  { name: 'adaptive charging, all of it', value: 'off' },
  { name: 'background refresh', value: 'off' },
  { name: 'apps', value: 'closed' },
  { name: 'case', value: 'off' },
  { name: REST, value: '15' },
  { name: AMBIENT, value: '22' },
  { name: 'system version', value: '' },
];

/** A condition as it is shown: how warm the room is in the chosen scale; what is no number stays as it was written. */
export function shownCondition({ name, value }: Condition): Condition {
  if (name !== AMBIENT) return { name, value: inManner(value) };
  const celsius = readDecimal(value);
  const shown = value.trim() === '' || Number.isNaN(celsius) ? value : trimmed(shownIn('°C', celsius), 1);
  return { name: name.replace('°C', shownUnit('°C')), value: shown };
}

/** How warm the room is, as it was typed in the chosen scale, as it is kept: in °C. */
export function keptAmbient(typed: string): string {
  const shown = readDecimal(typed);
  return typed.trim() === '' || Number.isNaN(shown) ? typed.trim() : String(Number(keptFrom('°C', shown).toFixed(2)));
}
