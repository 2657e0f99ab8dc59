import type { Convert } from '../quantity/quantities';
import { QUANTITIES, quantityOf, type Quantity } from '../quantity/quantity';
import { bareUnit, isKeptUnit, isOtherUnit, isUnit, TIMES, unitFor } from './units';

/** What a column of a CSV holds, told from its heading. */
export type Column =
  | { holds: 'quantity'; quantity: Quantity; convert: Convert }
  | { holds: 'elapsed'; scale: number }
  /** A time of day, an instant, or plain numbers: the values tell; `isOfDay` where it is said that `14:02` is one of the day. */
  | { holds: 'time'; scale: number; isOfDay?: true }
  /** The day alone, beside a column of times of day. */
  | { holds: 'date' }
  | { holds: 'note' }
  /** Which of several devices the row is of. */
  | { holds: 'device' }
  | { holds: 'kind' }
  /** Place in the order of entry, which decides between two values of one second. */
  | { holds: 'order' };

const TIME_UNITS: Readonly<Record<string, number>> = { ...TIMES, sec: 1, seconds: 1, minutes: 60, hours: 3600 };

/** Headings of what is no quantity, in plain English. */
const HEADINGS: readonly [RegExp, (unit: string, text: string) => Column][] = [
  [/^kind$/, () => ({ holds: 'kind' })],
  [/^entry$/, () => ({ holds: 'order' })],
  [/^(notes?|remarks?|comments?|events?|messages?)$/, () => ({ holds: 'note' })],
  [/^(devices?|device (name|id)|dut|channel|ch)$/, () => ({ holds: 'device' })],
  [
    /^(elapsed|seconds|minutes|hours|duration)\b/,
    (unit, text) => ({ holds: 'elapsed', scale: TIME_UNITS[unit] ?? TIME_UNITS[text.split(' ')[0] ?? ''] ?? 1 }),
  ],
  [/^((clock|local|utc) time|clock|time of day)\b/, () => ({ holds: 'time', scale: 1, isOfDay: true })],
  [/^(local |utc )?(time|timestamp|date|datetime|date time)\b/, (unit) => ({ holds: 'time', scale: TIME_UNITS[unit] ?? 1 })],
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
  const alone = TIME_UNITS[tidy];
  if (alone !== undefined) return { holds: 'elapsed', scale: alone };
  const match = TRAILING_UNIT.exec(tidy);
  const text = (match?.[1] || tidy).trim();
  const unit = unitIn(match);
  for (const [pattern, make] of HEADINGS) if (pattern.test(text)) return make(unit, text);
  const known = unitFor(unit) ?? unitFor(text.split(' ').at(-1) ?? '');
  const named = BY_HEADING.filter((each) => quantityOf(each).headed.test(text));
  // What is measured in a unit of its own goes by its heading.
  const own = named.find((each) => !isKeptUnit(quantityOf(each).unit));
  if (!own && (isOtherUnit(unit) || NOT_READ.test(text) || (!known && EITHER.test(text)))) return undefined;
  // Its unit decides what a column can hold; without one, its noun does.
  const kept = known?.kept ?? keptOf(text);
  const quantity =
    own ??
    named.find((each) => kept === undefined || quantityOf(each).unit === kept) ??
    (kept === undefined ? undefined : heldBy(kept, text));
  return quantity && { holds: 'quantity', quantity, convert: (own ? undefined : known?.convert) ?? ((value) => value) };
}

/** The unit at the end of a heading, in brackets or not. */
const unitIn = (match: RegExpExecArray | null): string => (match?.[2] ?? match?.[3] ?? match?.[4] ?? '').trim();

/** What a column can hold by its unit alone, where its heading is in no words that are known here: a guess, for a person to look at. */
export function columnByUnit(heading: string): Column | undefined {
  const match = TRAILING_UNIT.exec(heading.slice(0, LONGEST_HEADING).trim().toLowerCase());
  const known = unitFor(unitIn(match));
  const quantity = known && heldBy(known.kept, '');
  return quantity && { holds: 'quantity', quantity, convert: known.convert };
}

/** Without a unit this is percent in one log and milliamp-hours in the next: it is asked. */
const EITHER = /^battery capacity$/;
const TRAILING_UNIT = /^(.*?)\s*(?:[([](.*?)[)\]]|\b([mµμuk]?v|[mµμu]?a|[mµμuk]?w|[mk]?wh|[mµμu]?ah|k?j|ms|s|min|%|°?[cf])|(°[cf]|%))$/;

/** The unit that is kept of what a heading names in words. */
const NOUNS: readonly [RegExp, string][] = [
  [/\b(level|percent(age)?|soc|state of charge)\b/, '%'],
  [/\b(energy|watt[ -]?hours?)\b/, 'Wh'],
  [/\bamp(ere)?s?[ -]?hours?\b|\bcapacity\b/, 'mAh'],
  [/\btemp(erature)?s?\b/, '°C'],
  [/\b(power|watts?)\b/, 'W'],
  [/\b(current|amps?|amperes?)\b/, 'A'],
  [/\b(voltage|volts?)\b/, 'V'],
];
const keptOf = (text: string): string | undefined => NOUNS.find(([noun]) => noun.test(text))?.[1];

/** Words that a heading may have where its unit says the rest: `VBUS [V]`, `IBUS (A)`, `Charge (Wh)`. */
const AT_THE_CABLE =
  /^(?:[viupqe]?(?:bus|bat|batt|in|out)?|batt?(?:ery)?|usb|input|output|charge[rd]?|charging|device|dc|total|cable|port|meter|cell|surface|front|back|rear|ambient)?$/;
/** What is a figure of its own, and none of these: the least, the most, what is wasted. */
const NOT_READ =
  /\b(min|max|minimum|maximum|avg|average|mean|peak|ripple|noise|limit|rated|health|wear|load|cpu|gpu|humidity|brightness|volume|duty|efficiency|cycles?|fan|d[+-]|cc\d|room)\b/;
/** Where it is read, by the word that the entry line has for it. */
const PLACES: Readonly<Record<string, RegExp>> = {
  front: /\bfront\b/,
  back: /\b(back|rear)\b/,
  bat: /\b(batt?(?:ery)?|cell|[viup]batt?)\b/,
  ask: /\b(requested|asked|negotiated|target)\b/,
};

/** The quantity of a unit that a heading can mean, by where it says it was read; `undefined` where it says something else. */
function heldBy(kept: string, text: string): Quantity | undefined {
  const words = text
    .split(/[\s/-]+/)
    .filter((word) => !NOUNS.some(([noun]) => noun.test(word)) && !/^(requested|asked|negotiated|target)$/.test(word));
  if (!words.every((word) => AT_THE_CABLE.test(word))) return undefined;
  const place = Object.entries(PLACES).find(([, named]) => named.test(text))?.[0];
  const all = QUANTITIES.filter((each) => quantityOf(each).unit === kept);
  return all.find((each) => quantityOf(each).place === place) ?? all.find((each) => quantityOf(each).place === undefined);
}

/** Whether any of the columns tells times; and anything to read. */
export const tellsTime = (columns: readonly Headed[]): boolean =>
  columns.some(({ column }) => column?.holds === 'elapsed' || column?.holds === 'time');
export const tellsFigures = (columns: readonly Headed[]): boolean => columns.some(({ column }) => column?.holds === 'quantity');

/** What numbers or letters the columns of one of several devices: `watts 1`, `Ch 2 Power (W)`, `B volts`. */
const LABEL = /^(?:(?:ch|channel|port|dev|device|unit|dut|slot|meter)[ #.:-]*)?#?(?:\d{1,2}|[a-h])[:.]?$/i;

/** A column, and which of several devices it is of. */
export interface Headed {
  column: Column | undefined;
  of?: string | undefined;
}

/** Tells a column and its device from a heading that begins or ends with which one it is. */
function labelledColumn(heading: string): Headed | undefined {
  const words = heading.slice(0, LONGEST_HEADING).replaceAll('_', ' ').trim().split(/\s+/);
  const unit = /^[([].*[)\]]$/.test(words.at(-1) ?? '') ? words.splice(-1) : [];
  for (let count = 1; count <= 2 && count < words.length; count += 1)
    for (const [label, rest] of [
      [words.slice(0, count), words.slice(count)],
      [words.slice(-count), words.slice(0, -count)],
    ] as const) {
      const column = LABEL.test(label.join(' ')) ? columnOf([...rest, ...unit].join(' ')) : undefined;
      if (column?.holds === 'quantity') return { of: label.join(' ').replace(/[:.]$/, ''), column };
    }
  return undefined;
}

/**
 * What a row of headings says of its columns, and which of several devices each is of. They are taken for several devices only where there are two
 * or more and each has the same columns: `input 1` alone is a name, not a number.
 */
export function logColumnsOf(heading: readonly string[]): Headed[] {
  return withDate(heading, labelled(heading));
}

/** Where a day and a time of day have columns of their own, one of them is a date. */
function withDate(heading: readonly string[], columns: Headed[]): Headed[] {
  const times = columns.flatMap(({ column }, index) => (column?.holds === 'time' ? [index] : []));
  const day = times.find((index) => /^(clock |local |utc )?(date|day)$/i.test((heading[index] ?? '').trim()));
  if (times.length !== 2 || day === undefined) return columns;
  return columns.map((each, index) => (index === day ? { ...each, column: { holds: 'date' } } : each));
}

function labelled(heading: readonly string[]): Headed[] {
  const found = heading.map(labelledColumn);
  const sets = new Map<string, string[]>();
  for (const { column, of = '' } of found.filter((each) => each !== undefined))
    if (column?.holds === 'quantity') sets.set(of, [...(sets.get(of) ?? []), column.quantity].sort());
  const [first = '', ...others] = [...sets.values()].map((set) => set.join(' '));
  const isSeveral = others.length > 0 && others.every((set) => set === first);
  return heading.map((cell, index) => (isSeveral && found[index]) || { column: columnOf(cell) });
}

/** Whether a row below the heading holds nothing but the units of its columns. */
export const isUnitsRow = (cells: readonly string[] = []): boolean =>
  cells.some((cell) => cell.trim() !== '') && cells.every((cell) => cell.trim() === '' || isUnit(cell));

/** A heading with the units of the row below it, where that is one of units. */
export function withUnits(heading: readonly string[], below: readonly string[] | undefined): string[] {
  if (!below || !isUnitsRow(below)) return [...heading];
  return heading.map((cell, index) => {
    const unit = bareUnit(below[index] ?? '');
    return unit === '' ? cell : `${cell.trim()} (${unit})`;
  });
}
