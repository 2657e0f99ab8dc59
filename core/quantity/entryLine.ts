import { parseClock } from './duration';
import { temperature } from './figures';
import { quoted } from './letters';
import type { Convert } from './quantities';
import { QUANTITIES, quantityOf, type Quantity } from './quantity';

/** What one line of the entry field says: each quantity in the unit that is kept of it. Missing is `undefined`. */
export interface LineValues extends Partial<Record<Quantity, number>> {
  /** Which way current flows. */
  direction?: 'in' | 'out';
  /** The display was being watched, and turned to this level just then (`80!`). */
  turning?: boolean | undefined;
  /** It was dead at plug-in: the display showed nothing. */
  dead?: true;
  /** What the charge light showed: lit, found out, or seen going out (`light out!`). */
  light?: 'on' | 'out' | 'went out';
  /** When it was seen, if the line says so (`@14:40`), in seconds from plug-in. */
  seen?: number;
  note?: string;
}

export type ParsedLine = { ok: true; values: LineValues } | { ok: false; error: string };

/** What a unit means: which quantity it is of, by the word before it that says where it was read (none: `''`). */
type Unit = Readonly<Record<string, { quantity: Quantity; convert: Convert }>>;

function unitsOf(): Map<string, Unit> {
  const units = new Map<string, Unit>();
  for (const quantity of QUANTITIES) {
    const { place = '', typed } = quantityOf(quantity);
    for (const [unit, convert] of Object.entries(typed)) units.set(unit, { ...units.get(unit), [place]: { quantity, convert } });
  }
  return units;
}
const UNITS = unitsOf();
/** Words that say where the figure after them was read. */
const PLACES = new Set(QUANTITIES.flatMap((quantity) => quantityOf(quantity).place ?? []));

/** The charge light, alone on its line. */
const LIGHT = /^\s*light\s+(on|lit|out|off)(!?)\s*(@\S+)?\s*$/i;

const HOW = 'Write a percentage alone (42) and other figures with their unit: 26.1w 9.02v 2.9a 31.5c 1.4wh 380mah.';

/**
 * Reads the quick-entry line: figures in any order, each with its unit, decimal comma or point.
 *
 * `42` · `42 26.1w` · `42 9,02v 2,9a 31.5c` · `43 @14:40` · `1.4wh` · `42 # screen woken`. Units may stand apart from
 * their figure (`26.1 w`) and in capitals. `front 40.5c`, `back 41c`, `bat 38c`, `bat 4.1v`, `bat -3w` say where a figure was read; `in` and `out`
 * which way current flows. `80!` says that the display turned to 80 just then, while it was watched; `dead`, alone, that it showed nothing at plug-in.
 * `light out!` that the charge light went out just then, `light out` and `light on` how it was found. Everything after `#` is a note.
 *
 * @param text the line as typed
 * @param surfaces what the front and the back of this device are called: `deck 40c` says where it was read as `front 40c` does
 * @returns the figures, or one sentence that says which word is wrong and what to write
 * @example parseEntryLine('42 26,1w @14:40') // { ok: true, values: { percent: 42, watts: 26.1, seen: 880 } }
 */
export function parseEntryLine(text: string, surfaces: Surfaces = {}): ParsedLine {
  const hash = text.indexOf('#');
  const note = hash < 0 ? '' : text.slice(hash + 1).trim();
  const values: LineValues = note ? { note } : {};
  const figures = hash < 0 ? text : text.slice(0, hash);
  const light = LIGHT.exec(figures);
  if (light) {
    const [, state = '', turned, at] = light;
    const error = at === undefined ? undefined : readTime(at, values);
    if (error) return { ok: false, error };
    return {
      ok: true,
      values: { ...values, light: /^(on|lit)$/i.test(state) ? 'on' : turned ? 'went out' : 'out' },
    };
  }
  let place: string | undefined;
  for (const word of words(placed(figures, surfaces))) {
    const lower = word.toLowerCase();
    if (PLACES.has(lower)) place = lower;
    else if (lower === 'in' || lower === 'out') values.direction = lower;
    else if (lower === 'dead') values.dead = true;
    else {
      const error = word.startsWith('@') ? readTime(word, values) : readFigure(word, values, place);
      if (error) return { ok: false, error };
      place = undefined;
    }
  }
  if (values.dead && Object.keys(values).some((key) => key !== 'dead' && key !== 'note'))
    return { ok: false, error: 'Write dead alone: it says that the display showed nothing at plug-in. Log the rest in a line of its own.' };
  if (place !== undefined) return { ok: false, error: `${quoted(place)} wants the figure that was read there, as ${place} 38c.` };
  if (Object.keys(values).every((key) => key === 'seen' || key === 'direction')) return { ok: false, error: `Nothing to log yet. ${HOW}` };
  return { ok: true, values };
}

/** What a person calls the surfaces of a device. */
export interface Surfaces {
  frontName?: string | undefined;
  backName?: string | undefined;
}

/** Names of surfaces as the words that the line knows: `palm rest 38c` is `front 38c`. */
function placed(figures: string, { frontName = '', backName = '' }: Surfaces): string {
  const named = [
    [frontName, 'front'],
    [backName, 'back'],
  ] as const;
  return named.reduce((line, [name, place]) => {
    const plain = name.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
    return plain === '' ? line : line.replace(new RegExp(`(^|[\\s,;])${plain}(?=[\\s:]+[-−+]?[\\d.,])[\\s:]+`, 'giu'), `$1${place} `);
  }, figures);
}

/** Splits at spaces, drops separators left hanging (`42, 26w`), and joins a unit that stands apart to its figure. */
function words(text: string): string[] {
  const joined: string[] = [];
  for (const word of text.split(/\s+/).map((part) => part.replace(/[,;]+$/, ''))) {
    if (!word) continue;
    const before = joined.at(-1);
    const isUnit = UNITS.has(word.toLowerCase());
    if (before !== undefined && isUnit && /^[-−+]?[\d.,]+$/.test(before)) joined[joined.length - 1] = before + word;
    else joined.push(word);
  }
  return joined;
}

function readTime(word: string, values: LineValues): string | undefined {
  if (/^@[-−]/.test(word)) return `${quoted(word)} is before plug-in. Give the time since plug-in, as @14:40 or @1:02:05.`;
  const seconds = parseClock(word.slice(1));
  if (seconds === undefined) return `${quoted(word)} is not a time since plug-in. Write it as @14:40, or @1:02:05 with hours.`;
  if (values.seen !== undefined) return `Two times on one line, the second ${quoted(word)}. Log one moment per line.`;
  values.seen = seconds;
  return undefined;
}

function readFigure(typed: string, values: LineValues, place = ''): string | undefined {
  const word = typed.replace(/!$/, '');
  const match = /^([-−+]?)(\d+(?:[.,]\d+)?|[.,]\d+)(\D*)$/.exec(word);
  const unit = match && UNITS.get((match[3] ?? '').toLowerCase());
  if (!match || !unit) return `${quoted(word)} is not a figure this line knows. ${HOW}`;
  const size = Number((match[2] ?? '').replace(',', '.'));
  const signed = match[1] === '-' || match[1] === '−' ? 0 - size : size;
  const { [place]: meant } = unit;
  if (!meant) return `${quoted(`${place} ${word}`)}: front and back go with temperatures, bat with temperature, volts, amps and watts.`;
  const { quantity, convert } = meant;
  const value = convert(signed);
  const impossible = outOfRange(quantity, value, word);
  if (impossible) return impossible;
  if (values[quantity] !== undefined) return `Two ${quantityOf(quantity).named} on one line, the second ${quoted(word)}. Log one of each.`;
  values[quantity] = value;
  if (word === typed) return undefined;
  if (quantity !== 'percent' || value === 0) return `${quoted(typed)}: only a level is seen turning. Write it as 80!`;
  values.turning = true;
  return undefined;
}

function outOfRange(quantity: Quantity, value: number, word: string): string | undefined {
  const { unit, leastTyped = 0, mostTyped = Infinity } = quantityOf(quantity);
  if (value >= leastTyped && value <= mostTyped) return undefined;
  if (quantity === 'percent')
    return `${quoted(word)} cannot be a charge level: displays show 0 to 100 %. Watts are written with a w, as 26.1w.`;
  if (unit === '°C')
    return `${quoted(word)} cannot be a temperature here: ${temperature(leastTyped, 0)} to ${temperature(mostTyped, 0)} is kept.`;
  if (value > mostTyped) return `${quoted(word)} is more than ${mostTyped} ${unit}, the most that is kept.`;
  return `${quoted(word)} is below zero. Write the size of the figure without a minus.`;
}
