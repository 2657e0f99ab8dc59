import type { RunRecord } from '../ink/fold';
import type { Track } from '../ink/track';

/** A voltage that stood for a while, from when on, in V. */
export interface VoltStep {
  seconds: number;
  volts: number;
}

/** What a supply does with its volts. `fixed`: one of the usual steps at a time. `stepping`: it follows the battery in small steps. */
export interface Volts {
  steps: VoltStep[];
  supply: 'fixed' | 'stepping' | undefined;
}

/** A change of so many volts is a step, not a sag under load. */
const STEP = 0.9;
/** The voltages of fixed supplies, and how far off a meter reads them at the cable. */
export const USUAL = { volts: [5, 9, 12, 15, 20, 28, 36, 48], within: 0.06 };
/** A step counts once it has stood for so many rows, or was read by hand. */
const STANDS = 3;
/** Rows of volts from which the kind of supply can be told. */
const TELLS = 6;

/**
 * The handshake steps of the volts at the cable, and whether the supply gives fixed voltages or follows the battery in small steps.
 *
 * @see USB Power Delivery R3.x: fixed supplies at 5, 9, 15 and 20 V; programmable ones in steps of 20 mV (from memory).
 */
export function voltSteps({ tracks, sampled }: Pick<RunRecord, 'tracks' | 'sampled'>): Volts {
  const { seconds, values } = tracks.volts;
  const steps: VoltStep[] = [];
  const needed = sampled.has('volts') ? STANDS : 1;
  let since = 0;
  let last: number | undefined;
  for (let row = 0; row < values.length; row += 1) {
    const value = values[row] ?? 0;
    if (row > 0 && Math.abs(value - (values[since] ?? 0)) > STEP / 2) since = row;
    if (value < 1 || row - since + 1 < needed || (last !== undefined && Math.abs(value - last) <= STEP)) continue;
    steps.push({ seconds: seconds[since] ?? 0, volts: value });
    last = value;
  }
  return { steps, supply: supplyOf(tracks.volts) };
}

/** Shares of what was read that lie off every usual voltage, and within what a programmable supply gives. */
function supplyOf({ values }: Track): Volts['supply'] {
  if (values.length < TELLS) return undefined;
  let off = 0;
  for (let row = 0; row < values.length; row += 1) {
    const value = values[row] ?? 0;
    if (value > 5.6 && !USUAL.volts.some((each) => Math.abs(value - each) <= each * USUAL.within)) off += 1;
  }
  return off / values.length > 0.3 ? 'stepping' : 'fixed';
}
