/** Power profiles of wireless charging, by the names the standard has for them. */
export const WIRELESS_PROFILES = ['baseline', 'extended', 'magnetic'] as const;
export type WirelessProfile = (typeof WIRELESS_PROFILES)[number];

/** A voltage at up to a current: volts and amps. */
export interface Fixed {
  kind: 'fixed';
  volts: number;
  amps: number;
}
/** A supply that the device sets between two voltages, at up to a current. */
export interface Programmable {
  kind: 'programmable';
  low: number;
  high: number;
  amps: number;
}
export interface Wireless {
  kind: 'wireless';
  profile: WirelessProfile;
  watts: number;
}
/** An offer that only devices of a maker’s family understand. */
export interface Proprietary {
  kind: 'proprietary';
  family: string;
  /** Where it is a range up to its volts: from how many. */
  low?: number;
  volts: number;
  amps: number;
}
export type Offer = Fixed | Programmable | Wireless | Proprietary;

/** Most watts an offer carries. */
export function offerWatts(offer: Offer): number {
  if (offer.kind === 'wireless') return offer.watts;
  return (offer.kind === 'programmable' ? offer.high : offer.volts) * offer.amps;
}

const short = (value: number) => String(Number(value.toFixed(3)));

/** An offer as a label prints it; `readLabel` reads it back. */
export function writeOffer(offer: Offer): string {
  switch (offer.kind) {
    case 'fixed':
      return `${short(offer.volts)}V⎓${short(offer.amps)}A`;
    case 'programmable':
      return `PPS ${short(offer.low)}-${short(offer.high)}V⎓${short(offer.amps)}A`;
    case 'proprietary':
      return `${offer.family}: ${offer.low === undefined ? '' : `${short(offer.low)}-`}${short(offer.volts)}V⎓${short(offer.amps)}A`;
    case 'wireless':
      return `${short(offer.watts)}W ${offer.profile}`;
  }
}

/**
 * Where what a tester found differs from what is printed.
 *
 * @returns a sentence for each offer that only one of the two has; nothing where they agree
 */
export function differences(printed: readonly Offer[], probed: readonly Offer[]): string[] {
  if (probed.length === 0) return [];
  const lacking = (mine: readonly Offer[], theirs: readonly Offer[]) => {
    const known = new Set(theirs.map(writeOffer));
    return mine.map(writeOffer).filter((each) => !known.has(each));
  };
  return [
    ...lacking(printed, probed).map((offer) => `Printed, but not found by the tester: ${offer}.`),
    ...lacking(probed, printed).map((offer) => `Found by the tester, but not printed: ${offer}.`),
  ];
}
