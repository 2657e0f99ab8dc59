import { celsiusFromFahrenheit } from './electric';

/** Makes the unit that is kept of one that was read. */
export type Convert = (value: number) => number;

/** All that the program knows of a quantity. A new one is a row of `TABLE` and its test; CONTRIBUTING.md adds one step by step. */
export interface QuantityRow {
  /** Several of them, as a sentence names them: `voltages`. */
  named: string;
  /** The unit in which it is kept. */
  unit: string;
  /** The word before it in the entry line that says where it was read; none at the cable and on the display. */
  place?: string;
  /** Its units in the entry line, in small letters, each with what makes the kept one of it; the first is the one that is written. */
  typed: Readonly<Record<string, Convert>>;
  /** The least that can be typed; where it is left out, zero. */
  leastTyped?: number;
  /** The most that can be typed, where that is less than the most that is kept. */
  mostTyped?: number;
  /** The least and the most that is kept, by hand or from a meter: beyond lies a slip or a broken file, not a charge. */
  min: number;
  max: number;
  /** Heading in a CSV of this program. */
  heading: string;
  /** Whether that column is in every file, even if nothing stands in it. */
  always?: true;
  /** Headings of a meter's log, without their unit and in small letters. */
  headed: RegExp;
  /** Where several quantities would know a heading: what is read at a place goes first, then those tried `first`; those tried `last` know nearly any. */
  tried?: 'first' | 'last';
  /** The column of its own that it has in the table of ink, with its decimals; without one it stands among the remarks. */
  column?: { title: string; decimals: number };
  /** The track of its own that it has on the strip. */
  track?: {
    title: string;
    /** In the table twin of the strip. */
    short: string;
    /** Its height beside the others. */
    weight: number;
    /** `hundred`: from 0 to 100. `from zero`: up to the highest, and down to the lowest below zero. `tens`: from ten to ten around what was read. */
    axis: 'hundred' | 'from zero' | 'tens';
    /** What stands behind a figure of its axis. */
    mark: string;
    /** It is drawn once it is asked for: the strip begins with what is usually looked at. */
    asked?: true;
    /** The quantity on whose paper it is drawn, if not on its own: surfaces and the battery have one scale. */
    on?: 'celsius';
  };
}

const same: Convert = (value) => value;
const thousandth: Convert = (value) => value / 1000;

const volts = { named: 'voltages', unit: 'V', typed: { v: same, mv: thousandth }, min: -500, max: 500 };
const amps = { named: 'currents', unit: 'A', typed: { a: same, ma: thousandth }, min: -200, max: 200 };
const watts = { named: 'powers', unit: 'W', typed: { w: same, mw: thousandth }, min: -5000, max: 5000 };
const celsius = {
  ...{ named: 'temperatures', unit: '°C', min: -100, max: 300, leastTyped: -40, mostTyped: 150 },
  typed: { c: same, '°c': same, f: celsiusFromFahrenheit, '°f': celsiusFromFahrenheit },
};

/** A temperature of a place, on the paper that all of them share. */
const heat = (short: string) => ({ title: short.toLowerCase(), short, weight: 1.2, axis: 'tens', mark: '°', on: 'celsius' }) as const;

/**
 * Every quantity that can be read or sampled, by the name it has in a reading, in the order of columns. Volts, amps and watts are those at the cable;
 * `battery…` is what the system says of the battery; `asked…` is what the device requested of its source; `celsius` is a surface, without saying which. Currents and powers below zero flow out of the
 * device; a meter plugged in the other way round tells volts and counters below zero too.
 */
export const TABLE = {
  percent: {
    ...{ named: 'percentages', unit: '%', typed: { '': same, '%': same }, min: 0, max: 100, mostTyped: 100 },
    heading: 'percent',
    always: true,
    headed: /percent|^%$|^battery\b|^level\b|^soc$|^state of charge|^charge\b/,
    tried: 'last',
    column: { title: 'Level, %', decimals: 1 },
    track: { title: 'charge shown', short: 'Level', weight: 5, axis: 'hundred', mark: ' %' },
  },
  volts: {
    ...volts,
    heading: 'volts',
    always: true,
    headed: /volt|^vbus\b|^m?v$/,
    column: { title: 'V', decimals: 3 },
    track: { title: 'volts at the cable', short: 'Voltage', weight: 1.2, axis: 'from zero', mark: ' V', asked: true },
  },
  amps: {
    ...amps,
    heading: 'amps',
    always: true,
    headed: /^current\b|amp|^m?a$/,
    column: { title: 'A', decimals: 3 },
    track: { title: 'amps at the cable', short: 'Current', weight: 1.5, axis: 'from zero', mark: ' A', asked: true },
  },
  watts: {
    ...watts,
    heading: 'watts',
    always: true,
    headed: /watt|^power\b|^m?w$/,
    column: { title: 'W', decimals: 2 },
    track: { title: 'watts at the cable', short: 'Power', weight: 2, axis: 'from zero', mark: ' W' },
  },
  wattHours: {
    ...{ named: 'watt-hour counters', unit: 'Wh', typed: { wh: same }, min: -1_000_000, max: 1_000_000 },
    heading: 'watt-hours',
    always: true,
    headed: /watt[ -]?hours?|^m?wh$|^energy\b/,
    tried: 'first',
    column: { title: 'Wh', decimals: 3 },
    track: { title: 'energy so far', short: 'Energy', weight: 1.2, axis: 'from zero', mark: ' Wh', asked: true },
  },
  milliampHours: {
    ...{ named: 'milliampere-hour counters', unit: 'mAh', typed: { mah: same }, min: -1e9, max: 1e9 },
    heading: 'milliamp-hours',
    always: true,
    headed: /(milli)?amp(ere)?s?[ -]?hours?|^m?ah$|^capacity\b/,
    tried: 'first',
    column: { title: 'mAh', decimals: 0 },
  },
  celsius: {
    ...celsius,
    heading: 'temperature (°C)',
    always: true,
    headed: /^temp|^celsius$|^fahrenheit$|^°[cf]$/,
    column: { title: '°C', decimals: 1 },
    track: { title: 'temperature', short: 'Temperature', weight: 1.2, axis: 'tens', mark: '°' },
  },
  frontCelsius: { ...celsius, place: 'front', heading: 'front temperature (°C)', headed: /^front temp/, track: heat('Front') },
  backCelsius: { ...celsius, place: 'back', heading: 'back temperature (°C)', headed: /^back temp/, track: heat('Back') },
  batteryCelsius: { ...celsius, place: 'bat', heading: 'battery temperature (°C)', headed: /^battery temp/, track: heat('Battery') },
  batteryVolts: { ...volts, place: 'bat', heading: 'battery volts', headed: /^battery volt/ },
  batteryAmps: { ...amps, place: 'bat', heading: 'battery amps', headed: /^battery amp/ },
  batteryWatts: { ...watts, place: 'bat', leastTyped: -5000, heading: 'battery watts', headed: /^battery watt/ },
  askedVolts: {
    ...{ ...volts, place: 'ask', heading: 'requested volts', headed: /^(requested|asked|negotiated|target) (volt|vbus|v$)/ },
    track: { title: 'volts requested', short: 'Requested V', weight: 1, axis: 'from zero', mark: ' V', asked: true },
  },
  askedAmps: {
    ...{ ...amps, place: 'ask', heading: 'requested amps', headed: /^(requested|asked|negotiated|target) (amp|current|a$)/ },
    track: { title: 'amps requested', short: 'Requested A', weight: 1, axis: 'from zero', mark: ' A', asked: true },
  },
} satisfies Readonly<Record<string, QuantityRow>>;
