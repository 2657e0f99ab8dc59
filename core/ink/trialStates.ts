/** In which the device is while a charger is tried. */
export const TRIAL_STATES = ['awake', 'asleep', 'off'] as const;
export type TrialState = (typeof TRIAL_STATES)[number];
