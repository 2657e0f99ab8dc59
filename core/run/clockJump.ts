/** What two clocks show at one instant, in milliseconds: the wall clock, which people and the network set, and one that nobody can set. */
export interface Tick {
  wall: number;
  steady: number;
}

/** Clocks are set by a second or two in passing. */
const SET_IN_PASSING = 2000;
/** From this on, a wall clock that ran ahead of the steady one means that the machine slept or that its clock was changed, in milliseconds. */
export const SLEPT = 20_000;

/**
 * By how much the wall clock jumped between two ticks of one page life, in milliseconds.
 *
 * @returns below zero for a jump back, which only a changed clock makes; above for one ahead, which sleep makes too; 0 for none
 * @see docs/numbers.md, *Clock*.
 */
export function clockJump(before: Tick, after: Tick): number {
  const jump = after.wall - before.wall - (after.steady - before.steady);
  return jump < -SET_IN_PASSING || jump >= SLEPT ? Math.round(jump) : 0;
}
