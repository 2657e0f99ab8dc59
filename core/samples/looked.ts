import type { Span } from './gaps';

/** The shortest stretch that can be looked at, in seconds. */
const SHORTEST = 20;

/** A stretch kept within a run that ends at `end`, and no shorter than can be looked at; `undefined`: the whole of it. Seconds. */
export function lookedAt({ from, to }: Span, end: number): Span | undefined {
  const width = Math.min(Math.max(to - from, SHORTEST), end);
  if (width >= end * 0.999) return undefined;
  const start = Math.min(Math.max(0, from), end - width);
  return { from: start, to: start + width };
}

/** A stretch so many times as long, about a moment that stays where it is. */
export const zoomed = ({ from, to }: Span, factor: number, about = (from + to) / 2): Span => ({
  from: about - (about - from) * factor,
  to: about + (to - about) * factor,
});

/** A stretch moved on by a share of its length. */
export const panned = ({ from, to }: Span, share: number): Span => ({ from: from + (to - from) * share, to: to + (to - from) * share });

/** A stretch of the same length about another moment. */
export const centredOn = ({ from, to }: Span, moment: number): Span => ({ from: moment - (to - from) / 2, to: moment + (to - from) / 2 });

/** Where the paper of a stretch begins and ends, in pixels. */
interface Edges {
  left: number;
  right: number;
}
/** The moment that lies at a place on the paper. */
export const momentAt = (x: number, { left, right }: Edges, { from, to }: Span): number =>
  from + ((x - left) / Math.max(right - left, 1)) * (to - from);
/** The place on the paper at which a moment lies. */
export const pixelOf = (moment: number, { left, right }: Edges, { from, to }: Span): number =>
  left + ((moment - from) / (to - from)) * (right - left);

/** How much longer a stretch becomes by one turn of the wheel, and how far it moves, as a share of its length. */
export const wheelZoom = (turn: number): number => 1.0016 ** turn;
export const wheelPan = (turn: number): number => turn / 600;

/** Two fingers closer together than that say nothing of how close to look, in pixels. */
const PINCHED = 4;
/** How many times as long a stretch becomes by two fingers that were so far apart, and are. */
export const pinchZoom = (was: number, is: number): number => (was > PINCHED && is > PINCHED ? was / is : 1);

/** Moments that are as good as one, in seconds. */
const AS_ONE = 1e-6;
/** The moment so many steps on from another, or from outside the run where none is pointed at. @param moments in order */
export function stepFrom(moments: readonly number[], now: number | undefined, by: number): number | undefined {
  const outside = by > 0 ? -1 : moments.length;
  const reached = (moment: number) =>
    by > 0 ? moments.findLastIndex((each) => each <= moment + AS_ONE) : moments.findIndex((each) => each >= moment - AS_ONE);
  const found = now === undefined ? -1 : reached(now);
  const at = found === -1 ? outside : found;
  return moments[Math.min(Math.max(at + by, 0), moments.length - 1)];
}
