/** The first and the last moment that is kept, epoch milliseconds: 1970, and the end of 2199. */
export const MOMENTS = { min: 0, max: Date.UTC(2200, 0, 1) - 1 };
/** The longest that is kept from plug-in on, in seconds: as long as moments reach. */
export const LONGEST_RUN = MOMENTS.max / 1000;

/** Parts of a second in which the times of samples are kept: finer than any meter tells, and coarse enough that rates between rows stay numbers. */
const TICKS = 1e6;
/** A time of a sample, in seconds, as it is kept. */
export const toTick = (seconds: number): number => Math.round(seconds * TICKS) / TICKS;
