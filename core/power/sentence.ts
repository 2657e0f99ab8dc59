import { fixed } from '../quantity/figures';
import type { Negotiated } from './negotiate';

/** A figure as short as it is exact to one decimal. */
const short = (value: number) => fixed(value, Number.isInteger(Number(value.toFixed(1))) ? 0 : 1);

const BY: Readonly<Record<NonNullable<Negotiated['by']>, string>> = {
  PPS: 'by a programmable supply (PPS)',
  PD: 'by Power Delivery',
  'extended range': 'in the extended range of Power Delivery',
  family: 'by makers’ own signalling',
  'Type-C current': 'by Type-C current, without Power Delivery',
  'BC 1.2': 'as a charging port (BC 1.2)',
  'USB default': 'by the USB default of a data port',
  wireless: 'through the coil',
  barrel: 'through the barrel',
  bay: 'in the bay',
};

/** What a pairing comes to and why, in plain words: `9 V × 2.2 A = 20 W by Power Delivery. The charger is the limit.` */
export function explain(negotiated: Negotiated): string {
  const { device, charger, outcome, watts, volts, amps, by, family, assumed, fed } = negotiated;
  if (outcome === 'not known') return `Nobody wrote down what ${charger.name} gives: its watts or its label would tell.`;
  if (outcome === 'does not fit' || !by)
    return `${charger.name} does not go together with ${device.name}: no plug fits, or they share no voltage.`;
  const product = volts === undefined || amps === undefined ? '' : `${short(volts)} V × ${fixed(amps, 2)} A = `;
  const means = family && !family.endsWith(' A') ? `by ${family}` : BY[by];
  const draws = fed ? `${charger.name} draws ${short(fed.watts)} W from ${fed.feed.charger.name}. ` : '';
  const said = [`${draws}${product}${short(watts)} W ${means}. ${why(negotiated)}`];
  if (outcome === 'connected, will not charge')
    said.push(`${device.name} is connected but will not charge: it needs at least ${short(device.leastWatts ?? 0)} W.`);
  if (outcome === 'charges only asleep')
    said.push(
      `It charges only asleep: awake ${device.name} uses about ${short(device.awakeWatts ?? 0)} W itself, and would drain slowly while plugged in.`,
    );
  if (assumed.length > 0) said.push(`Taken to be as usual, for nobody wrote it down: ${assumed.join('; ')}.`);
  return said.join(' ');
}

function why({ device, charger, cable, limit, by, better, fed, knownTo }: Negotiated): string {
  if (knownTo !== undefined)
    return `What ${charger.name} gives above ${knownTo} W is not known: nobody wrote its label down. ${device.name} would take more.`;
  switch (limit) {
    case 'feed':
      return `${fed?.feed.charger.name ?? ''} is the limit: it feeds ${charger.name} no more.`;
    case 'device':
      return better
        ? `${device.name} is the limit on this charger; one that offers more ${BY[better.by]} would give it ${short(better.watts)} W.`
        : `${device.name} is the limit: a bigger charger changes nothing.`;
    case 'charger':
      return `${charger.name} is the limit: ${device.name} would take more.`;
    case 'cable':
      return `The cable is the limit: ${cable ? `${cable.name} is ${cable.marker === 'none' ? 'not marked' : `marked ${cable.marker}`}` : 'an unmarked one carries 3 A and no maker’s own fast charging'}.`;
    case 'standard':
      return by === 'USB default'
        ? 'The standard is the limit: a data port gives no more.'
        : 'The standard is the limit: this signalling stops there.';
    case 'mismatch':
      return `Both could do more, but ${charger.name} and ${device.name} share no faster signalling.`;
  }
}
