/**
 * The order of acts. Each has a number, in its line of the second copy and, as the last of its page, in the logbook: numbers follow the clock and
 * never go back with it, here or in another tab.
 */

/** How long the other tabs may wait for it, in milliseconds: told while an act is stored, it would hold the act up. The clock has them right anyhow. */
const TOLD_AFTER = 200;

let last = 0;
let telling: ReturnType<typeof setTimeout> | undefined;

/** Where tabs tell each other how far they have counted. */
let channel: BroadcastChannel | undefined;
function open(): BroadcastChannel {
  const made = new BroadcastChannel('inkpath-acts');
  made.addEventListener('message', ({ data }: MessageEvent<number>) => {
    countFrom(data);
  });
  return made;
}

/** The number of the next act. */
export function nextNumber(): number {
  last = Math.max(last + 1, Date.now());
  telling ??= setTimeout(() => {
    telling = undefined;
    channel ??= open();
    channel.postMessage(last);
  }, TOLD_AFTER);
  return last;
}

/** Counts on from a number that was found. */
export function countFrom(number: number): void {
  last = Math.max(last, number);
}

/** What stands in the logbook of its second copy. */
export interface Settled {
  createdAt: number;
  /** Up to here the lines of pages that have no number of their own stand in the logbook. */
  settled: number;
}
