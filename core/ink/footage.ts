import { MOST_LISTED } from '../bench/fields';
import { array, number, object, type InferType } from 'yup';

import type { ClipTime, Elapsed } from '../quantity/times';
import { LONGEST_RUN } from './ranges';

const length = () => number().min(0).max(LONGEST_RUN);

/** A stretch that the camera did not film: at which second of the clip, and how much of the run is missing there, in seconds. */
const cutSchema = object({ at: length().required(), missing: length().required() }).noUnknown();

/** Footage a run was read from. */
export const footageSchema = object({
  /** Second of the clip at which it was plugged in. */
  offset: length().required(),
  /** Seconds of the run in one second of the clip: 1 as filmed, 60 for a time lapse that shows an hour in a minute. */
  speed: number().positive('The speed is above zero: 1 as filmed.').max(1e6).required(),
  cuts: array().of(cutSchema.required()).required().max(MOST_LISTED),
}).noUnknown();

export type Footage = InferType<typeof footageSchema>;

/**
 * The time of a run that a second of the clip shows.
 *
 * @param clip seconds of the clip
 * @returns seconds from plug-in; below zero before it
 */
export function elapsedIn({ offset, speed, cuts }: Footage, clip: ClipTime): Elapsed {
  const missing = (at: ClipTime) => cuts.filter((cut) => cut.at <= at).reduce((sum, cut) => sum + cut.missing, 0);
  return (clip - offset) * speed + missing(clip) - missing(offset);
}
