import type { Remote } from 'comlink';
import type { Line } from '@core/exchange';
import type { Compared, SecondCopy } from './copyWorker';

/**
 * What is stored is also written to a file of its own, beside the databases. A browser that is killed while it writes can find its databases
 * broken, and then throws all of them away; the file is another matter. It holds no pictures and no samples of meters.
 */

const FOLDER = 'second-copy';
const CLOCK = 'inkpath-copied';

let copy: Promise<Remote<SecondCopy> | undefined> | undefined;

function open(): Promise<Remote<SecondCopy> | undefined> {
  // Where the browser has no such files, the databases are all there is.
  if (!('storage' in navigator) || !('getDirectory' in navigator.storage)) return Promise.resolve(undefined);
  copy ??= import('comlink').then(async ({ wrap }) => {
    const there = wrap<SecondCopy>(new Worker(new URL('./copyWorker.ts', import.meta.url), { type: 'module', name: FOLDER }));
    follow(await there.newest());
    return there;
  });
  return copy;
}

/** Lines are sent a handful at a time, so that the copying never meets the storing of what comes next. */
const SOON = 250;
let waiting: Line[] = [];

function send(): void {
  // It never stands in the way of the first copy: the databases are the logbook.
  open()
    .then((there) => {
      const lines = waiting.map((line) => JSON.stringify(line));
      waiting = [];
      share();
      return lines.length > 0 ? there?.append(lines) : undefined;
    })
    .catch(() => undefined);
}

// From the first line on: whoever leaves takes nothing along that was not sent.
if (typeof window !== 'undefined') {
  addEventListener('pagehide', () => {
    if (waiting.length > 0) send();
  });
  // Another tab has counted on.
  addEventListener('storage', (event) => {
    const { key, newValue } = event as StorageEvent;
    if (key === CLOCK) counted = Math.max(counted ?? 0, Number(newValue));
  });
}

/** The last place that was given, here or in another tab; before the first, as it was left. */
let counted: number | undefined;

/** The place of the next line: the time, unless the clock went back, and then one more than the last. */
function count(): number {
  counted ??= shared();
  counted = Math.max(counted + 1, Date.now());
  return counted;
}

/** How far tabs have counted. Storage that is blocked counts nothing; the files themselves are looked at as well. */
function shared(): number {
  try {
    return Number(localStorage.getItem(CLOCK));
  } catch {
    return 0;
  }
}

/** Has the other tabs count on from here. */
function share(): void {
  try {
    localStorage.setItem(CLOCK, String(counted));
  } catch {
    // As above.
  }
}

/** Lines come after all that was written before, also by a program whose clock was ahead. */
function follow(newest: number): void {
  counted ??= shared();
  const behind = newest + 1 - (waiting[0]?.at ?? counted);
  if (behind <= 0) return;
  waiting = waiting.map((line) => ({ ...line, at: line.at + behind }));
  counted += behind;
}

/**
 * Writes down what was stored, or removed where there is no value, or dropped where there is no key. It is put into words only when it is
 * sent: what has been stored is not changed after.
 */
export function copyDown(line: Omit<Line, 'at'>): void {
  if (waiting.push({ at: count(), ...line }) === 1) setTimeout(send, SOON);
}

let found: Promise<boolean> | undefined;

/** Whether there was a second copy at the start: its folder is looked for here, and once, for a first start would wait long for the worker. */
export function isCopied(): Promise<boolean> {
  found ??= Promise.resolve()
    .then(() => navigator.storage.getDirectory())
    .then((all) => all.getDirectoryHandle(FOLDER))
    .then(
      () => true,
      () => false,
    );
  return found;
}

/** Asks the second copy; `none` where nothing can be read. */
async function asked<Answer>(question: (there: Remote<SecondCopy>) => Promise<Answer>, none: Answer): Promise<Answer> {
  try {
    const there = await open();
    return there ? await question(there) : none;
  } catch {
    return none;
  }
}

/** Every line there is. */
export const copied = (): Promise<string[]> => asked((there) => there.read(), []);

/**
 * Compares the second copy with the databases, both ways: what was stored and is not in it is written down; ink that it holds and the databases
 * have lost is given back.
 *
 * @param books names of the databases that are copied whatever is live
 */
export const compared = (books: readonly string[]): Promise<Compared> => asked((there) => there.compare(books), { lost: [], written: 0 });
