/** Does a piece of work while no other tab does work of the same name. */
export function exclusively<Result>(name: string, work: () => Promise<Result>): Promise<Result> {
  return navigator.locks.request(`inkpath/${name}`, work);
}

/** Does a piece of work if no tab, this one among them, holds a lock of that name. */
export async function ifFree(name: string, work: () => Promise<void>): Promise<void> {
  await navigator.locks.request(`inkpath/${name}`, { ifAvailable: true }, (lock) => (lock ? work() : undefined));
}

/** A live run as this tab has it, or waits for it. */
export interface Hold {
  /** Takes it over from the tab that has it. Resolves once it is here. */
  take: () => Promise<void>;
  /** Lets it go, or waits for it no longer. */
  release: () => void;
}

/**
 * Holds a live run for this tab, so that one tab alone writes its ink. Where another has it this one waits: a tab that is closed, or a page that is
 * still being left, frees its runs, and they are here at once.
 *
 * @param onChange told whenever this tab gets the run, and at once when another takes it over
 * @returns resolves when it is known whether it is here to begin with
 */
export function holdRun(runId: string, onChange: (isHere: boolean) => void): Promise<Hold> {
  const name = `inkpath/run/${runId}`;
  let letGo: () => void = () => undefined;
  let isOver = false;
  const calledOff = new AbortController();

  /** Keeps the lock until it is let go of. */
  const keep = (begun: () => void) => () =>
    new Promise<void>((resolve) => {
      if (isOver) {
        resolve();
        return;
      }
      letGo = resolve;
      onChange(true);
      begun();
    });

  /** Stands in the queue, and again whenever another tab has taken it over. */
  const wait = (): void => {
    if (isOver) return;
    navigator.locks
      .request(
        name,
        { signal: calledOff.signal },
        keep(() => undefined),
      )
      .catch(lost);
  };
  const lost = () => {
    if (isOver) return;
    onChange(false);
    wait();
  };
  const hold: Hold = {
    take: () =>
      new Promise((resolve) => {
        navigator.locks.request(name, { steal: true }, keep(resolve)).catch(lost);
      }),
    release: () => {
      isOver = true;
      calledOff.abort();
      letGo();
    },
  };
  return new Promise((resolve) => {
    const first = (lock: Lock | null) => {
      if (lock)
        return keep(() => {
          resolve(hold);
        })();
      resolve(hold);
      wait();
      return undefined;
    };
    navigator.locks.request(name, { ifAvailable: true }, first).catch(lost);
  });
}
