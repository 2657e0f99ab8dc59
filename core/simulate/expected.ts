import { batteryFacts, batteryOf } from '../bench/battery';
import type { Device } from '../bench/device';
import { mayCharge, type Negotiated } from '../power/negotiate';
import { simulate } from './charge';
import { meanOf, type Battery, type ChargeParameters, type Curve } from './parameters';
import { seeded } from './seeded';

/**
 * Open-circuit voltage of a lithium-ion cell over its share of charge, in V: steep when nearly empty, flat in the middle, rising
 * to the end. A typical shape, from memory; only its form is used.
 */
const OPEN_CIRCUIT: Curve = [
  [0, 3.4],
  [0.05, 3.6],
  [0.1, 3.68],
  [0.2, 3.75],
  [0.3, 3.79],
  [0.4, 3.83],
  [0.5, 3.88],
  [0.6, 3.95],
  [0.7, 4.05],
  [0.8, 4.16],
  [0.9, 4.28],
  [1, 4.4],
];

/**
 * Share of its input limit that a device takes at a level: all of it to 40 %, then down in steps, then ever less. Devices differ; the steps
 * follow a phone of common practice (26 W for 17 min, then 19 and 14 W, then 5 V), and charging slows after about 80 %.
 */
const BY_LEVEL: Curve = [
  [0, 1],
  [0.4, 1],
  [0.4, 0.73],
  [0.6, 0.73],
  [0.6, 0.54],
  [0.78, 0.54],
  [0.78, 0.35],
  [0.86, 0.27],
  [1, 0.035],
];

/** Devices with several cells in a row, or a large one, hold their power longer and then step down (common practice, no source: 90 % of a tablet in 2 h, full at 2 h 37). */
const HOLDS_LONGER: Curve = [
  [0, 1],
  [0.7, 1],
  [0.7, 0.8],
  [0.82, 0.8],
  [0.82, 0.55],
  [0.9, 0.4],
  [1, 0.04],
];

/** What devices of a kind usually are, where the shelf does not say: J per °C, °C per W, W of use asleep, and input limit in W; and what it takes at a level. */
const USUAL_DEVICES: Readonly<
  Record<Device['kind'], { byLevel: Curve; capacity: number; resistance: number; asleep: number; limit: number }>
> = {
  phone: { byLevel: BY_LEVEL, capacity: 165, resistance: 3.5, asleep: 0.4, limit: 20 },
  tablet: { byLevel: HOLDS_LONGER, capacity: 480, resistance: 2.4, asleep: 0.6, limit: 30 },
  laptop: { byLevel: HOLDS_LONGER, capacity: 1400, resistance: 1.1, asleep: 1, limit: 65 },
  camera: { byLevel: BY_LEVEL, capacity: 400, resistance: 3, asleep: 0.1, limit: 10 },
  'power bank': { byLevel: HOLDS_LONGER, capacity: 350, resistance: 3, asleep: 0.1, limit: 20 },
  other: { byLevel: BY_LEVEL, capacity: 300, resistance: 3, asleep: 0.3, limit: 20 },
};

const EFFICIENCY = 0.81;
/** Devices draw a little less than a charger’s rating, to stay clear of it. */
const DRAWN = 0.92;
const PAD_EFFICIENCY = 0.76;
/** A battery can take this much of its capacity in an hour, whatever its device lets in. */
const LEAST_RATE = 0.5;
/** Voltage lost in the battery at the highest current it is charged with, as a share of the nominal voltage. */
const DROP = 0.065;

/** How a charge is expected to be done, apart from gear. */
export interface Circumstances {
  /** °C of the room; 22 if unknown. */
  ambient?: number;
  awake?: boolean;
  /** A share of charge that it holds until so many seconds after plug-in: adaptive charging near 80 %, or a pad that gets no further. */
  hold?: { share: number; until: number };
  /** How well a device lies on its pad, 0–1, and when that changes. */
  alignment?: number;
  slips?: { at: number; to: number };
}

/**
 * What a negotiated pairing is expected to charge like. What the shelf does not say is taken to be as is usual of its kind.
 *
 * @returns `undefined` where the battery is unknown, or nothing flows
 */
export function parametersOf(negotiated: Negotiated, circumstances: Circumstances = {}): ChargeParameters | undefined {
  const { device, charger, watts, volts, by, outcome } = negotiated;
  const rated = batteryOf(device);
  if (rated === undefined || watts <= 0 || !mayCharge(outcome)) return undefined;
  const usual = USUAL_DEVICES[device.kind];
  const { capacity, limit, taper, ohms } = device.fitted ?? { capacity: 1, limit: 1, taper: 1, ohms: 1 };
  const wattHours = rated * capacity;
  const isPad = by === 'wireless';
  const inputWatts = limit * ((isPad ? device.wirelessLimit : device.inputLimit) ?? Math.max(usual.limit, watts));
  const nominalVolts = batteryFacts(device).nominalVolts ?? (rated > 40 ? 11.5 : 3.85);
  const battery: Battery = { wattHours, nominalVolts, ohms: 0, curve: OPEN_CIRCUIT };
  // A battery that is made to be charged slowly is no worse for it: its resistance goes by its size.
  const mostAmps = Math.max((inputWatts * EFFICIENCY) / nominalVolts, (LEAST_RATE * wattHours) / nominalVolts);
  const asleep = Math.min(usual.asleep, watts * 0.05);
  return {
    battery: { ...battery, ohms: (ohms * DROP * nominalVolts) / mostAmps },
    controller: {
      inputWatts,
      byLevel: taper === 1 ? usual.byLevel : usual.byLevel.map(([share, taken]) => [share, taken ** taper] as const),
      fullVolts: (OPEN_CIRCUIT.at(-1)?.[1] ?? 0) / meanOf(OPEN_CIRCUIT),
      endAmpsPerAh: 0.02,
      gentleAmpsPerAh: 1.4,
      throttle: { above: 46, share: 0.6 },
      ...(circumstances.hold && { hold: circumstances.hold }),
    },
    supply: {
      watts: Math.min(watts, (charger.watts ?? Infinity) * DRAWN),
      volts: volts ?? 9,
      handshake: by === 'PD' || by === 'PPS' || by === 'extended range' || by === 'family' ? 6 : 2,
      efficiency: EFFICIENCY,
      loadWatts: circumstances.awake ? (device.awakeWatts ?? asleep * 3) : asleep,
      ...(isPad && {
        pad: {
          efficiency: PAD_EFFICIENCY,
          alignment: circumstances.alignment ?? 1,
          ...(circumstances.slips && { slips: circumstances.slips }),
        },
      }),
    },
    heat: { ambient: circumstances.ambient ?? 22, capacity: usual.capacity, resistance: usual.resistance },
  };
}

/** How far one specimen lies from another of the same kind: standard spread of each, as a share. */
const VARIES = { wattHours: 0.015, ohms: 0.1, efficiency: 0.012, resistance: 0.08 };

/** The same charge with another specimen of everything: a little more or less capacity, resistance, loss and cooling. Repeatable from a seed. */
export function vary(parameters: ChargeParameters, seed: number): ChargeParameters {
  const noise = seeded(seed);
  // Three uniform draws add up to nearly a bell, of standard deviation ½.
  const around = (spread: number) => 1 + spread * 2 * (noise() + noise() + noise() - 1.5);
  const { battery, supply, heat } = parameters;
  return {
    ...parameters,
    battery: { ...battery, wattHours: battery.wattHours * around(VARIES.wattHours), ohms: battery.ohms * around(VARIES.ohms) },
    supply: { ...supply, efficiency: Math.min(0.98, supply.efficiency * around(VARIES.efficiency)) },
    heat: { ...heat, resistance: heat.resistance * around(VARIES.resistance) },
  };
}

/** Displays call a battery full a little before it is. */
const SHOWN_FULL = 0.99;

/** What a display shows of a share of charge: whole percents, 100 a little before the battery is truly full. */
export function displayed(share: number): number {
  return Math.min(100, Math.floor((share / SHOWN_FULL) * 100 + 1e-9));
}

/** A charge as it would be followed: level as displayed, with its fraction, in %, and watts at the meter; a row each `step` seconds from its first level on. */
export interface Followed {
  step: number;
  percent: Float64Array;
  watts: Float64Array;
}

/**
 * A negotiated pairing followed for so long, to be laid beside what was read.
 *
 * @param from level shown at the start, in %
 * @returns `undefined` where the battery is unknown or it will not charge
 */
export function followCharge(negotiated: Negotiated, from: number, seconds: number, step: number): Followed | undefined {
  const parameters = parametersOf(negotiated);
  if (!parameters) return undefined;
  const { share, watts } = simulate(parameters, ((from + 0.5) / 100) * SHOWN_FULL, seconds, step);
  return { step, percent: share.map((each) => Math.min(100, (each / SHOWN_FULL) * 100)), watts };
}

/** The charge to expect, in pencil: columns of equal length over seconds from plug-in. */
export interface Expected {
  seconds: Float64Array;
  /** Level as displayed, with its fraction, in %. */
  percent: Float64Array;
  /** At the meter, in W. */
  watts: Float64Array;
  celsius: Float64Array;
  /** Seconds until the display shows a level; `undefined` where it never does. */
  reaches: (level: number) => number | undefined;
  /** How long a run should be planned for: until the display shows 100 %, else as long as is followed. */
  length: number;
}

/** No charge is followed for longer, in seconds. */
const LONGEST_CHARGE = 96 * 3600;
/** Seconds from one row of a pencil curve to the next: fine enough to draw, coarse enough to work out between two frames. */
const PENCIL_STEP = 10;

/**
 * The charge to expect of a negotiated pairing.
 *
 * @param from  level shown at the start, in %
 * @param start seconds from plug-in at which it was shown
 * @returns `undefined` where the battery is unknown or it will not charge
 */
export function expectedCharge(negotiated: Negotiated, from: number, circumstances: Circumstances = {}, start = 0): Expected | undefined {
  const parameters = parametersOf(negotiated, circumstances);
  if (!parameters) return undefined;
  const { share, watts, celsius, rows, step } = simulate(parameters, ((from + 0.5) / 100) * SHOWN_FULL, LONGEST_CHARGE, PENCIL_STEP);
  const reaches = (level: number) => {
    const row = share.findIndex((each) => displayed(each) >= level);
    return row < 0 ? undefined : start + row * step;
  };
  return {
    seconds: Float64Array.from({ length: rows }, (_, row) => start + row * step),
    percent: share.map((each) => Math.min(100, (each / SHOWN_FULL) * 100)),
    watts,
    celsius,
    reaches,
    length: reaches(100) ?? start + rows * step,
  };
}
