import type { Fixed, WirelessProfile } from '../bench/offer';

/**
 * What the published standards allow. From memory; the tests quote them again from the list of outside checks.
 *
 * @see USB Power Delivery R3.x, power rules; USB Type-C R2.x; USB 2.0; USB 3.2; USB Battery Charging 1.2; Qi.
 */

/** Most amps through a Type-C cable that carries no marker, and through one marked for 5 A. */
export const UNMARKED_AMPS = 3;
export const MARKED_AMPS = 5;
/** Highest fixed voltage of the standard power range; above it lies the extended range. */
export const STANDARD_RANGE_VOLTS = 20;
export const EXTENDED_VOLTS = [28, 36, 48] as const;
/** The voltages that Power Delivery steps through, each with the rating in watts above which a supply must offer it. */
const RULES: readonly { volts: number; above: number }[] = [
  { volts: 5, above: 0 },
  { volts: 9, above: 15 },
  { volts: 15, above: 27 },
  { volts: 20, above: 45 },
];
const DELIVERY_AMPS = 3;

/** Type-C current at 5 V: default, 1.5 A and 3 A. A port advertises the highest it can keep. */
export const TYPE_C_AMPS = [3, 1.5, 0.5] as const;
/** A dedicated charging port of BC 1.2. */
export const CHARGING_PORT_AMPS = 1.5;
/** Default current of a data port, by its USB generation. */
export const DATA_AMPS = { 'USB 2.0': 0.5, 'USB 3.2': 0.9, 'USB 3.2 two-lane': 1.5 } as const;
export const USB_VOLTS = 5;
const NOMINAL = [5, 9, 12, 15, 20, ...EXTENDED_VOLTS] as const;
/** Labels print a little more than the nominal voltage, for what is lost in the cable: 5.2 V, 20.3 V. */
const NEAR = 0.05;

/** The nominal voltage that a printed one stands for; itself where none is near. */
export const nominalVolts = (volts: number): number => NOMINAL.find((each) => Math.abs(volts / each - 1) <= NEAR) ?? volts;
/** Watts of the wireless profiles. */
export const WIRELESS_WATTS: Readonly<Record<WirelessProfile, number>> = { baseline: 5, extended: 15, magnetic: 15 };
/** Programmable supplies: the range each nominal voltage covers. */
export const PROGRAMMABLE_RANGES = [
  { nominal: 5, low: 3.3, high: 5.9 },
  { nominal: 9, low: 3.3, high: 11 },
  { nominal: 15, low: 3.3, high: 16 },
  { nominal: 20, low: 3.3, high: 21 },
] as const;

/** By its rating alone a supply is known up to here, in W: what lies above is of the extended range, which it may or may not have. */
export const KNOWN_BY_RATING = 100;

/**
 * The least that a supply of a rating must offer by Power Delivery: each lower voltage at up to 3 A, the highest at rating ÷
 * voltage. More is optional and common.
 *
 * @param watts rating, in W, up to 100
 */
export function leastOffers(watts: number): Fixed[] {
  const rules = RULES.filter(({ above }) => watts > above);
  return rules.map(({ volts }, index) => {
    const most = watts / volts;
    return { kind: 'fixed', volts, amps: index === rules.length - 1 ? Math.min(MARKED_AMPS, most) : Math.min(DELIVERY_AMPS, most) };
  });
}
