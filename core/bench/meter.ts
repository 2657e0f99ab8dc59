import { object, type InferType } from 'yup';
import { figureField, idField, nameField, retiredField, sizeField } from './fields';

/** A meter in the line. Resolution in V and A; accuracy as ± a percentage of the reading ± so many last digits; interval in s. */
export const meterSchema = object({
  id: idField(),
  name: nameField(),
  voltsResolution: sizeField(1, 'V'),
  ampsResolution: sizeField(1, 'A'),
  accuracyPercent: figureField().min(0, 'Accuracy cannot be below zero.').max(20, 'Over 20 % is no meter: check the figure.'),
  accuracyDigits: figureField()
    .integer('Count whole digits.')
    .min(0, 'Digits cannot be below zero.')
    .max(99, 'Over 99 digits: check the figure.'),
  /** Seconds between samples, for a meter that streams. */
  interval: sizeField(3_600, 's'),
  retired: retiredField(),
}).noUnknown();

export type Meter = InferType<typeof meterSchema>;
