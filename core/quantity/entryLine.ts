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
  /** Of the front, the back and the battery. */
  frontCelsius?: number;
  backCelsius?: number;
  batteryCelsius?: number;
  /** What the system says of the battery; watts below zero while it drains. */
  batteryVolts?: number;
  batteryAmps?: number;
  batteryWatts?: number;
  /** Which way current flows. */
  direction?: 'in' | 'out';
  /** When it was seen, if the line says so (`@14:40`), in seconds from plug-in. */
  seen?: number;
  note?: string;
}

export type ParsedLine = { ok: true; values: LineValues } | { ok: false; error: string };

type Figure = Exclude<keyof LineValues, 'note' | 'seen' | 'direction'>;

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

/** Words that say where the figure after them was read, and what it is then called. */
const PLACES: Readonly<Record<string, Partial<Record<Figure, Figure>>>> = {
  front: { celsius: 'frontCelsius' },
  back: { celsius: 'backCelsius' },
  bat: { celsius: 'batteryCelsius', volts: 'batteryVolts', amps: 'batteryAmps', watts: 'batteryWatts' },
};
/** A negative is only told of a battery that drains. */
const MAY_DRAIN: ReadonlySet<Figure> = new Set(['batteryWatts']);

const HOW = 'Write a percentage alone (42) and other figures with their unit: 26.1w 9.02v 2.9a 31.5c 1.4wh 380mah.';

/**
 * Reads the quick-entry line: figures in any order, each with its unit, decimal comma or point.
 *
 * `42` · `42 26.1w` · `42 9,02v 2,9a 31.5c` · `43 @14:40` · `1.4wh` · `42 # screen woken`. Units may stand apart from
 * their figure (`26.1 w`) and in capitals. `front 40.5c`, `back 41c`, `bat 38c`, `bat 4.1v`, `bat -3w` say where a figure was read; `in` and `out`
 * which way current flows. Everything after `#` is a note.
 *
 * @param text the line as typed
 * @returns the figures, or one sentence that says which word is wrong and what to write
 */
export function parseEntryLine(text: string): ParsedLine {
  const hash = text.indexOf('#');
  const note = hash < 0 ? '' : text.slice(hash + 1).trim();
  const values: LineValues = note ? { note } : {};
  const figures = hash < 0 ? text : text.slice(0, hash);
  let place: string | undefined;
  for (const word of words(figures)) {
    const lower = word.toLowerCase();
    if (Object.hasOwn(PLACES, lower)) place = lower;
    else if (lower === 'in' || lower === 'out') values.direction = lower;
    else {
      const error = word.startsWith('@') ? readTime(word, values) : readFigure(word, values, place);
      if (error) return { ok: false, error };
      place = undefined;
    }
  }
  if (place !== undefined) return { ok: false, error: `“${place}” wants the figure that was read there, as ${place} 38c.` };
  if (Object.keys(values).every((key) => key === 'seen' || key === 'direction')) return { ok: false, error: `Nothing to log yet. ${HOW}` };
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

function readFigure(word: string, values: LineValues, place?: string): string | undefined {
  const match = /^([-−+]?)(\d+(?:[.,]\d+)?|[.,]\d+)(\D*)$/.exec(word);
  const unit = match && Object.hasOwn(UNITS, (match[3] ?? '').toLowerCase()) ? UNITS[(match[3] ?? '').toLowerCase()] : undefined;
  if (!match || !unit) return `“${word}” is not a figure this line knows. ${HOW}`;
  const size = Number((match[2] ?? '').replace(',', '.'));
  const signed = match[1] === '-' || match[1] === '−' ? 0 - size : size;
  const value = unit.scale ? unit.scale(signed) : signed;
  const figure = place === undefined ? unit.figure : PLACES[place]?.[unit.figure];
  if (!figure) return `“${place ?? ''} ${word}”: front and back go with temperatures, bat with temperature, volts, amps and watts.`;
  const impossible = outOfRange(figure, value, word);
  if (impossible) return impossible;
  if (values[figure] !== undefined) return `Two ${unit.name} on one line, the second “${word}”. Log one of each.`;
  values[figure] = value;
  return undefined;
}

function outOfRange(figure: Figure, value: number, word: string): string | undefined {
  if (figure === 'percent' && (value < 0 || value > 100)) {
    return `“${word}” cannot be a charge level: displays show 0 to 100 %. Watts are written with a w, as 26.1w.`;
  }
  if (figure.endsWith('elsius')) {
    return value < -40 || value > 150 ? `“${word}” cannot be a temperature here: −40 to 150 °C is kept.` : undefined;
  }
  return value < 0 && !MAY_DRAIN.has(figure) ? `“${word}” is below zero. Write the size of the figure without a minus.` : undefined;
}
