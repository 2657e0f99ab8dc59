/** What locks of this program are called begins so. */
const lockName = (name: string): string => `inkpath/${name}`;

/** Does a piece of work while no other tab does work of the same name. */
export function exclusively<Result>(name: string, work: () => Promise<Result>): Promise<Result> {
  return navigator.locks.request(lockName(name), work);
}

/** Does a piece of work that others of the same name may do meanwhile, but nothing that is to be done exclusively. */
export function sharing<Result>(name: string, work: () => Promise<Result>): Promise<Result> {
  return navigator.locks.request(lockName(name), { mode: 'shared' }, work);
}

/** Does a piece of work if nobody, this tab among them, does or shares work of the same name just now. */
export async function ifFree(name: string, work: () => Promise<void>): Promise<void> {
  await navigator.locks.request(lockName(name), { ifAvailable: true }, (lock) => (lock ? work() : undefined));
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
  const name = lockName(`run/${runId}`);
  /** The last that was asked for here. One before it that is lost was taken over by this tab itself. */
  let latest = 0;
  let letGo: () => void = () => undefined;
  let isOver = false;
  let waiting = new AbortController();

  /** Keeps the lock until it is let go of. */
  const keep = (asked: number, begun: () => void) => () =>
    new Promise<void>((resolve) => {
      if (isOver) {
        begun();
        resolve();
        return;
      }
      latest = asked;
      letGo = resolve;
      onChange(true);
      begun();
    });

  let count = 0;
  const ask = (options: LockOptions, begun: () => void = () => undefined): void => {
    const asked = (count += 1);
    navigator.locks.request(name, options, keep(asked, begun)).catch(() => {
      if (asked === latest) lost();
      begun();
    });
  };
  /** Stands in the queue, and again whenever another tab has taken it over. */
  const wait = (): void => {
    if (isOver) return;
    waiting.abort();
    waiting = new AbortController();
    ask({ signal: waiting.signal });
  };
  const lost = () => {
    if (isOver) return;
    onChange(false);
    wait();
  };
  const hold: Hold = {
    take: () =>
      new Promise((resolve) => {
        // What still stands in the queue here would wait behind itself.
        waiting.abort();
        ask({ steal: true }, resolve);
      }),
    release: () => {
      isOver = true;
      waiting.abort();
      letGo();
    },
  };
  return new Promise((resolve) => {
    const first = (lock: Lock | null) => {
      if (lock)
        return keep((count += 1), () => {
          resolve(hold);
        })();
      resolve(hold);
      wait();
      return undefined;
    };
    navigator.locks.request(name, { ifAvailable: true }, first).catch(() => {
      if (latest === 1) lost();
      resolve(hold);
    });
  });
}
