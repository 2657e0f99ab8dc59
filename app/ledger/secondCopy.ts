import type { Remote } from 'comlink';
import type { Line } from '@core';
import type { SecondCopy } from '../workers/secondCopy';

/**
 * What is stored is also written to a file of its own, beside the databases. A browser that is killed while it writes can find its databases
 * broken, and then throws all of them away; the file is another matter. It holds no pictures and no samples of meters.
 */

const FOLDER = 'second-copy';

let copy: Promise<Remote<SecondCopy> | undefined> | undefined;

function open(): Promise<Remote<SecondCopy> | undefined> {
  // Where the browser has no such files, the databases are all there is.
  if (!('storage' in navigator) || !('getDirectory' in navigator.storage)) return Promise.resolve(undefined);
  if (!copy) {
    copy = import('comlink').then(({ wrap }) =>
      wrap<SecondCopy>(new Worker(new URL('../workers/secondCopy.ts', import.meta.url), { type: 'module', name: FOLDER })),
    );
    // Whoever leaves takes nothing along that was not sent.
    addEventListener('pagehide', send);
  }
  return copy;
}

/** Lines are sent a handful at a time, so that the copying never meets the storing of what comes next. */
const SOON = 250;
let waiting: Line[] = [];

function send(): void {
  const lines = waiting.map((line) => JSON.stringify(line));
  waiting = [];
  if (lines.length === 0) return;
  // It never stands in the way of the first copy: the databases are the logbook.
  open()
    .then((there) => there?.append(lines))
    .catch(() => undefined);
}

/**
 * Writes down what was stored, or taken away where there is no value, or dropped where there is no key. It is put into words only when it is
 * sent: what has been stored is not changed after.
 */
export function copyDown(line: Omit<Line, 'at'>): void {
  if (waiting.push({ at: Date.now(), ...line }) === 1) setTimeout(send, SOON);
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

/** How many bytes the second copy takes. */
export const copySize = (): Promise<number> => asked((there) => there.size(), 0);

/** Writes the second copy anew, from what stands now. Should it fail, the old one stays, and serves as well. */
export const copyAnew = (lines: readonly Line[]): Promise<void> =>
  asked((there) => there.renew(lines.map((line) => JSON.stringify(line))), undefined);
