import type { Trace } from '../strip/trace';

/** A made-up run, for a picture of what will be had: straight to 80 %, then ever slower. @param full in seconds */
export function madeUpRun(name: string, pen: number, full: number): Trace {
  const steps = 60;
  const levels = Array.from({ length: steps + 1 }, (_, step): [number, number] => {
    const share = step / steps;
    const level = share < 0.62 ? 2 + (78 * share) / 0.62 : 100 - 20 * ((1 - share) / 0.38) ** 1.7;
    return [share * full, level];
  });
  return {
    ...{ id: name, name, pen, end: full, dots: { percent: levels }, streamed: new Set(['percent'] as const) },
    ...{ struck: [], events: [], missed: [], unwatched: [], unseen: [] },
  };
}
