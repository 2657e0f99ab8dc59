import type { Charger, Port } from '../bench/charger';
import type { WirelessProfile } from '../bench/offer';
import { offersOf } from './offers';
import { CHARGING_PORT_AMPS, DATA_AMPS, nominalVolts, STANDARD_RANGE_VOLTS, TYPE_C_AMPS, USB_VOLTS, WIRELESS_WATTS } from './standards';

/** How a charger and a device come to terms. */
export const MEANS = [
  'PPS',
  'PD',
  'extended range',
  'family',
  'Type-C current',
  'BC 1.2',
  'USB default',
  'wireless',
  'barrel',
  'bay',
] as const;
export type Means = (typeof MEANS)[number];

/** One way in which a port can supply: a voltage or a range of them, at up to a current. */
export interface Signal {
  by: Means;
  low: number;
  high: number;
  /** Most the port gives this way, in A. */
  amps: number;
  /** Most the standard allows this way, in A; `Infinity` where it is the offer that counts. */
  standardAmps: number;
  family?: string;
  profile?: WirelessProfile;
}

const signal = (by: Means, volts: number, amps: number, rest: Partial<Signal> = {}): Signal => ({
  by,
  low: volts,
  high: volts,
  amps,
  standardAmps: Infinity,
  ...rest,
});

/** Wireless signals carry watts: at one nominal volt, amps are watts. */
const WIRELESS_VOLTS = 1;

/** Every way in which a port can supply. Connectors decide what its offers mean: 9 V on USB-A is no Power Delivery. */
export function signalsOf(port: Port, charger: Charger): Signal[] {
  const { offers, assumed } = offersOf(port, charger);
  const fixed = offers.filter((offer) => offer.kind === 'fixed');
  const families = offers.flatMap((offer) =>
    offer.kind === 'proprietary'
      ? [signal('family', offer.volts, offer.amps, { family: offer.family, low: offer.low ?? offer.volts })]
      : [],
  );
  const five = Math.max(0, ...fixed.filter(({ volts }) => nominalVolts(volts) === USB_VOLTS).map(({ amps }) => amps));
  switch (port.connector) {
    case 'pad':
      return offers.flatMap((offer) => (offer.kind === 'wireless' ? wirelessSignals(offer.profile, offer.watts) : []));
    case 'DC barrel':
      return fixed.map(({ volts, amps }) => signal('barrel', volts, amps));
    case 'bay':
      return fixed.map(({ volts, amps }) => signal('bay', volts, amps));
    case 'USB-A':
    case 'micro-USB':
      return [...families, ...lineFamilies(port, five), ...plainUsb(port, five)];
    case 'USB-C': {
      // A label of 5 V alone says nothing of Power Delivery; offers assumed by its rules do.
      const delivers =
        assumed || fixed.some(({ volts }) => nominalVolts(volts) > USB_VOLTS) || offers.some(({ kind }) => kind === 'programmable');
      const programmable = offers.flatMap((offer) =>
        offer.kind === 'programmable' ? [signal('PPS', offer.high, offer.amps, { low: offer.low })] : [],
      );
      const delivery = delivers
        ? fixed.map(({ volts, amps }) => signal(nominalVolts(volts) > STANDARD_RANGE_VOLTS ? 'extended range' : 'PD', volts, amps))
        : [];
      return [...programmable, ...delivery, ...families, ...typeC(five), ...plainUsb(port, five)];
    }
  }
}

/** A stronger profile serves a device that knows only the baseline. */
function wirelessSignals(profile: WirelessProfile, watts: number): Signal[] {
  const make = (each: WirelessProfile) => signal('wireless', WIRELESS_VOLTS, watts, { profile: each, standardAmps: WIRELESS_WATTS[each] });
  return profile === 'baseline' ? [make('baseline')] : [make(profile), make('baseline')];
}

/** Type-C current: the highest of the three steps that the port can keep. */
function typeC(five: number): Signal[] {
  const step = TYPE_C_AMPS.find((amps) => amps <= five + 1e-9);
  return step === undefined ? [] : [signal('Type-C current', USB_VOLTS, five, { standardAmps: step })];
}

/** Currents of 2.1 and 2.4 A, signalled on the data lines of USB-A: makers’ own, beyond BC 1.2. */
function lineFamilies({ data }: Port, five: number): Signal[] {
  if (data) return [];
  return [2.4, 2.1].flatMap((amps) =>
    five >= amps - 1e-9 ? [signal('family', USB_VOLTS, five, { family: `${amps} A`, standardAmps: amps })] : [],
  );
}

/** What any USB device can have without a word: a charging port’s 1.5 A, or what a data port gives. */
function plainUsb({ data }: Port, five: number): Signal[] {
  if (data) return [signal('USB default', USB_VOLTS, DATA_AMPS[data], { standardAmps: DATA_AMPS[data] })];
  if (five === 0) return [];
  return [
    signal('BC 1.2', USB_VOLTS, five, { standardAmps: CHARGING_PORT_AMPS }),
    signal('USB default', USB_VOLTS, five, { standardAmps: DATA_AMPS['USB 2.0'] }),
  ];
}
