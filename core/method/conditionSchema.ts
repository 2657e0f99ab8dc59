import { array, object, string, type InferType } from 'yup';

/** A setting that must match from run to run, and its value. */
const conditionSchema = object({ name: string().trim().required().max(60), value: string().trim().max(80).defined() }).noUnknown();
export type Condition = InferType<typeof conditionSchema>;

/** More settings than any checklist has. */
const MOST_CONDITIONS = 60;
export const conditionsField = () => array().of(conditionSchema).max(MOST_CONDITIONS);
