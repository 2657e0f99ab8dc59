import type { Convert } from '../quantity/quantities';
import { QUANTITIES, quantityOf, type Quantity } from '../quantity/quantity';

/** What a column of a CSV holds, told from its heading. */
export type Column =
  | { holds: 'quantity'; quantity: Quantity; convert: Convert }
  | { holds: 'elapsed'; scale: number }
  /** A time of day, an instant, or plain numbers: the values tell. */
  | { holds: 'time'; scale: number }
  | { holds: 'note' }
  | { holds: 'kind' }
  /** Place in the order of entry, which decides between two values of one second. */
  | { holds: 'order' };

const TIME_UNITS: Readonly<Record<string, number>> = { ms: 0.001, s: 1, sec: 1, seconds: 1, min: 60, minutes: 60, h: 3600, hours: 3600 };

/** Headings of what is no quantity, in plain English. */
const HEADINGS: readonly [RegExp, (unit: string, text: string) => Column][] = [
  [/^kind$/, () => ({ holds: 'kind' })],
  [/^entry$/, () => ({ holds: 'order' })],
  [/^(notes?|remarks?|comments?)$/, () => ({ holds: 'note' })],
  [
    /^(elapsed|seconds|minutes|hours|duration)\b/,
    (unit, text) => ({ holds: 'elapsed', scale: TIME_UNITS[unit] ?? TIME_UNITS[text.split(' ')[0] ?? ''] ?? 1 }),
  ],
  [/^(clock |local |utc )?(time|timestamp|date|datetime|date time)\b/, (unit) => ({ holds: 'time', scale: TIME_UNITS[unit] ?? 1 })],
];

/** The quantities as their headings are tried, the more particular first. */
const BY_HEADING = [...QUANTITIES].sort((one, other) => turnOf(one) - turnOf(other));

function turnOf(quantity: Quantity): number {
  const { place, tried } = quantityOf(quantity);
  return place ? 0 : tried === 'first' ? 1 : tried === 'last' ? 3 : 2;
}

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
  const quantity = BY_HEADING.find((each) => quantityOf(each).headed.test(text));
  return quantity && { holds: 'quantity', quantity, convert: quantityOf(quantity).convert(unit, text) };
}
