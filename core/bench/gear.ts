import { mixed, number, object, string, type InferType } from 'yup';

export const DEVICE_KINDS = ['phone', 'tablet', 'laptop', 'camera', 'power bank', 'other'] as const;
export const CHARGER_KINDS = ['adapter', 'dock', 'wall socket', 'power bank', 'pad', 'computer', 'other'] as const;

/** The longest name that is kept; more would not fit a lane. */
const LONGEST_NAME = 80;

const id = string().required().max(40);
const name = string()
  .trim()
  .required('Give it a name, so that its runs can be told apart.')
  .max(LONGEST_NAME, `Keep the name within ${LONGEST_NAME} characters.`);
/** A field left empty is missing, not zero. */
const figure = () => number().transform((value: unknown, typed: unknown) => (typed === '' || typed === null ? undefined : value));
const above = (most: number, unit: string) =>
  figure()
    .typeError(`Write a number of ${unit}, such as ${Math.round(most / 10)}.`)
    .moreThan(0, `Must be more than 0 ${unit}, or left empty if unknown.`)
    .max(most, `Over ${most} ${unit} is more than is kept here: check the unit.`);

/** A device under test. Battery by mAh and nominal volts, or by Wh; input limit in watts. */
export const deviceSchema = object({
  id,
  name,
  kind: mixed<(typeof DEVICE_KINDS)[number]>().oneOf(DEVICE_KINDS, 'Choose what kind of device it is.').required(),
  milliampHours: above(200_000, 'mAh'),
  nominalVolts: above(100, 'V').when('milliampHours', ([charge], schema) =>
    charge === undefined ? schema : schema.required('Give the nominal volts too, or the battery in Wh instead.'),
  ),
  wattHours: above(5_000, 'Wh'),
  inputLimit: above(1_000, 'W'),
}).noUnknown();

/** A charger: any source. Rated watts, its printed label, and its price in the reviewer's own currency. */
export const chargerSchema = object({
  id,
  name,
  kind: mixed<(typeof CHARGER_KINDS)[number]>().oneOf(CHARGER_KINDS, 'Choose what kind of source it is.').required(),
  watts: above(1_000, 'W').required('Give its watts, so that a slip in typing can be noticed.'),
  label: string().trim().max(200, 'Keep the label text within 200 characters.'),
  price: figure().typeError('Write the price as a number, without the currency.').min(0, 'A price cannot be below zero.'),
}).noUnknown();

export type Device = InferType<typeof deviceSchema>;
export type Charger = InferType<typeof chargerSchema>;
