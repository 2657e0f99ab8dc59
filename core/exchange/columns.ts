import { celsiusFromFahrenheit } from '../quantity/electric';
import type { Quantity } from '../ink/track';

/** What a column of a CSV holds, told from its heading. */
export type Column =
  | { holds: 'quantity'; quantity: Quantity; convert: (value: number) => number }
  | { holds: 'elapsed'; scale: number }
  /** A time of day, an instant, or plain numbers: the values tell. */
  | { holds: 'time'; scale: number }
  | { holds: 'note' }
  | { holds: 'kind' }
  /** Place in the order of entry, which decides between two values of one second. */
  | { holds: 'order' };

const TIME_UNITS: Readonly<Record<string, number>> = { ms: 0.001, s: 1, sec: 1, seconds: 1, min: 60, minutes: 60, h: 3600, hours: 3600 };

const same = (value: number) => value;
const thousandth = (value: number) => value / 1000;

/** Headings in plain English, the more particular first. */
const HEADINGS: readonly [RegExp, (unit: string, text: string) => Column][] = [
  [/^kind$/, () => ({ holds: 'kind' })],
  [/^entry$/, () => ({ holds: 'order' })],
  [/^battery (temp|volt|amp|watt)/, (unit, text) => batteryColumn(unit, text)],
  [
    /^(front|back) temp/,
    (unit, text) => quantity(text.startsWith('front') ? 'frontCelsius' : 'backCelsius', /^°?f$/.test(unit) ? celsiusFromFahrenheit : same),
  ],
  [/^(notes?|remarks?|comments?)$/, () => ({ holds: 'note' })],
  [
    /^(elapsed|seconds|minutes|hours|duration)\b/,
    (unit, text) => ({ holds: 'elapsed', scale: TIME_UNITS[unit] ?? TIME_UNITS[text.split(' ')[0] ?? ''] ?? 1 }),
  ],
  [/^(clock |local |utc )?(time|timestamp|date|datetime|date time)\b/, (unit) => ({ holds: 'time', scale: TIME_UNITS[unit] ?? 1 })],
  [
    /(milli)?amp(ere)?s?[ -]?hours?|^(m?ah)$|^capacity\b/,
    (unit, text) => quantity('milliampHours', unit === 'ah' || /^ah$|^amp/.test(text) ? (value) => value * 1000 : same),
  ],
  [/watt[ -]?hours?|^m?wh$|^energy\b/, (unit, text) => quantity('wattHours', unit === 'mwh' || text === 'mwh' ? thousandth : same)],
  [
    /^temp|^celsius$|^fahrenheit$|^°[cf]$/,
    (unit, text) => quantity('celsius', /^°?f$|fahrenheit/.test(unit) || /fahrenheit|°f/.test(text) ? celsiusFromFahrenheit : same),
  ],
  [/volt|^vbus\b|^m?v$/, (unit, text) => quantity('volts', milli(unit, text, 'mv', 'millivolt'))],
  [/^current\b|amp|^m?a$/, (unit, text) => quantity('amps', milli(unit, text, 'ma', 'milliamp'))],
  [/watt|^power\b|^m?w$/, (unit, text) => quantity('watts', milli(unit, text, 'mw', 'milliwatt'))],
  [/percent|^%$|^battery\b|^level\b|^soc$|^state of charge|^charge\b/, () => quantity('percent', same)],
];

/** What the system says of the battery. */
function batteryColumn(unit: string, text: string): Column {
  if (text.startsWith('battery temp')) return quantity('batteryCelsius', /^°?f$/.test(unit) ? celsiusFromFahrenheit : same);
  const names = { volt: 'batteryVolts', amp: 'batteryAmps', watt: 'batteryWatts' } as const;
  const name = (Object.keys(names) as (keyof typeof names)[]).find((each) => text.startsWith(`battery ${each}`)) ?? 'watt';
  return quantity(names[name], unit.startsWith('m') ? thousandth : same);
}

function quantity(name: Quantity, convert: (value: number) => number): Column {
  return { holds: 'quantity', quantity: name, convert };
}

const milli = (unit: string, text: string, short: string, long: string) =>
  unit === short || text === short || text.startsWith(long) ? thousandth : same;

const LONGEST_HEADING = 200;

/**
 * Tells what a column holds from a heading in plain English, with or without a unit: `Voltage (V)`, `current_mA`, `Power [W]`,
 * `Battery %`, `elapsed (s)`, `Temperature °F`.
 *
 * @returns `undefined` for a heading it does not know
 */
export function columnOf(heading: string): Column | undefined {
  // Blanks are drawn together and the rest is left: no heading is longer, and what looks for units would take long over it.
  const tidy = heading
    .slice(0, LONGEST_HEADING)
    .replace(/^\uFEFF/, '')
    .replaceAll('_', ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();
  const match = /^(.*?)\s*(?:[([](.*?)[)\]]|\b(ms|s|min|mv|v|ma|a|mw|w|wh|mwh|mah|ah|%|°?[cf])|(°[cf]|%))$/.exec(tidy);
  const text = (match?.[1] || tidy).trim();
  const unit = (match?.[2] ?? match?.[3] ?? match?.[4] ?? '').trim();
  for (const [pattern, make] of HEADINGS) if (pattern.test(text)) return make(unit, text);
  return undefined;
}
