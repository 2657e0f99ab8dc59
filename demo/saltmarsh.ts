import { batteryOf, inkOf, SCHEMA, type Charger, type Device, type Entry, type Header, type Jotted, type StoredRun } from '@core';
import { charge, displayed, seeded, STEP, type Charging, type Moment } from './charge';

/** The Saltmarsh travelling library picks chargers for what it lends. All makers, models and people are invented. */

const device = (id: string, name: string, kind: Device['kind'], rest: Partial<Device>): Device => ({ id, name, kind, ...rest });
const charger = (id: string, name: string, kind: Charger['kind'], watts: number, rest: Partial<Charger> = {}): Charger => ({
  id,
  name,
  kind,
  watts,
  ...rest,
});

export const DEVICES: Device[] = [
  device('sedge-5', 'Sedge 5', 'phone', { milliampHours: 4500, nominalVolts: 3.85, inputLimit: 25 }),
  device('bittern-slate', 'Bittern Slate', 'tablet', { wattHours: 31.2, inputLimit: 30 }),
  device('teasel-14', 'Teasel 14', 'laptop', { wattHours: 54, inputLimit: 65 }),
  device('curlew', 'Curlew', 'camera', { milliampHours: 1950, nominalVolts: 7.2, inputLimit: 10 }),
];

export const CHARGERS: Charger[] = [
  charger('cobble-12', 'Cobble 12', 'adapter', 12, { label: '5V⎓2.4A', price: 9 }),
  charger('cobble-20', 'Cobble 20', 'adapter', 20, { label: '5V⎓3A 9V⎓2.22A', price: 19 }),
  charger('quern-30', 'Quern 30', 'adapter', 30, { label: '5V⎓3A 9V⎓3A 15V⎓2A', price: 34 }),
  charger('quern-65', 'Quern 65', 'adapter', 65, { label: '5V⎓3A 9V⎓3A 15V⎓3A 20V⎓3.25A', price: 59 }),
  charger('drumlin', 'Drumlin', 'dock', 60, { price: 120 }),
  charger('puddle', 'Puddle', 'pad', 15, { price: 28 }),
  charger('haversack', 'Haversack', 'power bank', 20, { label: '5V⎓3A 9V⎓2.22A', price: 40 }),
];

interface Take {
  id: string;
  device: string;
  charger: string;
  pen: number;
  plugInAt: number;
  /** Minutes between checks. */
  every: number;
  from: number;
  /** Watts that the pairing carries; by default what the charger is rated. */
  watts?: number;
  ambient?: number;
  stallAt?: number;
  /** Minutes after which the run is given up, if it is not full before. */
  giveUp?: number;
  /** Checks, by number, that came so many seconds late, or not at all. */
  late?: Record<number, number>;
  missed?: number[];
  /** A check whose figure was first read off the wrong device. */
  slip?: { check: number; percent: number; reason: string };
  noWatts?: boolean;
}

const day = (date: number, hours: number, minutes: number) => new Date(2026, 9, date, hours, minutes).getTime();

const TAKES: Take[] = [
  { id: 'saltmarsh-1', device: 'sedge-5', charger: 'cobble-12', pen: 0, plugInAt: day(5, 9, 4), every: 5, from: 0.02, watts: 11.4 },
  {
    id: 'saltmarsh-2',
    device: 'sedge-5',
    charger: 'cobble-20',
    pen: 1,
    plugInAt: day(5, 14, 2),
    every: 5,
    from: 0.02,
    watts: 19.2,
    late: { 6: 132 },
  },
  {
    id: 'saltmarsh-3',
    device: 'sedge-5',
    charger: 'quern-30',
    pen: 2,
    plugInAt: day(6, 9, 12),
    every: 5,
    from: 0.02,
    watts: 27,
    slip: { check: 5, percent: 24, reason: 'read the tablet beside it' },
  },
  {
    id: 'saltmarsh-4',
    device: 'sedge-5',
    charger: 'quern-65',
    pen: 3,
    plugInAt: day(6, 13, 40),
    every: 5,
    from: 0.02,
    watts: 27,
    missed: [9],
  },
  {
    id: 'saltmarsh-5',
    device: 'sedge-5',
    charger: 'puddle',
    pen: 4,
    plugInAt: day(7, 8, 30),
    every: 15,
    from: 0.03,
    watts: 7.4,
    stallAt: 0.843,
    giveUp: 345,
    noWatts: true,
  },
  {
    id: 'saltmarsh-6',
    device: 'sedge-5',
    charger: 'quern-30',
    pen: 2,
    plugInAt: day(8, 15, 5),
    every: 5,
    from: 0.02,
    watts: 27,
    ambient: 31,
  },
  {
    id: 'saltmarsh-7',
    device: 'bittern-slate',
    charger: 'cobble-20',
    pen: 5,
    plugInAt: day(9, 9, 0),
    every: 10,
    from: 0.05,
    watts: 19.2,
    late: { 4: 215 },
  },
  { id: 'saltmarsh-8', device: 'bittern-slate', charger: 'quern-65', pen: 6, plugInAt: day(9, 13, 30), every: 10, from: 0.05, watts: 30 },
];

const named = <Gear extends { id: string }>(all: Gear[], id: string): Gear => {
  const found = all.find((each) => each.id === id);
  if (!found) throw new Error(`The demo has no gear called ${id}.`);
  return found;
};

function headerOf({ id, device: deviceId, charger: chargerId, pen, plugInAt, every }: Take): Header {
  return {
    schema: SCHEMA,
    id,
    device: named(DEVICES, deviceId),
    charger: named(CHARGERS, chargerId),
    plugInAt,
    cadence: { kind: 'fixed', every: every * 60 },
    pen,
  };
}

function chargingOf(take: Take): Charging {
  const gear = named(DEVICES, take.device);
  return {
    battery: batteryOf(gear) ?? 15,
    deviceWatts: gear.inputLimit ?? 15,
    sourceWatts: take.watts ?? named(CHARGERS, take.charger).watts,
    efficiency: take.noWatts ? 0.92 : 0.84,
    knee: 0.62,
    ambient: take.ambient ?? 22.5,
    degreesPerWatt: gear.kind === 'phone' ? 0.68 : 0.4,
    throttleAt: 43,
    ...(take.stallAt !== undefined && { stallAt: take.stallAt }),
  };
}

const rounded = (value: number) => Math.round(value * 10) / 10;

function jot(moments: Moment[], seconds: number, noise: () => number, withWatts: boolean): Jotted {
  const seen = moments[Math.min(moments.length - 1, Math.round(seconds / STEP))];
  const [share, watts, celsius] = [seen?.charge ?? 0, seen?.watts ?? 0, seen?.celsius ?? 0];
  return {
    seconds,
    percent: displayed(share),
    ...(withWatts && seconds > 0 && { watts: rounded(Math.max(0, watts + (noise() - 0.5) * 0.3)) }),
    ...(seconds > 0 && { celsius: rounded(celsius + (noise() - 0.5) * 0.4) }),
  };
}

/** Readings as a person takes them: at each check, a little early or late, until the display shows 100 or it is given up. */
function readings(take: Take, moments: Moment[], noise: () => number, until: number): Jotted[] {
  const taken = [jot(moments, 0, noise, false)];
  for (let check = 1; check * take.every * 60 <= until; check += 1) {
    const early = Math.round(-8 + noise() * 26);
    if (take.missed?.includes(check)) continue;
    const seconds = check * take.every * 60 + (take.late?.[check] ?? early);
    if (seconds > until) break;
    const reading = jot(moments, seconds, noise, !take.noWatts);
    taken.push(reading);
    if (reading.percent === 100) break;
  }
  return taken;
}

function runOf(take: Take): StoredRun {
  const noise = seeded(Number(take.id.split('-').at(-1)) * 7919);
  const until = (take.giveUp ?? 480) * 60;
  const moments = charge(chargingOf(take), take.from, until);
  const header = headerOf(take);
  const ink = inkOf(header, readings(take, moments, noise, until));
  const entries = take.slip ? withSlip(ink, take.slip) : ink;
  const last = entries.at(-1);
  const at = (last?.at ?? header.plugInAt) + 20_000;
  const stop: Entry = {
    kind: 'stop',
    seq: entries.length + 1,
    id: `${take.id}-stop`,
    at,
    written: at,
    because: take.giveUp ? 'will not finish' : 'full',
  };
  return { header, entries: [...entries, stop] };
}

/** The wrong figure first, struck with its reason, and then the right one. */
function withSlip(ink: Entry[], { check, percent, reason }: NonNullable<Take['slip']>): Entry[] {
  const right = ink[check];
  if (!right) return ink;
  const wrong: Entry = { kind: 'reading', seq: 0, id: `${right.id}-slip`, at: right.at, written: right.written, percent };
  const strike: Entry = {
    kind: 'strike',
    seq: 0,
    id: `${right.id}-strike`,
    at: right.at + 9000,
    written: right.written + 9000,
    target: wrong.id,
    reason,
  };
  return [...ink.slice(0, check), wrong, strike, ...ink.slice(check)].map((entry, index) => ({ ...entry, seq: index + 1 }));
}

/** A run that a meter streamed every ten seconds, with the percentage noted by its camera. */
function streamed(): StoredRun {
  const take: Take = {
    id: 'saltmarsh-9',
    device: 'sedge-5',
    charger: 'quern-30',
    pen: 2,
    plugInAt: day(12, 10, 20),
    every: 5,
    from: 0.02,
    watts: 27,
  };
  const noise = seeded(9);
  const moments = charge(chargingOf(take), take.from, 8400).filter((_, index) => (index * STEP) % 10 === 0);
  const seconds = Float64Array.from(moments, (_, index) => index * 10);
  const column = (value: (moment: Moment) => number) => ({ seconds, values: Float64Array.from(moments, value) });
  const header: Header = { ...headerOf(take), cadence: undefined, source: 'meter-quern-30.csv' };
  const at = header.plugInAt + 8_400_000;
  return {
    header,
    entries: [{ kind: 'stop', seq: 1, id: `${take.id}-stop`, at, written: at, because: 'other', remark: 'end of the file' }],
    samples: {
      percent: column(({ charge: share }) => displayed(share)),
      watts: column(({ watts }) => Math.round(Math.max(0, watts + (noise() - 0.5) * 0.2) * 100) / 100),
      celsius: column(({ celsius }) => rounded(celsius)),
    },
  };
}

/** The finished runs of the scenario; the same at every call. */
export function finishedRuns(): StoredRun[] {
  return [...TAKES.map(runOf), streamed()];
}

/** How long before it is opened the live run was plugged in, in seconds. */
const LIVE_FOR = 38 * 60 + 20;

/** The run that is live as the demo is opened. */
export function liveRun(now: number): StoredRun {
  const take: Take = {
    id: `saltmarsh-live-${now}`,
    device: 'bittern-slate',
    charger: 'quern-30',
    pen: 7,
    plugInAt: now - LIVE_FOR * 1000,
    every: 5,
    from: 0.08,
    watts: 29,
  };
  const header = headerOf(take);
  const moments = charge(chargingOf(take), take.from, LIVE_FOR);
  return { header, entries: inkOf(header, readings(take, moments, seeded(41), LIVE_FOR)) };
}
