import { array, boolean, lazy, number, object, string, type InferType } from 'yup';
import { idField, MOST_LISTED, nameField, textField } from '../bench/fields';
import { instantField } from '../ink/fields';
import { SCHEMA } from '../ink/version';
import { cadenceSchema, type Cadence } from '../method/cadenceSchema';
import { conditionsField } from '../method/conditionSchema';
import { calendarSchema } from './calendarSchema';

/** States in which a device can be charged. */
export const STATES = ['asleep', 'awake', 'off', 'case on'] as const;
/** In which order the runs of a study are made. */
export const ORDERS = ['as listed', 'shuffled', 'counterbalanced'] as const;
/** Seeds are whole numbers that a computer keeps exactly. */
const MOST_SEED = Number.MAX_SAFE_INTEGER;

/** Runs that a cell may have beyond the repeats of its study. */
const MOST_MORE = 10;

const MOST_CELLS = 10_000;
const cellField = () => string().required().max(200);

const crossed = object({ cell: cellField(), reason: string().trim().required('Say why it is left out.').max(120) }).noUnknown();
const someIds = (message: string) => array().of(idField()).required(message).min(1, message).max(MOST_LISTED);

/** A study: a question, the setups that answer it, how runs are taken, and what must match. Holds ids of gear on the shelf. */
export const studySchema = object({
  schema: number().oneOf([SCHEMA]).required(),
  id: idField(),
  name: nameField(),
  question: textField(200).required('Write the question, or choose one.'),
  method: string().required('Choose a method.').max(40),
  cadence: lazy(() => cadenceSchema),
  /** Level at which every run starts, in %. */
  startLevel: number()
    .typeError('Write a level from 0 to 100.')
    .min(0, 'Displays show 0 to 100 %.')
    .max(100, 'Displays show 0 to 100 %.')
    .required('Say at which level every run starts.'),
  devices: someIds('Choose at least one device.'),
  chargers: someIds('Choose at least one charger.'),
  /** What feeds chargers that have a source of their own, each in a column of its own; without one, what the shelf says of it. */
  feeds: array()
    .of(object({ charger: idField(), by: idField() }).noUnknown())
    .max(MOST_LISTED)
    .default(undefined)
    .optional(),
  /** Without one, each run takes a cable that fits. */
  cables: array().of(idField()).required().max(MOST_LISTED),
  /** Meters at hand: a run takes any of them. None: power is not read. */
  meters: array().of(idField()).required().max(MOST_LISTED),
  states: array().of(string().oneOf(STATES).required()).required().min(1, 'Choose at least one state.').max(STATES.length),
  /** Cells left out on purpose, with a reason. */
  crossed: array().of(crossed).required().max(MOST_CELLS),
  repeats: number()
    .integer('Count whole runs.')
    .typeError('Write how often each is run.')
    .min(1, 'Each is run at least once.')
    .max(10, 'Ten repeats are the most.')
    .required(),
  /** Runs of single cells beyond those repeats: each would settle what a comparison left open. */
  more: array()
    .of(object({ cell: cellField(), runs: number().integer().min(1).max(MOST_MORE).required() }).noUnknown())
    .max(MOST_CELLS)
    .default(undefined)
    .optional(),
  order: string().oneOf(ORDERS).required(),
  /** What a shuffled order is drawn from, so that it stays the same. */
  seed: number().integer().min(-MOST_SEED).max(MOST_SEED).required(),
  /** Whether runs that share no gear are started together, from one switched strip. */
  races: boolean().required(),
  conditions: conditionsField().required(),
  /** When its runs are to be made. */
  calendar: calendarSchema.default(undefined).optional(),
  /** Sums that were worked out for it, in words. */
  notes: array()
    .of(object({ at: instantField().required(), text: textField(600).required('A note says something.') }).noUnknown())
    .max(200)
    .default(undefined)
    .optional(),
})
  .noUnknown()
  .test(
    'size',
    `Over ${MOST_CELLS} setups are more than can be planned: leave out devices, chargers, cables or states.`,
    ({ devices, chargers, feeds, cables, states }) =>
      devices.length * (chargers.length + (feeds?.length ?? 0)) * Math.max(1, cables.length) * states.length <= MOST_CELLS,
  );

export type Study = Omit<InferType<typeof studySchema>, 'cadence'> & { cadence: Cadence };
