import { array, boolean, mixed, number, object, string, type InferType } from 'yup';
import { MOST_OWNER } from '../ink/entry';
import { MOMENTS } from '../ink/ranges';

/** What a person chose about the program, as a logbook carries it: each choice may be missing. */

const LOUDNESS = ['off', 'soft', 'clear', 'loud'] as const;
const THEMES = ['paper', 'darkRoom'] as const;

const level = () => number().min(0).max(100);
/** More are never typed, and each is a column of every table. */
const MOST_ASKED = 40;
const quietField = () => string().matches(/^(\d\d:\d\d)?$/);

export const settingsSchema = object({
  theme: string().oneOf(THEMES),
  singleKeys: boolean(),
  /** How a reading that falls due calls. */
  loudness: string().oneOf(LOUDNESS),
  notify: boolean(),
  vibrate: boolean(),
  /** Whether the name of its lane is spoken. */
  speak: boolean(),
  /** Whether the screen is kept on while a run is live. */
  awake: boolean(),
  /** Quiet hours, `22:00` to `07:00`: it calls by title and icon alone. Empty: none. */
  quietFrom: quietField(),
  quietTo: quietField(),
  /** To which level energy samples are carried on, in %; and from which setups are compared by it. */
  projectTo: level(),
  projectFrom: level(),
  /** Whether the Wh counter is set to zero at plug-in, where a method reads it. */
  zeroesCounter: boolean(),
  /** Levels in % and marks in seconds at which figures are worked out beside the usual ones. */
  levels: array().of(level().required()).max(MOST_ASKED),
  marks: array()
    .of(
      number()
        .min(0)
        .max(MOMENTS.max / 1000)
        .required(),
    )
    .max(MOST_ASKED),
  /** A power above which time is asked for, in W. */
  watts: number().min(0).max(1e6),
  /** From when times are counted, and whether only the time with power counts. */
  countFrom: mixed<'plug-in' | 'boot' | number>().test(
    'from',
    'is neither plug-in nor boot nor a level',
    (value) => value === undefined || value === 'plug-in' || value === 'boot' || (typeof value === 'number' && value >= 0 && value <= 100),
  ),
  isCharging: boolean(),
  /** How figures and dates are written; by the browser where nothing was chosen. */
  scale: string().oneOf(['°C', '°F'] as const),
  decimal: string().oneOf(['browser', '.', ','] as const),
  dates: string().oneOf(['browser', 'day', 'month', 'year'] as const),
  hours: string().oneOf(['browser', '24', '12'] as const),
  currency: string().max(4),
  /** Whose logbook it is: kept on its runs where somebody else imports them. */
  owner: string().max(MOST_OWNER),
  /** What is assumed: the spread between repeats, and the share of its claimed hours that a device lasts in real use. */
  spread: number().min(0.005).max(0.2),
  realUse: number().min(0.05).max(1),
}).noUnknown();
export type Settings = InferType<typeof settingsSchema>;

/** So many are kept; the oldest is forgotten first. */
export const MOST_REMEMBERED = 40;
/** A heading is told by its beginning, in characters. */
export const LONGEST_HEADING = 400;
/** How the log of a meter was read (mapping.ts), by what heads it. */
export const rememberedSchema = object({
  heading: string().required().max(LONGEST_HEADING),
  headingRow: number().integer().min(0).max(1e6),
  columns: array().of(string().defined().max(200)).required().max(1000),
}).noUnknown();
export type Remembered = InferType<typeof rememberedSchema>;
