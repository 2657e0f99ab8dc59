/** Does a piece of work while no other tab does work of the same name. */
export function exclusively<Result>(name: string, work: () => Promise<Result>): Promise<Result> {
  return navigator.locks.request(`inkpath/${name}`, work) as Promise<Result>;
}

/**
 * Holds a live run for this tab, so that one tab alone writes its ink.
 *
 * @param take    take it over from the tab that has it
 * @param onLost  called at once when another tab takes it over
 * @returns whether this tab has it now
 */
export function holdRun(runId: string, take: boolean, onLost: () => void): Promise<boolean> {
  return new Promise((resolve) => {
    const hold = (lock: Lock | null) => {
      resolve(lock !== null);
      return lock === null ? undefined : new Promise<void>(() => undefined);
    };
    const options = take ? { steal: true } : { ifAvailable: true };
    navigator.locks.request(`inkpath/run/${runId}`, options, hold).catch(onLost);
  });
}
