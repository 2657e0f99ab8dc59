import { type Cable, type Charger, type Device, type Meter } from '@core/bench';
import { type StoredRun } from '@core/exchange';
import { inkOf, SCHEMA, type Entry, type Header, type Jotted } from '@core/ink';
import { CONDITIONS } from '@core/method';
import { type Study } from '@core/plan';
import { fedBy, negotiate } from '@core/power';
import { displayed, parametersOf, seeded, simulate, vary, type Circumstances, type Course } from '@core/simulate';

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

/** The question of the scenario, and the study that its phone runs belong to. */
export const STUDIES: Study[] = [
  {
    schema: SCHEMA,
    id: 'saltmarsh-chargers',
    name: 'Van chargers, round one',
    question: 'Which charger for this device? Is the dearer or bigger one worth it?',
    method: 'fixed-interval',
    cadence: { kind: 'fixed', every: 300 },
    startLevel: 2,
    devices: ['sedge-5', 'heron-3'],
    chargers: ['cobble-12', 'cobble-20', 'quern-30', 'quern-65', 'puddle'],
    cables: [],
    meters: ['tidepole'],
    states: ['asleep'],
    crossed: [{ cell: 'heron-3/puddle//asleep', reason: 'it has no coil' }],
    repeats: 2,
    order: 'counterbalanced',
    seed: 5,
    races: false,
    conditions: CONDITIONS.map((each) => ({ ...each })),
  },
];

interface Take {
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

const day = (date: number, hours: number, minutes: number) => new Date(2026, 9, date, hours, minutes).getTime();

const TAKES: Take[] = [
  { id: 'saltmarsh-1', device: 'sedge-5', charger: 'cobble-12', cable: 'old', pen: 0, plugInAt: day(5, 9, 4), every: 5, from: 2 },
  {
    id: 'saltmarsh-2',
    device: 'sedge-5',
    charger: 'cobble-20',
    cable: 'short',
    pen: 1,
    plugInAt: day(5, 14, 2),
    every: 5,
    from: 2,
    late: { 6: 132 },
  },
  {
    id: 'saltmarsh-3',
    device: 'sedge-5',
    charger: 'quern-30',
    cable: 'short',
    pen: 2,
    plugInAt: day(6, 9, 12),
    every: 5,
    from: 2,
    slip: { check: 5, percent: 24, reason: 'read the tablet beside it' },
  },
  {
    id: 'saltmarsh-4',
    device: 'sedge-5',
    charger: 'quern-65',
    cable: 'short',
    pen: 3,
    plugInAt: day(6, 13, 40),
    every: 5,
    from: 2,
    missed: [9],
  },
  {
    id: 'saltmarsh-5',
    device: 'sedge-5',
    charger: 'puddle',
    pen: 4,
    plugInAt: day(7, 8, 30),
    every: 15,
    from: 3,
    circumstances: { alignment: 0.85, hold: { share: 0.836, until: Infinity } },
    giveUp: 345,
    noWatts: true,
  },
  {
    id: 'saltmarsh-6',
    device: 'sedge-5',
    charger: 'quern-30',
    cable: 'short',
    pen: 2,
    plugInAt: day(8, 15, 5),
    every: 5,
    from: 2,
    circumstances: { ambient: 31 },
  },
  {
    id: 'saltmarsh-7',
    device: 'bittern-slate',
    charger: 'cobble-20',
    cable: 'short',
    pen: 5,
    plugInAt: day(9, 9, 0),
    every: 10,
    from: 5,
    late: { 4: 215 },
  },
  {
    id: 'saltmarsh-8',
    device: 'bittern-slate',
    charger: 'quern-65',
    cable: 'marked',
    pen: 6,
    plugInAt: day(9, 13, 30),
    every: 10,
    from: 5,
  },
];

const named = <Gear extends { id: string }>(all: Gear[], id: string): Gear => {
  const found = all.find((each) => each.id === id);
  if (!found) throw new Error(`The demo has no gear called ${id}.`);
  return found;
};

/** The pad of the scenario stands on this. */
const PAD_FEED = { charger: named(CHARGERS, 'cobble-20'), cable: named(CABLES, 'short') };

function headerOf({ id, device, charger, cable, pen, plugInAt, every }: Take): Header {
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

/** Seconds from one row of the simulated charge to the next. */
const STEP = 5;

/** The charge as it goes, with a specimen of everything of its own; the same at every call. */
function courseOf(take: Take, seconds: number): Course {
  const header = headerOf(take);
  const fed = header.feed && fedBy(header.charger, header.feed);
  const parameters = parametersOf(negotiate({ ...header, fed }), take.circumstances);
  if (!parameters) throw new Error(`Nothing flows in ${take.id}.`);
  const specimen = vary(parameters, Number(take.id.replace(/\D/g, '').slice(0, 2)) * 7919);
  return simulate(specimen, ((take.from + 0.5) / 100) * 0.99, seconds, STEP, 3000);
}

const rounded = (value: number) => Math.round(value * 10) / 10;

function jot({ share, watts, celsius, rows }: Course, seconds: number, noise: () => number, withWatts: boolean): Jotted {
  const row = Math.min(rows - 1, Math.round(seconds / STEP));
  return {
    seconds,
    percent: displayed(share[row] ?? 0),
    ...(withWatts && seconds > 0 && { watts: rounded(Math.max(0, (watts[row] ?? 0) + (noise() - 0.5) * 0.3)) }),
    ...(seconds > 0 && { celsius: rounded((celsius[row] ?? 0) + (noise() - 0.5) * 0.4) }),
  };
}

/** Readings as a person takes them: at each check, a little early or late, until the display shows 100 or it is given up. */
function readings(take: Take, course: Course, noise: () => number, until: number): Jotted[] {
  const taken = [jot(course, 0, noise, false)];
  for (let check = 1; check * take.every * 60 <= until; check += 1) {
    const early = Math.round(-8 + noise() * 26);
    if (take.missed?.includes(check)) continue;
    const seconds = check * take.every * 60 + (take.late?.[check] ?? early);
    if (seconds > until) break;
    const reading = jot(course, seconds, noise, !take.noWatts);
    taken.push(reading);
    if (reading.percent === 100) break;
  }
  return taken;
}

function runOf(take: Take): StoredRun {
  const noise = seeded(Number(take.id.split('-').at(-1)) * 7919);
  const until = (take.giveUp ?? 480) * 60;
  const course = courseOf(take, until);
  const header = headerOf(take);
  const ink = inkOf(header, readings(take, course, noise, until));
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
    cable: 'short',
    pen: 2,
    plugInAt: day(12, 10, 20),
    every: 5,
    from: 2,
  };
  const noise = seeded(9);
  const course = courseOf(take, 8400);
  const rows = Array.from({ length: Math.ceil(course.rows / 2) }, (_, index) => index * 2);
  const seconds = Float64Array.from(rows, (row) => row * STEP);
  const column = (value: (row: number) => number) => ({ seconds, values: Float64Array.from(rows, value) });
  const header: Header = { ...headerOf(take), cadence: undefined, meter: named(METERS, 'tidepole'), source: 'meter-quern-30.csv' };
  const at = header.plugInAt + 8_400_000;
  return {
    header,
    entries: [{ kind: 'stop', seq: 1, id: `${take.id}-stop`, at, written: at, because: 'other', remark: 'end of the file' }],
    samples: {
      percent: column((row) => displayed(course.share[row] ?? 0)),
      watts: column((row) => Math.round(Math.max(0, (course.watts[row] ?? 0) + (noise() - 0.5) * 0.2) * 100) / 100),
      celsius: column((row) => rounded(course.celsius[row] ?? 0)),
    },
  };
}

const MINUTE = 60_000;

/** A camera that shows no percentage: amps as they were read, and the moment its light went out. */
function filmed(): StoredRun[] {
  const takes = [
    { id: 'saltmarsh-10', charger: 'hutch', pen: 8, plugInAt: day(13, 9, 30), full: 0.92, out: 148 },
    { id: 'saltmarsh-11', charger: 'haversack', pen: 9, plugInAt: day(14, 9, 15), full: 0.71, out: 203 },
  ];
  return takes.map(({ id, charger, pen, plugInAt, full, out }, index) => {
    const noise = seeded(60 + index);
    const header: Header = {
      schema: SCHEMA,
      id,
      device: named(DEVICES, 'curlew'),
      charger: named(CHARGERS, charger),
      ...(charger === 'haversack' && { cable: named(CABLES, 'short') }),
      plugInAt,
      cadence: { kind: 'fixed', every: 1200 },
      pen,
    };
    // Full current to two thirds, and then less and less.
    const knee = out * 0.62;
    const amps = (minutes: number) => full * (minutes < knee ? 1 : Math.exp((-2.3 * (minutes - knee)) / (out - knee)));
    const checks = Array.from({ length: Math.ceil(out / 20) }, (_, check) => Math.max(0.5, check * 20 + noise() * 0.6));
    const ink = inkOf(
      header,
      checks.map((minutes) => ({ seconds: Math.round(minutes * 60), amps: Math.round((amps(minutes) + noise() * 0.02) * 100) / 100 })),
    );
    const at = (minutes: number) => plugInAt + minutes * MINUTE;
    const event = (seq: number, minutes: number, name: 'light on' | 'light off'): Entry => ({
      ...{ kind: 'event', seq, id: `${id}-${name.replace(' ', '-')}`, at: at(minutes), written: at(minutes), event: name },
    });
    const seq = ink.length;
    const stop: Entry = { kind: 'stop', seq: seq + 3, id: `${id}-stop`, at: at(out + 2), written: at(out + 2), because: 'light out' };
    return { header, entries: [...ink, event(seq + 1, 0.2, 'light on'), event(seq + 2, out, 'light off'), stop] };
  });
}

/** A sitting with all that was in the van, awake and some of it asleep: what works with the phone at all. */
function tried(): StoredRun {
  const plugInAt = day(15, 16, 0);
  const source = (charger: string, by?: string) => ({
    charger: named(CHARGERS, charger),
    ...(by && { feed: { charger: named(CHARGERS, by) } }),
  });
  const pads = ['cobble-20', 'cobble-12'].map((by) => source('puddle', by));
  const all = [...['cobble-12', 'cobble-20', 'quern-30', 'quern-65', 'drumlin', 'haversack', 'sluice-40'].map((id) => source(id)), ...pads];
  const header: Header = {
    schema: SCHEMA,
    id: 'saltmarsh-12',
    device: named(DEVICES, 'sedge-5'),
    charger: named(CHARGERS, 'cobble-12'),
    plugInAt,
    method: 'spot-check',
    list: [...new Set(all.map(({ charger }) => charger.id))],
    pen: 10,
  };
  const seen = { chime: true, icon: true, meter: true };
  const trials: Partial<Extract<Entry, { kind: 'trial' }>>[] = [
    { status: 'slow', volts: 5.1, amps: 2.2, percent: 41, ...seen },
    { status: 'fast', volts: 9.02, amps: 2.1, voltsBefore: 5.1, percent: 42, ...seen },
    { status: 'fast', volts: 9.05, amps: 2.6, voltsBefore: 5.1, percent: 43, ...seen },
    { status: 'fast', volts: 9.04, amps: 2.7, voltsBefore: 5.1, percent: 43, ...seen },
    { status: 'fast', volts: 9.01, amps: 2.6, percent: 44, chime: true, icon: true },
    { status: 'fast', volts: 9, amps: 2, percent: 45, ...seen },
    { status: 'not charging', percent: 45, chime: true, icon: true, meter: false, chimes: 3, remark: 'connects and lets go' },
    { status: 'slow', watts: 12.4, wattsOut: 9.4, wattsOutAssumed: true, percent: 45, ...seen },
    { status: 'slow', watts: 9.6, wattsOut: 7, wattsOutAssumed: true, percent: 46, ...seen },
  ];
  const at = (minutes: number) => plugInAt + minutes * MINUTE;
  const entries: Entry[] = [
    { kind: 'list', seq: 1, id: 'saltmarsh-12-list', at: plugInAt, written: plugInAt, sources: all },
    ...trials.flatMap((trial, index): Entry[] => {
      const of = all[index];
      const made = { seq: index + 2, id: `saltmarsh-12-${index}`, at: at(2 * index + 1), written: at(2 * index + 1) };
      return of ? [{ kind: 'trial', ...made, source: of, state: 'awake', status: 'fast', ...trial }] : [];
    }),
  ];
  const [brick] = all;
  const last = trials.length;
  const after = (seq: number, minutes: number) => ({
    seq: last + seq,
    id: `saltmarsh-12-${last + seq}`,
    at: at(minutes),
    written: at(minutes),
  });
  if (brick) {
    entries.push({
      kind: 'trial',
      ...after(2, 20),
      source: brick,
      state: 'asleep',
      status: 'slow',
      volts: 5.1,
      amps: 2.3,
      percent: 46,
      ...seen,
    });
    entries.push({
      kind: 'trial',
      ...after(3, 32),
      source: brick,
      state: 'asleep',
      status: 'slow',
      percent: 52,
      confirms: `saltmarsh-12-${last + 2}`,
    });
  }
  entries.push({ kind: 'stop', ...after(4, 33), because: 'window over' });
  return { header, entries };
}

/** The finished runs of the scenario; the same at every call. */
export function finishedRuns(): StoredRun[] {
  return [...TAKES.map(runOf), streamed(), ...filmed(), tried()];
}

/** How long before it is opened the live run was plugged in, in seconds. */
const LIVE_FOR = 38 * 60 + 20;

/** The run that is live as the demo is opened. */
export function liveRun(now: number): StoredRun {
  const take: Take = {
    id: `saltmarsh-live-${now}`,
    device: 'bittern-slate',
    charger: 'quern-30',
    cable: 'marked',
    pen: 7,
    plugInAt: now - LIVE_FOR * 1000,
    every: 5,
    from: 8,
  };
  const header = headerOf(take);
  const course = courseOf({ ...take, id: 'saltmarsh-41' }, LIVE_FOR);
  return { header, entries: inkOf(header, readings(take, course, seeded(41), LIVE_FOR)) };
}
