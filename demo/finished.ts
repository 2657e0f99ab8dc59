import { type StoredRun } from '@core/exchange';
import { inkOf, SCHEMA, type Entry, type Header } from '@core/ink';
import { CONDITIONS } from '@core/method';
import { type Study } from '@core/plan';
import type { Piece } from '@core/report';
import { displayed, seeded } from '@core/simulate';
import { courseOf, readings, roundedTo, STEP } from './charged';
import { CABLES, CHARGERS, DEVICES, saltmarshHeader, METERS, named, type Take } from './saltmarsh';

/** What of the Saltmarsh scenario was finished before it is opened: its study, and its runs. Loaded after the live one stands. */

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

/** What was written up of it: a draft that nobody changed yet. */
export const PIECES: Piece[] = [
  {
    schema: SCHEMA,
    id: 'saltmarsh-vans',
    name: 'Five chargers for the vans',
    at: new Date(2026, 9, 13, 18).getTime(),
    runs: [1, 2, 3, 4, 5, 6, 9].map((run) => `saltmarsh-${run}`),
    study: 'saltmarsh-chargers',
    from: 'the study Van chargers, round one',
    blocks: [],
  },
];

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

function runOf(take: Take): StoredRun {
  const noise = seeded(Number(take.id.split('-').at(-1)) * 7919);
  const until = (take.giveUp ?? 480) * 60;
  const course = courseOf(take, until);
  const header = saltmarshHeader(take);
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
  const header: Header = { ...saltmarshHeader(take), cadence: undefined, meter: named(METERS, 'tidepole'), source: 'meter-quern-30.csv' };
  const at = header.plugInAt + 8_400_000;
  return {
    header,
    entries: [{ kind: 'stop', seq: 1, id: `${take.id}-stop`, at, written: at, because: 'other', remark: 'end of the file' }],
    samples: {
      percent: column((row) => displayed(course.share[row] ?? 0)),
      watts: column((row) => Math.round(Math.max(0, (course.watts[row] ?? 0) + (noise() - 0.5) * 0.2) * 100) / 100),
      celsius: column((row) => roundedTo(course.celsius[row] ?? 0)),
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
