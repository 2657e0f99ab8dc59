import { array, number, object, string, type InferType } from 'yup';
import { idField, textField } from '../bench/fields';
import { instantField } from '../ink/fields';
import { SCHEMA } from '../ink/version';

/** As many as there are figures and needs, and more. */
const MOST_COLUMNS = 400;
const MOST_EDITS = 200;

/** The longest sentence that is kept of a verdict. */
const MOST_SENTENCE = 600;

/** What a reviewer wrote in place of a sentence of the verdict. */
const editSchema = object({
  /** Which sentence: its need, `to-80`. */
  need: textField(40).required(),
  text: textField(MOST_SENTENCE).required('Write the sentence, or take the one that was worked out.'),
  /** What was worked out when it was written: once that says something else, the edit is stale. */
  made: string()
    .required()
    .max(4 * MOST_SENTENCE),
}).noUnknown();

/** A comparison that has a name: the runs that are laid beside each other, how they are looked at, and what a reviewer made of them. */
export const comparisonSchema = object({
  schema: number().oneOf([SCHEMA]).required(),
  id: idField(),
  name: string().trim().required('Give it a name.').max(120, 'A name has 120 characters at most.'),
  /** When it was last saved, epoch milliseconds. */
  at: instantField().required(),
  runs: array().of(idField()).min(2, 'Choose two runs or more.').max(1000).required(),
  /** The run of the setup that others are set against. */
  base: string().max(60),
  /** What others are set against it by: a level in %, or the id of a figure. */
  level: string().max(20),
  unit: string().max(8),
  /** Columns of its table, where they were chosen. */
  columns: array().of(string().required().max(60)).max(MOST_COLUMNS).default(undefined).optional(),
  /** Which picture is shown, and of bars which figures. */
  show: string().max(20),
  bars: string().max(40),
  edits: array().of(editSchema).max(MOST_EDITS).default(undefined).optional(),
}).noUnknown();

export type Comparison = InferType<typeof comparisonSchema>;
export type Edit = InferType<typeof editSchema>;

/** Whether a comparison is of these runs, in whatever order. */
export const isOf = ({ runs }: Pick<Comparison, 'runs'>, others: readonly string[]): boolean =>
  runs.length === others.length && [...runs].sort().join('.') === [...others].sort().join('.');
