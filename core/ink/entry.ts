import { array, boolean, lazy, number, object, string, type InferType, type Schema } from 'yup';
import { cableSchema } from '../bench/cable';
import { chargerSchema } from '../bench/charger';
import { deviceSchema } from '../bench/device';
import { meterSchema } from '../bench/meter';
import { cadenceSchema, type Cadence } from '../method/cadenceSchema';
import { conditionsField } from '../method/conditionSchema';
import { MOST_LISTED } from '../bench/fields';
import { ruleSchema } from '../method/ruleSchema';
import { QUANTITIES, type Quantity } from '../quantity/quantity';
import { RUN_ENDING_IDS } from './endings';
import { EVENTS, type EventId } from './events';
import { footageSchema } from './footage';
import { fieldFigure, idField, instantField } from './fields';
import { LONGEST_RUN, MOMENTS } from './ranges';
import { trialFields } from './trial';
import { SCHEMA } from './version';

/** Keys of ink are as wide as this. */
const LAST_PLACE = 999_999_999;

const mark = {
  /** Place in the order of entry, from 1. */
  seq: number().integer().min(1).max(LAST_PLACE).required(),
  id: idField(),
  /** When it was seen or happened, epoch milliseconds. */
  at: instantField().required(),
  /** When it was written down, epoch milliseconds. */
  written: instantField().required(),
};
/** Which log that was laid in said it: it lies where that log lies. */
const sayingLog = () => idField().optional();

/** The longest name of an owner, in characters. */
export const MOST_OWNER = 60;

/** The longest text of an entry, in characters: a page of a book, many times over. */
export const LONGEST_TEXT = 100_000;
const longText = () => string().max(LONGEST_TEXT);

/** What a person saw at one instant. */
export const readingSchema = object({
  ...mark,
  kind: string()
    .oneOf(['reading'] as const)
    .required(),
  /** Of the quantities whatever was read; `batteryWatts` go into the battery, below zero while it drains. */
  ...(Object.fromEntries(QUANTITIES.map((quantity) => [quantity, fieldFigure(quantity)])) as Record<
    Quantity,
    ReturnType<typeof fieldFigure>
  >),
  /** Which way current flows at the cable, where it was noted. */
  direction: string().oneOf(['in', 'out'] as const),
  note: longText(),
  /** Where in the footage it was read, in seconds of the clip. */
  clip: number().min(0).max(LONGEST_RUN),
  /** The display was being watched, and turned to this level just then. */
  turning: boolean().oneOf([true] as const),
  /** It was copied from paper, where it had been written down before. */
  paper: boolean().oneOf([true] as const),
  /** The person was asked whether this could be, and kept it. */
  sure: boolean().oneOf([true] as const),
}).noUnknown();

const strikeSchema = object({
  ...mark,
  kind: string()
    .oneOf(['strike'] as const)
    .required(),
  target: idField(),
  reason: longText().required(),
}).noUnknown();

const noteSchema = object({
  ...mark,
  log: sayingLog(),
  kind: string()
    .oneOf(['note'] as const)
    .required(),
  text: longText().defined(),
}).noUnknown();

const stopSchema = object({
  ...mark,
  kind: string()
    .oneOf(['stop'] as const)
    .required(),
  because: string().oneOf(RUN_ENDING_IDS).required(),
  remark: longText(),
}).noUnknown();

/** Which port of a charger, from 0. */
const portField = () => number().integer().min(0).max(99);

/** What feeds a source that has one of its own: a pad, a dock, another computer. */
const feedSchema = object({
  charger: chargerSchema.required(),
  port: portField(),
  cable: cableSchema.default(undefined).optional(),
}).noUnknown();

/** What a run charges from, where it is swapped, or what is tried. */
const sourceSchema = object({
  charger: chargerSchema.required(),
  port: portField(),
  cable: cableSchema.default(undefined).optional(),
  feed: feedSchema.default(undefined).optional(),
  /** The only voltage it was let give, in V. */
  held: fieldFigure('volts'),
}).noUnknown();

/** A score of a workload, with its unit, and which way is better. */
const scoreSchema = object({
  name: string().trim().required().max(60),
  value: number().min(-1e15).max(1e15).required(),
  unit: string().trim().max(20).defined(),
  better: string()
    .oneOf(['more', 'less'] as const)
    .required(),
}).noUnknown();

const happened = {
  ...mark,
  log: sayingLog(),
  kind: string()
    .oneOf(['event'] as const)
    .required(),
  remark: longText(),
};
const named = <Id extends EventId>(...ids: Id[]) => string().oneOf(ids).required();

/** Events that carry something beside a remark. A CSV has no place for it, so it may be missing. */
const EVENT_SCHEMAS = {
  /** With the new source. */
  swapped: object({ ...happened, event: named('swapped'), source: sourceSchema.default(undefined).optional() }).noUnknown(),
  'work ended': object({
    ...happened,
    event: named('work ended'),
    scores: array().of(scoreSchema.required()).max(MOST_LISTED).default(undefined).optional(),
  }).noUnknown(),
  /** When the program was back, epoch milliseconds. */
  away: object({ ...happened, event: named('away'), until: instantField() }).noUnknown(),
  /** By how much the wall clock was moved, in milliseconds, ahead above zero. */
  clock: object({ ...happened, event: named('clock'), shift: number().integer().min(-MOMENTS.max).max(MOMENTS.max) }).noUnknown(),
};
type PlainEventId = Exclude<EventId, keyof typeof EVENT_SCHEMAS>;
const plainEventSchema = object({ ...happened, event: named(...EVENTS.map(({ id }) => id)) }).noUnknown();

/** One charger of a spot check, tried. */
const trialSchema = object({
  ...mark,
  kind: string()
    .oneOf(['trial'] as const)
    .required(),
  source: sourceSchema.required(),
  ...trialFields,
}).noUnknown();

/** The sources of a spot check in the order in which they are tried, from here on. */
const listSchema = object({
  ...mark,
  kind: string()
    .oneOf(['list'] as const)
    .required(),
  sources: array().of(sourceSchema.required()).required().max(MOST_LISTED),
}).noUnknown();

/** What a person calls a run by, in lists: tags, and a note on all of it. The last counts. */
const labelSchema = object({
  ...mark,
  kind: string()
    .oneOf(['label'] as const)
    .required(),
  tags: array().of(string().trim().required().max(40)).required().max(12),
  text: string().max(300),
}).noUnknown();

/** A run that was a mistake: gone from every list, until that is struck. */
const discardSchema = object({
  ...mark,
  kind: string()
    .oneOf(['discard'] as const)
    .required(),
}).noUnknown();

/** Gear of the run as it really was, in place of what stands in its header: known better afterwards. */
const corrects = {
  ...mark,
  kind: string()
    .oneOf(['correction'] as const)
    .required(),
  /** The id of what it stands in for; none where nothing was written down. */
  was: idField().optional(),
  reason: string().max(200),
};
const CORRECTIONS = {
  device: object({
    ...corrects,
    shelf: string()
      .oneOf(['device'] as const)
      .required(),
    gear: deviceSchema.required(),
  }).noUnknown(),
  charger: object({
    ...corrects,
    shelf: string()
      .oneOf(['charger'] as const)
      .required(),
    gear: chargerSchema.required(),
  }).noUnknown(),
  cable: object({
    ...corrects,
    shelf: string()
      .oneOf(['cable'] as const)
      .required(),
    gear: cableSchema.required(),
  }).noUnknown(),
  meter: object({
    ...corrects,
    shelf: string()
      .oneOf(['meter'] as const)
      .required(),
    gear: meterSchema.required(),
  }).noUnknown(),
};

/** A picture taken as evidence of a reading. The picture itself is kept beside the ink, under its id. */
const pictureSchema = object({
  ...mark,
  kind: string()
    .oneOf(['picture'] as const)
    .required(),
  picture: idField(),
  /** The entry it is evidence of. */
  target: idField(),
}).noUnknown();

/** Parts in a million by which a clock may be wrong: one that is further out is no clock. */
const MOST_DRIFT = 50_000;
const driftField = () => number().min(-MOST_DRIFT).max(MOST_DRIFT);

/** A meter's log laid into a run that was there before. Its columns are kept beside the ink, by its own times, which never change. */
const logSchema = object({
  ...mark,
  /** When its clock stood at zero, epoch milliseconds. */
  at: instantField().required(),
  kind: string()
    .oneOf(['log'] as const)
    .required(),
  log: idField(),
  /** Of the file it was read from. */
  name: string().required().max(300),
  /** By how much its clock goes slow, in parts of a million. */
  drift: driftField(),
}).noUnknown();

/** Where a log lies from here on: that of its id, or the one the run was imported from. */
const placeSchema = object({
  ...mark,
  at: instantField().required(),
  kind: string()
    .oneOf(['place'] as const)
    .required(),
  log: idField().optional(),
  drift: driftField(),
}).noUnknown();

/** When it was really plugged in: elapsed time counts from here, and what was seen before counts for nothing. */
const plugInSchema = object({
  ...mark,
  kind: string()
    .oneOf(['plug-in'] as const)
    .required(),
}).noUnknown();

/** From when to when the run is looked at: what lies outside stays, and counts for nothing. */
const trimSchema = object({
  ...mark,
  kind: string()
    .oneOf(['trim'] as const)
    .required(),
  /** Epoch milliseconds. */
  until: instantField().required(),
}).noUnknown();

/** Its settings as they really were, all of them. */
const conditionsSchema = object({
  ...mark,
  kind: string()
    .oneOf(['conditions'] as const)
    .required(),
  conditions: conditionsField().required(),
}).noUnknown();

const KINDS = {
  log: logSchema,
  place: placeSchema,
  'plug-in': plugInSchema,
  trim: trimSchema,
  conditions: conditionsSchema,
  reading: readingSchema,
  trial: trialSchema,
  picture: pictureSchema,
  list: listSchema,
  label: labelSchema,
  discard: discardSchema,
  strike: strikeSchema,
  note: noteSchema,
  stop: stopSchema,
};

const KNOWN = [...Object.keys(KINDS), 'event', 'correction'];

/** Everything that an entry can be. */
export const ENTRY_SCHEMAS: readonly Schema[] = [
  ...Object.values(KINDS),
  ...Object.values(EVENT_SCHEMAS),
  plainEventSchema,
  ...Object.values(CORRECTIONS),
];

/** One entry of ink, checked by its kind, an event by what happened, a correction by what it corrects. */
export const entrySchema = lazy((value: unknown) => {
  const { kind, event, shelf } = (typeof value === 'object' ? (value ?? {}) : {}) as { kind?: unknown; event?: unknown; shelf?: unknown };
  if (kind === 'event') return oneOf(EVENT_SCHEMAS, event) ?? plainEventSchema;
  if (kind === 'correction') return oneOf(CORRECTIONS, shelf) ?? CORRECTIONS.charger;
  return oneOf(KINDS, kind) ?? object({ kind: string().oneOf(KNOWN).required() });
});

const oneOf = <Schema>(all: Readonly<Record<string, Schema>>, name: unknown): Schema | undefined =>
  Object.entries(all).find(([each]) => each === name)?.[1];

/** What a run is: copied gear, so that editing the shelf never rewrites history; the instant of plug-in; when readings fall due. */
export const headerSchema = object({
  schema: number().oneOf([SCHEMA]).required(),
  id: idField(),
  device: deviceSchema.required(),
  /** Which of several identical units of the device, from 1. */
  unit: number().integer().min(1).max(99),
  charger: chargerSchema.required(),
  /** Which port of the charger, from 0; the first where it is not said. */
  port: portField(),
  cable: cableSchema.default(undefined).optional(),
  /** What feeds the charger, where it has a source of its own. */
  feed: feedSchema.default(undefined).optional(),
  meter: meterSchema.default(undefined).optional(),
  /** Epoch milliseconds. */
  plugInAt: instantField().required(),
  cadence: cadenceSchema,
  /** Which school of the trade it was taken by, by its id; a method of one’s own by its name. */
  method: string().max(80),
  /** What its method asks of it; that of its school where none is kept. */
  rule: ruleSchema.default(undefined).optional(),
  /** The footage it was read from, where it was. */
  footage: footageSchema.default(undefined).optional(),
  /** Chargers to try one by one, of a spot check, by their ids. */
  list: array().of(idField()).max(MOST_LISTED).default(undefined).optional(),
  /** The study it belongs to, and which cell of its matrix it fills. */
  study: object({ id: idField(), cell: string().required().max(200) })
    .noUnknown()
    .default(undefined)
    .optional(),
  /** The letter of its lane while it lives. */
  lane: string().matches(/^[A-L]$/),
  /** Those that were started with it at the same instant share this. */
  group: idField().optional(),
  /** The settings as confirmed at its start. */
  conditions: conditionsField().default(undefined).optional(),
  /** Which pen draws this setup, from 0. */
  pen: number().integer().min(0).max(999).required(),
  /** Name of the file it came from, for an imported run. */
  source: string(),
  /** Whose logbook it came from; none of one’s own. */
  owner: string().trim().max(MOST_OWNER),
}).noUnknown();

export const entriesSchema = array().of(entrySchema).required();

export type Reading = InferType<typeof readingSchema>;
export type Strike = InferType<typeof strikeSchema>;
export type Note = InferType<typeof noteSchema>;
export type Stop = InferType<typeof stopSchema>;
export type Source = InferType<typeof sourceSchema>;
export type Score = InferType<typeof scoreSchema>;
export type Event =
  | InferType<(typeof EVENT_SCHEMAS)[keyof typeof EVENT_SCHEMAS]>
  | (Omit<InferType<typeof plainEventSchema>, 'event'> & { event: PlainEventId });
export type Trial = InferType<typeof trialSchema>;
export type Label = InferType<typeof labelSchema>;
export type Discard = InferType<typeof discardSchema>;
export type List = InferType<typeof listSchema>;
export type Correction = InferType<(typeof CORRECTIONS)[keyof typeof CORRECTIONS]>;
export type Picture = InferType<typeof pictureSchema>;
export type Log = InferType<typeof logSchema>;
export type Place = InferType<typeof placeSchema>;
export type PlugIn = InferType<typeof plugInSchema>;
export type Trim = InferType<typeof trimSchema>;
export type Conditions = InferType<typeof conditionsSchema>;
export type Entry =
  Reading | Strike | Note | Event | Trial | List | Label | Discard | Correction | Picture | Log | Place | PlugIn | Trim | Conditions | Stop;
/** What is written, before the ledger gives it its place in the order. */
export type Draft = Entry extends infer Each ? (Each extends Entry ? Omit<Each, 'seq' | 'id' | 'written'> : never) : never;

/** What a run is, before any ink. */
export type Header = Omit<InferType<typeof headerSchema>, 'cadence'> & { cadence?: Cadence | undefined };
