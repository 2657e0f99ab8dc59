/** Does a piece of work while no other tab does work of the same name. */
export function exclusively<Result>(name: string, work: () => Promise<Result>): Promise<Result> {
  return navigator.locks.request(`inkpath/${name}`, work);
}

/** What came of asking for a run: whether this tab has it, and how to let it go. */
export interface Hold {
  held: boolean;
  release: () => void;
}

/**
 * Holds a live run for this tab, so that one tab alone writes its ink.
 *
 * @param take    take it over from the tab that has it
 * @param onLost  called at once when another tab takes it over
 */
export function holdRun(runId: string, take: boolean, onLost: () => void): Promise<Hold> {
  return new Promise((resolve) => {
    const hold = (lock: Lock | null) =>
      new Promise<void>((release) => {
        resolve({ held: lock !== null, release });
        if (lock === null) release();
      });
    const options = take ? { steal: true } : { ifAvailable: true };
    navigator.locks.request(`inkpath/run/${runId}`, options, hold).catch(onLost);
  });
}
