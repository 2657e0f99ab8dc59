/** Assumptions that hold until readings replace them. */
export interface Assumed {
  /** The relative standard deviation between repeats of one setup (docs/numbers.md). */
  spread: number;
  /** The share of its claimed hours for which a device lasts in real use (common practice, no source: 40 % is one habit). */
  realUse: number;
}

/** What is assumed where nobody chose. */
export const USUALLY: Assumed = { spread: 0.03, realUse: 0.4 };
let assumed: Assumed = USUALLY;

/** Chooses what is assumed from now on; kept as it is handed over, so that an interface is told of who reads it. */
export function setAssumed(chosen: Assumed): void {
  assumed = chosen;
}

/** What is assumed now, as a value that can be sent to a worker. */
export const assumedNow = (): Assumed => ({ ...assumed });
