/** How far a long work is: so many of so many, of what its teller says. */
export interface Work {
  done: number;
  of: number;
}
export type Progress = (done: number, of: number) => void;

/** How often a long work is told of, in milliseconds: a page that is told of every step is busier with saying so than the work is. */
const TOLD_EVERY = 100;

/** Tells of a long work now and then, and always of its end. */
export function seldom(tell: Progress): Progress {
  let last = -Infinity;
  return (done, of) => {
    const now = performance.now();
    if (done < of && now - last < TOLD_EVERY) return;
    last = now;
    tell(done, of);
  };
}
