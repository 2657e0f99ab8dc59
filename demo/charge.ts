/** What stands in for a simulator: one device taking charge from one source. Invented; for the demo only. */
export interface Charging {
  /** Energy of the full battery, Wh. */
  battery: number;
  /** Most watts the device takes at the cable, and most the source gives. */
  deviceWatts: number;
  sourceWatts: number;
  /** Share of the energy at the cable that ends in the battery. */
  efficiency: number;
  /** Share of charge at which the battery begins to take less. */
  knee: number;
  /** Degrees Celsius of the room, and how many degrees each watt at the cable adds in the end. */
  ambient: number;
  degreesPerWatt: number;
  /** Above this temperature the device takes three fifths. */
  throttleAt: number;
  /** Share of charge at which the source stops giving, for a pad that slipped. */
  stallAt?: number;
}

export interface Moment {
  /** Share of charge, 0–1. */
  charge: number;
  watts: number;
  celsius: number;
}

/** Seconds from one moment to the next. */
export const STEP = 5;

/** Seconds that the device's warmth takes to follow its power. */
const WARMING = 900;
const HANDSHAKE = 6;
/** Seconds that a full battery is followed for. */
const AFTER_FULL = 3000;

/**
 * The charge, step by step.
 *
 * Power is the least of what the source gives, what the device takes (three fifths when hot), and what the battery accepts:
 * all of it up to the knee, from there in proportion to what is missing, which makes the taper an exponential. Temperature
 * follows power as a first-order lag.
 *
 * @param from    share of charge at plug-in
 * @param seconds how long at most; a full battery ends it a little later
 * @returns one moment each `STEP` seconds, the first at plug-in
 */
export function charge(device: Charging, from: number, seconds: number): Moment[] {
  const moments: Moment[] = [{ charge: from, watts: 0, celsius: device.ambient }];
  let { charge: held, celsius } = { charge: from, celsius: device.ambient };
  let isHot = false;
  let fullFor = 0;
  for (let second = STEP; second <= seconds && fullFor < AFTER_FULL; second += STEP) {
    if (held >= 1) fullFor += STEP;
    isHot = celsius > device.throttleAt || (isHot && celsius > device.throttleAt - 2);
    const takes = device.deviceWatts * (isHot ? 0.6 : 1);
    const accepts = device.deviceWatts * Math.min(1, (1.02 - held) / (1.02 - device.knee));
    const gives = device.stallAt !== undefined && held >= device.stallAt ? 0.4 : device.sourceWatts;
    const watts = second < HANDSHAKE ? Math.min(2.5, gives) : Math.min(gives, takes, accepts);
    const idle = device.stallAt !== undefined && held >= device.stallAt;
    held = Math.min(1, held + (idle ? 0 : (watts * device.efficiency * STEP) / 3600 / device.battery));
    celsius += ((device.ambient + watts * device.degreesPerWatt - celsius) * STEP) / WARMING;
    moments.push({ charge: held, watts: held >= 1 ? 0.3 : watts, celsius });
  }
  return moments;
}

/** What the display shows of a share of charge: whole percents, 100 a little before the battery is truly full. */
export function displayed(share: number): number {
  return share >= 0.995 ? 100 : Math.floor(share * 100);
}

/** Repeatable noise: mulberry32, a number from 0 up to 1 at each call. */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
