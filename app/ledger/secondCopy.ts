import type { Remote } from 'comlink';
import { nanoid } from 'nanoid';
import { shallowRef } from 'vue';
import { lineText, voidText, type Line } from '@core/exchange';
import { FOLDER } from './copied';
import type { CopyWorker } from './copyWorker';
import { countFrom } from './order';

/**
 * What is stored is also written to a file of its own, beside the databases, before it is called stored. A browser that is killed while it writes
 * can find its databases broken, and then throws all of them away; the file is another matter. It holds no pictures and no samples of meters.
 */

/** How long a line may take before the copy is taken for broken, in milliseconds. */
const LONGEST_WRITE = 15_000;

/** This page among those that ever wrote: its lines have a file of their own. */
export const PAGE = nanoid(10);

/** Whether there is a second copy: where this browser has no such files, or they fail, the logbook itself is all there is. */
export const isWithoutCopy = shallowRef(false);

const hasFiles = () => 'storage' in navigator && 'getDirectory' in navigator.storage;
let there: Remote<CopyWorker> | undefined;
/** By which lines go, once the copy was begun. */
let lineTo: Worker | undefined;
/** Who waits for which line. */
const waiting = new Map<number, () => void>();
function answered(i: number): void {
  waiting.get(i)?.();
  waiting.delete(i);
}
let beginning: Promise<boolean> | undefined;
let isAsked: () => void = () => undefined;
/** Resolves when the copy was begun, by whoever asked for it first. */
const asked = new Promise<void>((resolve) => (isAsked = resolve)).then(() => beginning);

/**
 * Begins the second copy of this page: it is compared with the logbook, and what is missing in either is made good.
 *
 * @returns whether anything was brought back into the logbook
 */
export function beginCopy(): Promise<boolean> {
  isAsked();
  beginning ??= hasFiles() ? begin().catch(broken) : Promise.resolve(broken());
  return beginning;
}

async function begin(): Promise<boolean> {
  const { remoteOf } = await import('../kit/remote');
  const worker = new Worker(new URL('./copyWorker.ts', import.meta.url), { type: 'module', name: FOLDER });
  const { port1, port2 } = new MessageChannel();
  worker.postMessage(port2, [port2]);
  worker.onmessage = ({ data }: MessageEvent<number | [number, string]>) => {
    if (Array.isArray(data)) broken();
    else answered(data);
  };
  const remote = remoteOf<CopyWorker>(worker, broken, port1);
  const { isMended, last } = await remote.begin(PAGE);
  countFrom(last);
  [there, lineTo] = [remote, worker];
  return isMended;
}

function broken(): false {
  there = lineTo = undefined;
  for (const answer of waiting.values()) answer();
  waiting.clear();
  isWithoutCopy.value = true;
  return false;
}

/** Nothing is stored in a logbook that was begun just now: its first acts need not wait for the copy to be compared. */
let isNew = false;
export function beginNew(): void {
  isNew = true;
}

/** Keeps the second copy short. Nothing hangs on it. */
export async function renewCopy(): Promise<void> {
  await beginCopy();
  await there?.renew();
}

/** Lines of this page so far. */
let lines = 0;

/** The line of an act: written while the act is done, and void where it was not. */
export interface LineOfAct {
  write: (line: Line) => void;
  /** Resolves when it is written, or when there is no second copy. */
  stands: () => Promise<void>;
  undo: () => Promise<void>;
}

/**
 * A line of an act that is to begin. What an earlier kill left is made good first.
 *
 * @param isEarly whether nobody waits for it: in a new logbook it is written once the copy was begun for another
 */
export async function writeLine(isEarly = false): Promise<LineOfAct> {
  const begun = isNew && isEarly ? asked : beginCopy();
  if (!isNew) await begun;
  const i = (lines += 1);
  let writing: Promise<void> | undefined;
  return {
    write: (line) => {
      writing = append(i, lineText(i, line), begun);
    },
    stands: async () => writing,
    undo: async () => {
      if (writing) await append((lines += 1), voidText(i), begun);
    },
  };
}

/** Resolves when it is written, or when there is no second copy. */
function append(place: number, text: string, begun: Promise<unknown>): Promise<void> {
  if (!lineTo && isNew) return begun.then(() => (lineTo ? append(place, text, begun) : undefined));
  const worker = lineTo;
  if (!worker) return Promise.resolve();
  return new Promise((resolve) => {
    // A worker that does not answer holds nobody up for ever.
    const timer = setTimeout(broken, LONGEST_WRITE);
    waiting.set(place, () => {
      clearTimeout(timer);
      resolve();
    });
    worker.postMessage([place, text]);
  });
}
