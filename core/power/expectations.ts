import type { Cable } from '../bench/cable';
import type { Charger } from '../bench/charger';
import { portName } from '../bench/portName';
import { portsOf } from '../bench/ports';
import type { Device } from '../bench/device';
import type { Feed } from '../bench/feed';
import { fixed } from '../quantity/figures';
import { listed } from '../quantity/listed';
import { feedOf } from './feed';
import { negotiate, type Negotiated } from './negotiate';

/** What one device has to expect of one charger: its best port, negotiated. */
export interface Expectation {
  /** Which port of the charger, and its name where there are several. */
  port: number;
  portName?: string | undefined;
  negotiated: Negotiated;
}

/** Settles a device on the port of a charger that gives it most. */
export function expectationOf(device: Device, charger: Charger, cable?: Cable, feed?: Feed): Expectation {
  const ports = portsOf(charger);
  const fed = feed && feedOf(charger, feed);
  let most: Expectation | undefined;
  for (const [port, each] of ports.entries()) {
    const negotiated = negotiate({ device, charger, port, cable, fed });
    const name = ports.length > 1 ? portName(each, port) : undefined;
    if (!most || negotiated.watts > most.negotiated.watts + 1e-9) most = { port, portName: name, negotiated };
  }
  return most ?? { port: 0, negotiated: negotiate({ device, charger, cable, fed }) };
}

/** Expectations of every device (rows) with every charger (columns). @param feedOf what feeds a charger that has a source of its own */
export function expectations(
  devices: readonly Device[],
  chargers: readonly Charger[],
  cable?: Cable,
  feedOf: (charger: Charger) => Feed | undefined = () => undefined,
): Expectation[][] {
  return devices.map((device) => chargers.map((charger) => expectationOf(device, charger, cable, feedOf(charger))));
}

/** Watts this close to each other will tie: no reading by hand tells them apart. */
const TIES = 0.03;

/** What a row of expectations teaches of its device, in sentences: where a bigger brick stops helping, and what will not charge. */
export function lessons(row: readonly Expectation[]): string[] {
  const device = row[0]?.negotiated.device;
  if (!device) return [];
  const all = row.map(({ negotiated }) => negotiated).filter(({ outcome }) => outcome !== 'not known');
  const names = (some: readonly Negotiated[]) => listed(some.map(({ charger }) => charger.name));
  const said: string[] = [];
  const wired = all.filter(({ outcome, by }) => outcome !== 'does not fit' && by !== 'wireless');
  const ceiling = Math.max(0, ...wired.filter(({ limit }) => limit === 'device').map(({ watts }) => watts));
  const tied = wired.filter(({ watts }) => ceiling > 0 && watts >= ceiling * (1 - TIES));
  if (tied.length > 1) said.push(`Above ${fixed(ceiling)} W nothing changes for ${device.name}: ${names(tied)} will tie.`);
  const asleep = all.filter(({ outcome }) => outcome === 'charges only asleep');
  if (asleep.length > 0) said.push(`${names(asleep)} will not charge ${device.name} awake.`);
  const refused = all.filter(({ outcome }) => outcome === 'connected, will not charge');
  if (refused.length > 0) said.push(`${device.name} will connect to ${names(refused)} and not charge.`);
  const capped = all.filter(({ limit, outcome }) => limit === 'cable' && outcome !== 'does not fit');
  if (capped.length > 0) said.push(`The cable holds ${device.name} back on ${names(capped)}: a better one gives more.`);
  const strangers = all.filter(({ limit }) => limit === 'mismatch');
  if (strangers.length > 0)
    said.push(`${device.name} falls back on ${names(strangers)}: both could do more, but share no faster signalling.`);
  return said;
}
