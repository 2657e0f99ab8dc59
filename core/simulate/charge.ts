import { requireAtLeast } from '../quantity/require';
import { meanOf, valueOn, type ChargeParameters, type Curve } from './parameters';

/** A charge over time: columns of equal length, one row a step, the first at plug-in. */
export interface Course {
  /** Seconds from one row to the next. */
  step: number;
  rows: number;
  /** True share of charge, 0–1. */
  share: Float64Array;
  /** At the meter: before the pad, where there is one. V, A, W. */
  volts: Float64Array;
  amps: Float64Array;
  watts: Float64Array;
  /** Into the battery’s poles, W; below zero while it drains. */
  batteryWatts: Float64Array;
  celsius: Float64Array;
  /** Row at which charging ended with a full battery; `undefined` if it did not. */
  fullAt: number | undefined;
}

/** Points of the tables that the steps look curves up in. */
const TABLE = 1024;
const WAKING_WATTS = 2.5;
const WAKING_VOLTS = 5;
/** Most charge for the temperature of a lithium battery: full from 10 to 45 °C, less to 0 and 60 °C, none beyond. */
const COLD = { none: 0, less: 10, share: 0.3 };
const WARM = { less: 45, none: 60, share: 0.5 };
const GENTLE_BELOW = 0.1;
/** A coil that lies worse than this does not couple. */
const COUPLES = 0.35;
/** °C below its limit at which a device that throttled takes all again. */
const HYSTERESIS = 2;
/** A full battery is topped up once it has fallen below this share. */
const REFILL_BELOW = 0.97;
/** Share of a pad’s loss that ends up in the device lying on it. */
const PAD_WARMS = 0.35;

function tableOf(curve: Curve, scale: number): Float64Array {
  return Float64Array.from({ length: TABLE + 2 }, (_, index) => scale * valueOn(curve, Math.min(1, index / TABLE)));
}

/**
 * A charge, step by step, from plug-in until `seconds` have passed or the battery has been full for a while.
 *
 * At each step the power at the socket is the least of what the source gives, what the device takes at this level and
 * temperature, and what fills the battery at its highest voltage. What reaches the battery drives a current I through its resistance
 * against the open-circuit voltage: (U + I·R)·I = P. Heat follows what is lost, as a first-order lag. Energy balances at every step:
 * power in = conversion loss + load + I²·R + stored.
 *
 * @param from    share of charge at plug-in, 0–1
 * @param seconds longest time to work out
 * @param step    seconds from one row to the next, > 0; up to about a minute
 * @param after   seconds that a full battery is followed for
 * @throws {RangeError} when a figure that must be positive is not
 * @see JEITA temperature guideline (from memory) for the limits by temperature.
 */
export function simulate(parameters: ChargeParameters, from: number, seconds: number, step = 1, after = 600): Course {
  const { battery, controller, supply, heat } = parameters;
  requireAtLeast(Number.MIN_VALUE, { wattHours: battery.wattHours, nominalVolts: battery.nominalVolts, step });
  requireAtLeast(0, { ohms: battery.ohms, watts: supply.watts, efficiency: supply.efficiency, from, seconds });
  const rows = Math.floor(seconds / step) + 1;
  const column = () => new Float64Array(rows);
  const [share, volts, current, watts, batteryWatts, celsius] = [column(), column(), column(), column(), column(), column()];

  const nominal = battery.nominalVolts;
  const opens = tableOf(battery.curve, nominal / meanOf(battery.curve));
  const takes = tableOf(controller.byLevel, controller.inputWatts);
  const coulombs = (battery.wattHours / nominal) * 3600;
  const ampHours = coulombs / 3600;
  const { ohms } = battery;
  const top = controller.fullVolts * nominal;
  const endAmps = controller.endAmpsPerAh * ampHours;
  const gentleAmps = controller.gentleAmpsPerAh * ampHours;
  const { efficiency, loadWatts } = supply;
  const cooling = Math.exp(-step / (heat.capacity * heat.resistance));

  let charge = from;
  let warmth = heat.ambient;
  let [isHot, isFull] = [false, false];
  let fullAt: number | undefined;
  let end = rows;
  for (let row = 0; row < rows; row += 1) {
    const now = row * step;
    // What the source could give at the socket.
    let available = now < supply.handshake ? Math.min(WAKING_WATTS, supply.watts) : supply.watts;
    let atMeter = 1;
    if (supply.pad) {
      const { pad } = supply;
      const alignment = pad.slips && now >= pad.slips.at ? pad.slips.to : pad.alignment;
      available = alignment < COUPLES ? 0 : available * alignment;
      atMeter = 1 / (pad.efficiency * Math.max(alignment, COUPLES));
    }
    // What the device takes of it.
    const place = charge * TABLE;
    const index = place | 0;
    const open = (opens[index] ?? 0) + ((opens[index + 1] ?? 0) - (opens[index] ?? 0)) * (place - index);
    isHot = warmth > controller.throttle.above || (isHot && warmth > controller.throttle.above - HYSTERESIS);
    let most = takes[index] ?? 0;
    if (isHot) most *= controller.throttle.share;
    if (warmth < COLD.less) most *= warmth < COLD.none ? 0 : COLD.share;
    else if (warmth > WARM.less) most *= warmth > WARM.none ? 0 : WARM.share;
    // What the battery takes of that; idle, the device runs from the supply and lets nothing into it.
    const idle = Math.min(available, loadWatts / efficiency);
    const holds = controller.hold !== undefined && charge >= controller.hold.share && now < controller.hold.until;
    const taper = ohms > 0 ? Math.max(0, (top - open) / ohms) : open < top ? Infinity : 0;
    isFull = isFull ? charge > REFILL_BELOW : charge >= 1 || taper < endAmps;
    let socket = isFull || holds ? idle : Math.min(available, Math.max(idle, Math.min(controller.inputWatts, most + idle)));
    let amps = ampsFor(socket * efficiency - loadWatts, open, ohms);
    const cap = charge < GENTLE_BELOW ? Math.min(taper, gentleAmps) : taper;
    if (amps > cap && !isFull && !holds) {
      amps = cap;
      socket = ((open + amps * ohms) * amps + loadWatts) / efficiency;
    }
    if (isFull && fullAt === undefined) fullAt = row;
    const poles = (open + amps * ohms) * amps;

    share[row] = charge;
    celsius[row] = warmth;
    const atVolts = now < supply.handshake ? WAKING_VOLTS : supply.volts;
    watts[row] = socket * atMeter;
    volts[row] = atVolts;
    current[row] = (socket * atMeter) / atVolts;
    batteryWatts[row] = poles;
    if (fullAt !== undefined && (row - fullAt) * step >= after) {
      end = row + 1;
      break;
    }

    charge = Math.min(1, Math.max(0, charge + (amps * step) / coulombs));
    const lost = socket * (1 - efficiency) + loadWatts + amps * amps * ohms + (supply.pad ? socket * (atMeter - 1) * PAD_WARMS : 0);
    const settles = heat.ambient + lost * heat.resistance;
    warmth = settles + (warmth - settles) * cooling;
  }
  const cut = (each: Float64Array) => (end === rows ? each : each.slice(0, end));
  return {
    step,
    rows: end,
    share: cut(share),
    volts: cut(volts),
    amps: cut(current),
    watts: cut(watts),
    batteryWatts: cut(batteryWatts),
    celsius: cut(celsius),
    fullAt,
  };
}

/** Current through the battery that carries so many watts at its poles: (U + I·R)·I = P, the root nearer to none. */
function ampsFor(watts: number, open: number, ohms: number): number {
  if (ohms === 0) return watts / open;
  const root = open * open + 4 * ohms * watts;
  return root <= 0 ? -open / (2 * ohms) : (Math.sqrt(root) - open) / (2 * ohms);
}
