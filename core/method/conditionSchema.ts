import { object, string, type InferType } from 'yup';

/** A setting that must match from run to run, and its value. */
export const conditionSchema = object({ name: string().trim().required().max(60), value: string().trim().max(80).defined() }).noUnknown();
export type Condition = InferType<typeof conditionSchema>;
