import { lazy, number, object, type InferType } from 'yup';
import { idField, nameField, textField } from '../bench/fields';
import { cadenceSchema, type Cadence } from './cadenceSchema';
import { conditionsField } from './conditionSchema';
import { ruleSchema, type Rule } from './ruleSchema';

/** A method of the reviewer’s own: a school of the trade, adjusted and kept under a name. */
export const ownMethodSchema = object({
  id: idField(),
  name: nameField(),
  start: textField(120).required('Say how a run starts.'),
  startLevel: number().typeError('Write a level from 0 to 100.').min(0, 'Displays show 0 to 100 %.').max(100, 'Displays show 0 to 100 %.'),
  cadence: lazy(() => cadenceSchema),
  records: textField(160).required('Say what is written down at each check.'),
  stops: textField(120).required('Say when a run stops.'),
  goodFor: textField(160).defined(),
  weakAt: textField(160).defined(),
  rule: ruleSchema.default(undefined).optional(),
  conditions: conditionsField().required(),
}).noUnknown();

/** Methods that were kept before rules were have the usual one. */
export type OwnMethod = Omit<InferType<typeof ownMethodSchema>, 'cadence' | 'rule'> & { cadence: Cadence; rule: Rule };
