import type { Stretch } from './calendar';

/** What a person sits down to: one run, or a race of several that start together. Seconds from when they sit down to it. */
export interface Job {
  key: string;
  /** What it occupies and for how long, in whole minutes; from below zero where gear is got ready before. */
  spans: (Stretch & { resource: string })[];
  /** When it needs the person, ascending; the first is plugging in, the last packing up. */
  visits: Stretch[];
  /** Until it is packed up: whole minutes. */
  length: number;
  /** Whether it may go on, unread, while nobody is there. */
  overnight: boolean;
}

/** A study to be laid into days. Epoch seconds. */
export interface Problem {
  jobs: Job[];
  /** How many there are of a resource; one where it is not said. */
  capacity: Readonly<Record<string, number>>;
  /** When the person is there, ascending. */
  windows: Stretch[];
  /** Nothing is occupied before. */
  earliest: number;
  /** Jobs whose start is fixed. */
  pins: ReadonlyMap<string, number>;
}

/** A job in its place. Epoch seconds. */
export interface Placed {
  job: Job;
  at: number;
  /** When it is packed up. */
  end: number;
  /** When the person sees to it; readings that would fall outside the hours are left out. */
  visits: Stretch[];
  /** How many readings are left out. */
  unread: number;
}

/** Runs begin on whole minutes. */
export const MINUTE = 60;
export const toMinute = (seconds: number) => Math.ceil(seconds / MINUTE - 1e-9) * MINUTE;
