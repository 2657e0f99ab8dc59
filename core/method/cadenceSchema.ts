import { number, object, string, type InferType } from 'yup';

/** When readings fall due. Times in seconds from plug-in. */
export const cadenceSchema = object({
  kind: string()
    .oneOf(['fixed'] as const)
    .required(),
  every: number()
    .typeError('Write the minutes between readings, such as 5.')
    .required('Say how often a reading is wanted.')
    .min(30, 'Half a minute is the shortest interval: below it use a meter.')
    .max(12 * 3600, 'Twelve hours is the longest interval.'),
}).noUnknown();

/** Readings at every multiple of `every` seconds after plug-in. */
export type Cadence = InferType<typeof cadenceSchema>;
