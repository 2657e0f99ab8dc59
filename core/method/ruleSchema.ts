import { array, number, object, string, type InferType } from 'yup';

/** What ends a run: the display shows 100, power has died away, a window is over, or a list has been tried through. */
export const ENDINGS = ['full', 'power', 'window', 'list'] as const;

/** What can be wanted at a check. `…at both ends`: at plug-in and at the last check only. */
export const WANTS = ['level', 'watts', 'watt-hours', 'temperature', 'battery watts', 'level at both ends'] as const;
export type Wanted = (typeof WANTS)[number];

/** What a method asks of a live run: what ends it, what is wanted at every check, and what it says meanwhile. */
export const ruleSchema = object({
  ends: string().oneOf(ENDINGS).required(),
  wants: array().of(string().oneOf(WANTS).required()).required().max(WANTS.length),
  /** Seconds without gain that count as a stall; an hour where it is not said. */
  stall: number()
    .min(300)
    .max(24 * 3600),
  /** Surface or battery is called hot above this, °C; above `HOT` where it is not said. */
  hot: number().min(25).max(60),
  /** From when its times count: plug-in where it is not said, else the start of each workload. */
  from: string().oneOf(['workload'] as const),
  /** Said while a check is due. */
  due: string().max(160),
  /** Said between checks. */
  between: string().max(160),
}).noUnknown();

export type Rule = InferType<typeof ruleSchema>;
