/** Figures that a person asked for beside those that are usually quoted: they stay asked for. */
export interface AskedFigures {
  /** Levels, in %. */
  levels: readonly number[];
  /** Nominal times, in seconds from plug-in. */
  marks: readonly number[];
  /** A power, in W, above which time is asked for. */
  watts?: number | undefined;
}

let asked: AskedFigures = { levels: [], marks: [] };

/** Chooses what is asked for from now on; kept as it is handed over, so that an interface is told of who reads it. */
export function setAsked(chosen: AskedFigures): void {
  asked = chosen;
}

/** What is asked for now, as a value that can be sent to a worker. */
export const askedNow = (): AskedFigures => ({ levels: [...asked.levels], marks: [...asked.marks], watts: asked.watts });
