import { celsiusFromFahrenheit } from './electric';
import { parseClock } from './duration';

/** What one line of the entry field says. Units: %, V, A, W, Wh, mAh, °C, and seconds from plug-in. Missing is `undefined`. */
export interface LineValues {
  percent?: number;
  volts?: number;
  amps?: number;
  watts?: number;
  wattHours?: number;
  milliampHours?: number;
  celsius?: number;
  /** When it was seen, if the line says so (`@14:40`), in seconds from plug-in. */
  seen?: number;
  note?: string;
}

export type ParsedLine = { ok: true; values: LineValues } | { ok: false; error: string };

type Figure = Exclude<keyof LineValues, 'note' | 'seen'>;

interface Unit {
  figure: Figure;
  name: string;
  scale?: (value: number) => number;
}

const celsius: Unit = { figure: 'celsius', name: 'temperatures' };
const UNITS: Readonly<Record<string, Unit>> = {
  '': { figure: 'percent', name: 'percentages' },
  '%': { figure: 'percent', name: 'percentages' },
  v: { figure: 'volts', name: 'voltages' },
  mv: { figure: 'volts', name: 'voltages', scale: (value) => value / 1000 },
  a: { figure: 'amps', name: 'currents' },
  ma: { figure: 'amps', name: 'currents', scale: (value) => value / 1000 },
  w: { figure: 'watts', name: 'powers' },
  mw: { figure: 'watts', name: 'powers', scale: (value) => value / 1000 },
  wh: { figure: 'wattHours', name: 'watt-hour counters' },
  mah: { figure: 'milliampHours', name: 'milliampere-hour counters' },
  c: celsius,
  '°c': celsius,
  f: { ...celsius, scale: celsiusFromFahrenheit },
  '°f': { ...celsius, scale: celsiusFromFahrenheit },
};

const HOW = 'Write a percentage alone (42) and other figures with their unit: 26.1w 9.02v 2.9a 31.5c 1.4wh 380mah.';

/**
 * Reads the quick-entry line: figures in any order, each with its unit, decimal comma or point.
 *
 * `42` · `42 26.1w` · `42 9,02v 2,9a 31.5c` · `43 @14:40` · `1.4wh` · `42 # screen woken`. Units may stand apart from
 * their figure (`26.1 w`) and in capitals. Everything after `#` is a note.
 *
 * @param text the line as typed
 * @returns the figures, or one sentence that says which word is wrong and what to write
 */
export function parseEntryLine(text: string): ParsedLine {
  const hash = text.indexOf('#');
  const note = hash < 0 ? '' : text.slice(hash + 1).trim();
  const values: LineValues = note ? { note } : {};
  const figures = hash < 0 ? text : text.slice(0, hash);
  for (const word of words(figures)) {
    const error = word.startsWith('@') ? readTime(word, values) : readFigure(word, values);
    if (error) return { ok: false, error };
  }
  if (Object.keys(values).every((key) => key === 'seen')) return { ok: false, error: `Nothing to log yet. ${HOW}` };
  return { ok: true, values };
}

/** Splits at spaces, drops separators left hanging (`42, 26w`), and joins a unit that stands apart to its figure. */
function words(text: string): string[] {
  const joined: string[] = [];
  for (const word of text.split(/\s+/).map((part) => part.replace(/[,;]+$/, ''))) {
    if (!word) continue;
    const before = joined.at(-1);
    const isUnit = Object.hasOwn(UNITS, word.toLowerCase());
    if (before !== undefined && isUnit && /^[-−+]?[\d.,]+$/.test(before)) joined[joined.length - 1] = before + word;
    else joined.push(word);
  }
  return joined;
}

function readTime(word: string, values: LineValues): string | undefined {
  if (/^@[-−]/.test(word)) return `“${word}” is before plug-in. Give the time since plug-in, as @14:40 or @1:02:05.`;
  const seconds = parseClock(word.slice(1));
  if (seconds === undefined) return `“${word}” is not a time since plug-in. Write it as @14:40, or @1:02:05 with hours.`;
  if (values.seen !== undefined) return `Two times on one line, the second “${word}”. Log one moment per line.`;
  values.seen = seconds;
  return undefined;
}

function readFigure(word: string, values: LineValues): string | undefined {
  const match = /^([-−+]?)(\d+(?:[.,]\d+)?|[.,]\d+)(\D*)$/.exec(word);
  const unit = match && Object.hasOwn(UNITS, (match[3] ?? '').toLowerCase()) ? UNITS[(match[3] ?? '').toLowerCase()] : undefined;
  if (!match || !unit) return `“${word}” is not a figure this line knows. ${HOW}`;
  const size = Number((match[2] ?? '').replace(',', '.'));
  const signed = match[1] === '-' || match[1] === '−' ? 0 - size : size;
  const value = unit.scale ? unit.scale(signed) : signed;
  const impossible = outOfRange(unit.figure, value, word);
  if (impossible) return impossible;
  if (values[unit.figure] !== undefined) return `Two ${unit.name} on one line, the second “${word}”. Log one of each.`;
  values[unit.figure] = value;
  return undefined;
}

function outOfRange(figure: Figure, value: number, word: string): string | undefined {
  if (figure === 'percent' && (value < 0 || value > 100)) {
    return `“${word}” cannot be a charge level: displays show 0 to 100 %. Watts are written with a w, as 26.1w.`;
  }
  if (figure === 'celsius') {
    return value < -40 || value > 150 ? `“${word}” cannot be a temperature here: −40 to 150 °C is kept.` : undefined;
  }
  return value < 0 ? `“${word}” is below zero. Write the size of the figure without a minus.` : undefined;
}
