import type { Device } from '../bench/device';
import type { WirelessProfile } from '../bench/offer';
import { EXTENDED_VOLTS, leastOffers, nominalVolts } from './standards';
import type { Signal } from './signals';

/** What a device accepts, with nothing left open. */
export interface Takes {
  connectors: ReadonlySet<string>;
  typeCAmps: number;
  chargingPort: boolean;
  deliveryVolts: number;
  programmableVolts: number;
  families: ReadonlySet<string>;
  wireless: ReadonlySet<WirelessProfile>;
  barrelVolts: number | undefined;
  /** Of voltages that serve alike, the one nearest to this it asks for. */
  favouredVolts: number;
  wiredWatts: number;
  wirelessWatts: number;
  /** Facts that were not on the shelf and are taken to be as usual. */
  assumed: string[];
}

/** Highest voltage of Power Delivery that a supply for so many watts must have: what a device of that limit usually takes. */
function usualVolts(watts: number): number {
  if (watts > 100) return EXTENDED_VOLTS.find((volts) => volts * 5 >= watts) ?? 48;
  return leastOffers(watts).at(-1)?.volts ?? 5;
}

/** What devices ask for where it makes no odds, by how many cells lie in a row: a laptop has several (common practice, no source). */
const FAVOURED = { oneCell: 9, severalCells: 20 };

/** What a device accepts. What the shelf does not say is taken to be as usual, and named in `assumed`. */
export function takesOf(device: Device): Takes {
  const assumed: string[] = [];
  const unlessKnown = <Fact>(known: Fact | undefined, usual: Fact, words: string): Fact => {
    if (known !== undefined) return known;
    assumed.push(words);
    return usual;
  };
  const connectors = new Set<string>(unlessKnown(device.connectors, ['USB-C'], 'its connector (USB-C)'));
  const wiredWatts = unlessKnown(device.inputLimit, Infinity, 'its input limit (none)');
  const isTypeC = connectors.has('USB-C');
  const saysNothing =
    device.deliveryVolts === undefined &&
    device.typeCAmps === undefined &&
    device.chargingPort === undefined &&
    device.programmableVolts === undefined &&
    device.families === undefined;
  const volts = Number.isFinite(wiredWatts) ? usualVolts(wiredWatts) : 20;
  return {
    connectors,
    typeCAmps: device.typeCAmps ?? (isTypeC ? 3 : 0.5),
    chargingPort: device.chargingPort ?? true,
    deliveryVolts:
      saysNothing && isTypeC ? unlessKnown(undefined, volts, `what it accepts (PD up to ${volts} V)`) : (device.deliveryVolts ?? 0),
    programmableVolts: device.programmableVolts ?? 0,
    families: new Set(device.families ?? []),
    wireless: new Set(device.wireless ?? (connectors.has('wireless') ? ['baseline', 'extended'] : [])),
    barrelVolts: device.barrelVolts,
    favouredVolts: device.kind === 'laptop' ? FAVOURED.severalCells : FAVOURED.oneCell,
    wiredWatts,
    wirelessWatts: device.wirelessLimit ?? Infinity,
    assumed,
  };
}

/** Barrels of nearly the same voltage are taken for the same. */
const SAME_VOLTS = 0.05;

/**
 * The voltage at which a device takes a signal, or nothing if it does not.
 *
 * @returns volts; for a range the highest of it that the device takes
 */
export function takenVolts(takes: Takes, signal: Signal): number | undefined {
  const { high, low } = signal;
  const when = (accepted: boolean) => (accepted ? high : undefined);
  switch (signal.by) {
    case 'PD':
    case 'extended range':
      return when(nominalVolts(high) <= takes.deliveryVolts);
    case 'PPS': {
      const volts = Math.min(high, takes.programmableVolts);
      return volts > low ? volts : undefined;
    }
    case 'family':
      return when(knowsFamily(takes, signal.family ?? ''));
    case 'Type-C current':
      return when(takes.connectors.has('USB-C') || takes.connectors.has('own plug'));
    case 'BC 1.2':
      return when(takes.chargingPort);
    case 'USB default':
      return high;
    case 'wireless':
      return when(signal.profile === 'baseline' ? takes.wireless.size > 0 : takes.wireless.has(signal.profile ?? 'baseline'));
    case 'barrel':
      return when(takes.barrelVolts !== undefined && Math.abs(takes.barrelVolts / high - 1) <= SAME_VOLTS);
    case 'bay':
      return when(takes.connectors.has('bay'));
  }
}

/** A device that knows 2.4 A on the data lines takes 2.1 A too. */
function knowsFamily({ families }: Takes, family: string): boolean {
  return families.has(family) || (family === '2.1 A' && families.has('2.4 A'));
}

/** Most amps a device draws by a signal, from what it knows of it. */
export function takenAmps(takes: Takes, signal: Signal): number {
  return signal.by === 'Type-C current' ? takes.typeCAmps : Infinity;
}
