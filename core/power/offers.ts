import type { Charger, Port } from '../bench/charger';
import { portName } from '../bench/portName';
import { portsOf } from '../bench/ports';
import { readLabel } from '../bench/label';
import { differences, offerWatts, writeOffer, type Offer } from '../bench/offer';
import { readSharing } from '../bench/sharing';
import { leastOffers, MARKED_AMPS, PROGRAMMABLE_RANGES, STANDARD_RANGE_VOLTS, UNMARKED_AMPS, USB_VOLTS } from './standards';

/** What a port offers, and whether that was written down or had to be assumed. */
export interface PortOffers {
  offers: Offer[];
  assumed: boolean;
}

/**
 * What a port offers: as probed with a tester, else as printed, else the least that a supply of its rating must offer.
 *
 * @param charger its rating stands in where nothing was written down
 */
export function offersOf(port: Port, charger: Charger): PortOffers {
  for (const text of [port.probed, port.label]) {
    const { offers } = readLabel(text ?? '', port.connector);
    if (offers.length > 0) return { offers, assumed: false };
  }
  return { offers: assumedOffers(port, charger), assumed: port.data === undefined };
}

function assumedOffers(port: Port, { watts }: Charger): Offer[] {
  if (port.data || watts === undefined) return [];
  switch (port.connector) {
    case 'USB-C':
      return leastOffers(watts);
    case 'pad':
      return [{ kind: 'wireless', profile: watts > 5 ? 'extended' : 'baseline', watts }];
    case 'USB-A':
    case 'micro-USB':
      return [{ kind: 'fixed', volts: USB_VOLTS, amps: Math.min(2.4, watts / USB_VOLTS) }];
    case 'DC barrel':
    case 'bay':
      // Nobody can tell the volts of a barrel from its watts.
      return [];
  }
}

/** Most a port gives while others of the same charger are in use. */
export interface Share {
  watts: number;
  /** Whether a rule says so; otherwise the rating is taken to be split evenly. */
  assumed: boolean;
}

/**
 * Most watts of one port, by the charger’s rules for shared ports.
 *
 * @param index which port
 * @param inUse which ports are in use, this one among them
 */
export function shareOf(charger: Charger, index: number, inUse: readonly number[] = [index]): Share {
  const ports = portsOf(charger);
  const names = ports.map((port, at) => portName(port, at));
  const used = new Set([...inUse, index].map((at) => names[at]));
  const { watts: rated = Infinity } = charger;
  if (used.size <= 1) return { watts: rated, assumed: false };
  const rule = readSharing(charger.sharing ?? '', names).rules.find(
    (each) => each.ports.length === used.size && each.ports.every((name) => used.has(name)),
  );
  const mine = rule?.watts[rule.ports.indexOf(names[index] ?? '')];
  return mine === undefined ? { watts: rated / used.size, assumed: rated < Infinity } : { watts: mine, assumed: false };
}

/** What is worth pointing out about a port as it was written down, in sentences. */
export function portRemarks(port: Port, { watts = Infinity }: Pick<Charger, 'watts'>): string[] {
  const printed = readLabel(port.label ?? '', port.connector);
  const probed = readLabel(port.probed ?? '', port.connector);
  const offers = probed.offers.length > 0 ? probed.offers : printed.offers;
  const remarks = differences(printed.offers, probed.offers);
  for (const offer of offers) {
    if (offerWatts(offer) > watts * 1.05)
      remarks.push(`${writeOffer(offer)} is ${Math.round(offerWatts(offer))} W, more than the ${watts} W it is rated.`);
  }
  for (const offer of offers) {
    if (offer.kind !== 'programmable' || PROGRAMMABLE_RANGES.some(({ low, high }) => offer.low >= low && offer.high <= high)) continue;
    remarks.push(`${writeOffer(offer)} lies outside what PPS allows, 3.3 to 21 V: check the label.`);
  }
  const fixed = offers.filter((offer) => offer.kind === 'fixed');
  if (port.connector === 'USB-C' && fixed.some(({ volts }) => volts > USB_VOLTS)) {
    const missing = leastOffers(Math.min(watts, 100)).filter(({ volts }) => !fixed.some((offer) => offer.volts === volts));
    for (const { volts } of missing)
      remarks.push(`A ${watts} W supply must offer ${volts} V by the rules of Power Delivery; the label shows none.`);
  }
  if (fixed.some(({ volts }) => volts > STANDARD_RANGE_VOLTS)) remarks.push('Over 20 V needs a cable marked for 240 W.');
  else if (port.connector === 'USB-C' && fixed.some(({ amps }) => amps > UNMARKED_AMPS))
    remarks.push(`Over ${UNMARKED_AMPS} A needs a cable marked for ${MARKED_AMPS} A.`);
  return remarks;
}
