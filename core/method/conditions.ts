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
