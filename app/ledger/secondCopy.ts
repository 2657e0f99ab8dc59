import type { Remote } from 'comlink';
import type { Line } from '@core';
import type { SecondCopy } from '../workers/secondCopy';

/**
 * What is stored is also written to a file of its own, beside the databases. A browser that is killed while it writes can find its databases
 * broken, and then throws all of them away; the file is another matter. It holds no pictures and no samples of meters.
 */

let copy: Promise<Remote<SecondCopy> | undefined> | undefined;

function open(): Promise<Remote<SecondCopy> | undefined> {
  // Where the browser has no such files, the databases are all there is.
  if (!('storage' in navigator) || !('getDirectory' in navigator.storage)) return Promise.resolve(undefined);
  copy ??= import('comlink').then(({ wrap }) =>
    wrap<SecondCopy>(new Worker(new URL('../workers/secondCopy.ts', import.meta.url), { type: 'module' })),
  );
  return copy;
}

/** Writes down what is being stored, or taken away where there is no value, or dropped where there is no key. It never stands in the way of the first copy. */
export async function copyDown(line: Omit<Line, 'at'>): Promise<void> {
  try {
    await (await open())?.append(JSON.stringify({ at: Date.now(), ...line } satisfies Line));
  } catch {
    // The databases are the logbook.
  }
}

/** Every line there is, and how many bytes they are; none where nothing can be read. */
export async function copied(): Promise<{ lines: string[]; bytes: number }> {
  try {
    return (await (await open())?.read()) ?? { lines: [], bytes: 0 };
  } catch {
    return { lines: [], bytes: 0 };
  }
}

/** Writes the second copy anew, from what stands now. */
export async function copyAnew(lines: readonly Line[]): Promise<void> {
  try {
    await (await open())?.renew(lines.map((line) => JSON.stringify(line)));
  } catch {
    // The old one stays, and serves as well.
  }
}
