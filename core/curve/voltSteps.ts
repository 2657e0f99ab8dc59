import { ascending, group, quantileSorted, range } from 'd3-array';
import type { RunRecord } from '../ink/fold';
import { lineAt } from './heat';

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

/** A change of so many volts is a step, not a sag under load; of a supply that follows the battery, of so many more. */
const STEP = { fixed: 0.9, stepping: 2 };
/** The voltages of fixed supplies, and how far off a meter reads them at the cable. */
const FIXED_SUPPLIES = { volts: [5, 9, 12, 15, 20, 28, 36, 48], within: 0.06 };
/** A step counts once it has stood for so many rows, or was read by hand. */
const STANDS = 3;
/** Rows of volts from which the kind of supply can be told. */
const TELLS = 6;
/** Volts above which more than 5 V was agreed on. */
const RAISED = 5.6;
/** No cable has more, in Ω: what it takes off goes by the current (common practice, no source). */
const CABLE = 0.35;
/** A supply that moves by more than this around one of the usual voltages, and not with its current, follows something, in V. */
const MOVES = 0.4;
/** So many rows of a long stream, evenly spaced, tell what kind of supply it is. */
const LOOKED_AT = 2000;
/** A share of the rows that makes a supply, and the rows at either end of a range that are left out of it. */
const [MOST, ENDS] = [0.3, 0.05];

/**
 * The handshake steps of the volts at the cable, and whether the supply gives fixed voltages or follows the battery in small steps.
 *
 * @see USB Power Delivery R3.x: fixed supplies at 5, 9, 15 and 20 V; programmable ones in steps of 20 mV (from memory).
 */
export function voltSteps(run: Pick<RunRecord, 'tracks' | 'sampled'>): Volts {
  const { seconds, values } = run.tracks.volts;
  const supply = supplyOf(run.tracks);
  const step = supply === 'stepping' ? STEP.stepping : STEP.fixed;
  const steps: VoltStep[] = [];
  const needed = run.sampled.has('volts') ? STANDS : 1;
  let since = 0;
  let last: number | undefined;
  for (let row = 0; row < values.length; row += 1) {
    const value = values[row] ?? 0;
    // Only what jumps: volts that drift away from where they were are no step.
    if (row > 0 && Math.abs(value - (values[row - 1] ?? 0)) > step / 2) since = row;
    if (value < 1 || row - since + 1 < needed || (last !== undefined && Math.abs(value - last) <= step)) continue;
    if (last !== undefined && since !== row - needed + 1) continue;
    steps.push({ seconds: seconds[since] ?? 0, volts: value });
    last = value;
  }
  return { steps, supply };
}

/** The voltage of fixed supplies that is nearest. */
export const nearest = (volts: number) =>
  FIXED_SUPPLIES.volts.reduce((best, each) => (Math.abs(each - volts) < Math.abs(best - volts) ? each : best));
const isOff = (volts: number) => volts > RAISED && Math.abs(volts - nearest(volts)) > nearest(volts) * FIXED_SUPPLIES.within;

/**
 * What kind of supply it is: *stepping* where volts were requested that no fixed supply has, where too many of its volts lie off every usual voltage, or
 * where it moves around one of them and its current does not explain it.
 */
function supplyOf({ volts, amps, askedVolts }: RunRecord['tracks']): Volts['supply'] {
  const { values } = volts;
  const asked = Array.from(askedVolts.values);
  if (asked.filter((each) => each > RAISED && Math.abs(each - nearest(each)) > 0.05).length > MOST * asked.length) return 'stepping';
  if (values.length < TELLS) return undefined;
  const stride = Math.ceil(values.length / LOOKED_AT);
  const all = range(0, values.length, stride).map((row) => ({
    value: values[row] ?? 0,
    current: lineAt(amps, volts.seconds[row] ?? 0) ?? 0,
  }));
  if (all.filter(({ value, current }) => OHMS.every((ohms) => isOff(value + ohms * current))).length > MOST * all.length) return 'stepping';
  const groups = group(
    all.filter(({ value }) => value > RAISED),
    ({ value }) => nearest(value),
  );
  const moves = [...groups.values()].some(
    (rows) => rows.length >= TELLS && rows.length > MOST * all.length && Math.min(...OHMS.map((ohms) => spreadOf(rows, ohms))) > MOVES,
  );
  return moves ? 'stepping' : 'fixed';
}

/** What a cable may take off. */
const OHMS = range(0, CABLE + 0.01, 0.05);

/** How far the volts at the supply reach, had the cable so many ohms. */
function spreadOf(rows: readonly { value: number; current: number }[], ohms: number): number {
  const sorted = rows.map(({ value, current }) => value + ohms * current).sort(ascending);
  return (quantileSorted(sorted, 1 - ENDS) ?? 0) - (quantileSorted(sorted, ENDS) ?? 0);
}
