import { array, boolean, number, object, string, type InferType } from 'yup';
import { idField, nameField, textField } from '../bench/fields';
import { instantField } from '../ink/fields';
import { SCHEMA } from '../ink/version';
import { BLOCK_IDS } from './blocks';
import { paragraphsField } from './paragraph';

const MOST_RUNS = 1000;
const MOST_COLUMNS = 60;
const MOST_SAID = 4000;
const MOST_CORRECTIONS = 1000;
const LONGEST_LINE = 600;
/** All that a piece said when it was published, as text. */
const LONGEST_PIECE = 200_000;

const blockSchema = object({
  id: string()
    .oneOf([...BLOCK_IDS])
    .required(),
  hidden: boolean().oneOf([true, undefined]),
  /** Its heading, where a person wrote another. */
  title: textField(120),
  /** What stands under a table or a picture. */
  caption: textField(LONGEST_LINE),
  /** Its words as a person wrote them; without, they are worked out. */
  words: paragraphsField().default(undefined).optional(),
  /** What was worked out when they were written, as text. */
  made: string().max(LONGEST_PIECE),
  /** Of a table or a picture: its figures by their ids, and its setups by theirs, in their order. */
  columns: array().of(string().required().max(60)).max(MOST_COLUMNS).default(undefined).optional(),
  setups: array().of(string().required().max(60)).max(MOST_COLUMNS).default(undefined).optional(),
}).noUnknown();

/** A figure or a sentence as it was published. */
const publishedSchema = object({
  key: string().required().max(160),
  /** What it is, in words. */
  of: string().required().max(LONGEST_LINE),
  says: string().defined().max(LONGEST_LINE),
}).noUnknown();

const correctionSchema = object({
  id: idField(),
  at: instantField().required(),
  text: textField(LONGEST_LINE).required('A correction says what was given, and what it is.'),
}).noUnknown();

/** What a reviewer publishes of some runs: blocks of words, tables and pictures, and what became of them since. */
export const pieceSchema = object({
  schema: number().oneOf([SCHEMA]).required(),
  id: idField(),
  name: nameField(),
  /** When it was last saved, epoch milliseconds. */
  at: instantField().required(),
  runs: array().of(idField()).min(1, 'A piece is of one run or more.').max(MOST_RUNS).required(),
  /** The study it is of. */
  study: string().max(60),
  /** What it was written from, in words. */
  from: string().max(200),
  /** The run of the setup that others are set against, and by what, as its comparison has it. */
  base: string().max(60),
  level: string().max(20),
  unit: string().max(8),
  blocks: array().of(blockSchema).max(BLOCK_IDS.length).required(),
  /** Who lent or paid for what: nothing until it was asked. */
  lent: textField(1000),
  published: object({ at: instantField().required(), text: string().defined().max(LONGEST_PIECE) })
    .noUnknown()
    .default(undefined)
    .optional(),
  /** What it says as far as readers know: as published, and as corrected since. */
  told: array().of(publishedSchema).max(MOST_SAID).default(undefined).optional(),
  corrections: array().of(correctionSchema).max(MOST_CORRECTIONS).default(undefined).optional(),
}).noUnknown();

export type Piece = InferType<typeof pieceSchema>;
export type PieceBlock = InferType<typeof blockSchema>;
export type Told = InferType<typeof publishedSchema>;
export type CorrectionLine = InferType<typeof correctionSchema>;
