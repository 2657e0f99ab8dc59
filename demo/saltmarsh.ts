import { type Cable, type Charger, type Device, type Meter } from '@core/bench';
import { type StoredRun } from '@core/exchange';
import { inkOf, SCHEMA, type Header, type Jotted } from '@core/ink';
import type { Circumstances } from '@core/simulate';

/** The Saltmarsh travelling library picks chargers for what it lends. All makers, models and people are invented. */

export const DEVICES: Device[] = [
  {
    id: 'sedge-5',
    name: 'Sedge 5',
    kind: 'phone',
    milliampHours: 4500,
    nominalVolts: 3.85,
    health: 98,
    display: 'percent',
    inputLimit: 25,
    connectors: ['USB-C', 'wireless'],
    deliveryVolts: 9,
    programmableVolts: 11,
    typeCAmps: 3,
    chargingPort: true,
    families: ['2.4 A'],
    wireless: ['baseline', 'extended'],
    wirelessLimit: 10,
    boxCharger: 'cobble-12',
    boxCable: 'old',
    enduranceHours: 90,
    weight: 182,
    price: 260,
  },
  {
    id: 'heron-3',
    name: 'Heron 3',
    kind: 'phone',
    milliampHours: 4800,
    nominalVolts: 3.87,
    display: 'percent',
    inputLimit: 40,
    connectors: ['USB-C'],
    deliveryVolts: 9,
    typeCAmps: 3,
    chargingPort: true,
    families: ['Swiftreed'],
    enduranceHours: 100,
    weight: 194,
    price: 310,
  },
  {
    id: 'bittern-slate',
    name: 'Bittern Slate',
    kind: 'tablet',
    wattHours: 31.2,
    nominalVolts: 3.8,
    display: 'percent',
    inputLimit: 30,
    connectors: ['USB-C'],
    deliveryVolts: 15,
    typeCAmps: 3,
    chargingPort: true,
    enduranceHours: 12,
    weight: 460,
    price: 380,
  },
  {
    id: 'teasel-14',
    name: 'Teasel 14',
    kind: 'laptop',
    wattHours: 54,
    nominalVolts: 11.4,
    display: 'percent',
    inputLimit: 65,
    connectors: ['USB-C'],
    deliveryVolts: 20,
    typeCAmps: 3,
    chargingPort: true,
    leastWatts: 14,
    awakeWatts: 21,
    enduranceHours: 11,
    weight: 1290,
    price: 820,
  },
  {
    id: 'curlew',
    name: 'Curlew',
    kind: 'camera',
    milliampHours: 1950,
    nominalVolts: 7.2,
    display: 'light',
    inputLimit: 10,
    connectors: ['USB-C', 'bay'],
    typeCAmps: 1.5,
    chargingPort: true,
    deliveryVolts: 9,
    weight: 410,
    price: 540,
  },
];

export const CHARGERS: Charger[] = [
  {
    id: 'cobble-12',
    name: 'Cobble 12',
    kind: 'adapter',
    watts: 12,
    ports: [{ connector: 'USB-A', label: '5V⎓2.4A' }],
    price: 9,
    owned: true,
    weight: 48,
    traits: ['light'],
  },
  {
    id: 'cobble-20',
    name: 'Cobble 20',
    kind: 'adapter',
    watts: 20,
    ports: [{ connector: 'USB-C', label: '5V⎓3A 9V⎓2.22A' }],
    price: 19,
    weight: 61,
    traits: ['folding pins', 'light'],
  },
  {
    id: 'quern-30',
    name: 'Quern 30',
    kind: 'adapter',
    watts: 30,
    ports: [{ connector: 'USB-C', label: '5V⎓3A 9V⎓3A 15V⎓2A PPS 3.3-11V⎓3A', probed: '5V⎓3A 9V⎓3A 15V⎓2A' }],
    price: 34,
    weight: 84,
    traits: ['folding pins'],
  },
  {
    id: 'quern-65',
    name: 'Quern 65',
    kind: 'adapter',
    watts: 65,
    ports: [
      { name: 'C1', connector: 'USB-C', label: '5V⎓3A 9V⎓3A 15V⎓3A 20V⎓3.25A' },
      { name: 'C2', connector: 'USB-C', label: '5V⎓3A 9V⎓3A 15V⎓2A 20V⎓1.5A' },
      { name: 'A1', connector: 'USB-A', label: '5V⎓2.4A' },
    ],
    sharing: 'C1+C2: 45+20\nC1+A1: 45+12\nC1+C2+A1: 45+10+10',
    price: 59,
    weight: 132,
    size: '66 × 38 × 29 mm',
    traits: ['changeable plugs'],
  },
  {
    id: 'drumlin',
    name: 'Drumlin',
    kind: 'dock',
    watts: 60,
    ports: [{ connector: 'USB-C', label: '5V⎓3A 9V⎓3A 15V⎓3A 20V⎓3A' }],
    price: 120,
    cableIncluded: true,
  },
  {
    id: 'puddle',
    name: 'Puddle',
    kind: 'pad',
    watts: 15,
    ports: [{ connector: 'pad', label: '15W 5W' }],
    input: '5V⎓2A 9V⎓2A',
    fedBy: 'cobble-20',
    fedThrough: 'short',
    price: 28,
  },
  { id: 'hutch', name: 'Hutch', kind: 'bay charger', watts: 10, ports: [{ connector: 'bay', label: '8.4V⎓1.2A' }], price: 24, owned: true },
  {
    id: 'haversack',
    name: 'Haversack',
    kind: 'power bank',
    watts: 20,
    ports: [
      { name: 'A', connector: 'USB-C', label: '5V⎓3A 9V⎓2.22A' },
      { name: 'B', connector: 'USB-A', label: '5V⎓2.4A' },
    ],
    wattHours: 74,
    price: 40,
    weight: 350,
  },
  {
    id: 'sluice-40',
    name: 'Sluice 40',
    kind: 'adapter',
    watts: 40,
    ports: [{ connector: 'USB-A', label: '5V⎓2A; Swiftreed: 10V⎓4A' }],
    price: 29,
    cableIncluded: true,
  },
];

export const CABLES: Cable[] = [
  { id: 'short', name: 'Short cable', chargerEnd: 'USB-C', deviceEnd: 'USB-C', length: 1, marker: 'none', price: 6 },
  { id: 'marked', name: 'Marked cable', chargerEnd: 'USB-C', deviceEnd: 'USB-C', length: 2, marker: '5 A', price: 14 },
  { id: 'old', name: 'Old cable', chargerEnd: 'USB-A', deviceEnd: 'USB-C', length: 1.2, marker: 'none', price: 4, owned: true },
];

export const METERS: Meter[] = [
  { id: 'tidepole', name: 'Tidepole', voltsResolution: 0.01, ampsResolution: 0.01, accuracyPercent: 0.5, accuracyDigits: 2, interval: 10 },
];

export interface Take {
  id: string;
  device: string;
  charger: string;
  cable?: string;
  pen: number;
  plugInAt: number;
  /** Minutes between checks. */
  every: number;
  /** Level shown at plug-in, in %. */
  from: number;
  circumstances?: Circumstances;
  /** Minutes after which the run is given up, if it is not full before. */
  giveUp?: number;
  /** Checks, by number, that came so many seconds late, or not at all. */
  late?: Record<number, number>;
  missed?: number[];
  /** A check whose figure was first read off the wrong device. */
  slip?: { check: number; percent: number; reason: string };
  noWatts?: boolean;
}

export const named = <Gear extends { id: string }>(all: Gear[], id: string): Gear => {
  const found = all.find((each) => each.id === id);
  if (!found) throw new Error(`The demo has no gear called ${id}.`);
  return found;
};

/** The pad of the scenario stands on this. */
const PAD_FEED = { charger: named(CHARGERS, 'cobble-20'), cable: named(CABLES, 'short') };

export function saltmarshHeader({ id, device, charger, cable, pen, plugInAt, every }: Take): Header {
  return {
    schema: SCHEMA,
    id,
    device: named(DEVICES, device),
    charger: named(CHARGERS, charger),
    ...(charger === 'puddle' && { feed: PAD_FEED }),
    ...(cable && { cable: named(CABLES, cable) }),
    plugInAt,
    cadence: { kind: 'fixed', every: every * 60 },
    ...(device === 'sedge-5' && { study: { id: 'saltmarsh-chargers', cell: `sedge-5/${charger}//asleep` } }),
    pen,
  };
}

/** How long before it is opened the live run was plugged in, in seconds. */
export const LIVE_FOR = 38 * 60 + 20;

/** What is live as the demo is opened. */
export const LIVE_TAKE: Omit<Take, 'id' | 'plugInAt'> = {
  device: 'bittern-slate',
  charger: 'quern-30',
  cable: 'marked',
  pen: 7,
  every: 5,
  from: 8,
};

/** What was read of it, as `readings` of its charge has it: written down, for the first screen waits for it. */
const LIVE_READINGS: Jotted[] = [
  { seconds: 0, percent: 8 },
  { seconds: 314, percent: 14, watts: 27.6, celsius: 25.9 },
  { seconds: 606, percent: 20, watts: 27.7, celsius: 28.7 },
  { seconds: 916, percent: 26, watts: 27.6, celsius: 30.8 },
  { seconds: 1210, percent: 31, watts: 27.7, celsius: 32.6 },
  { seconds: 1501, percent: 37, watts: 27.7, celsius: 34 },
  { seconds: 1798, percent: 42, watts: 27.5, celsius: 35.1 },
  { seconds: 2113, percent: 48, watts: 27.5, celsius: 35.8 },
];

/** The run that is live as the demo is opened. */
export function saltmarshLive(now: number): StoredRun {
  const header = saltmarshHeader({ ...LIVE_TAKE, id: `saltmarsh-live-${now}`, plugInAt: now - LIVE_FOR * 1000 });
  return { header, entries: inkOf(header, LIVE_READINGS) };
}
