import fc from 'fast-check';
import { BLOCKS } from './report';
import { WILD_RUNS } from './wildRuns';

const { LAST_MOMENT } = WILD_RUNS;

/** Whatever may stand in a file: most of it in bounds, some of it at them or far beyond. */
const moment = fc.oneof(fc.integer({ min: 0, max: LAST_MOMENT }), fc.constantFrom(0, LAST_MOMENT, 9e15, -1, Infinity, 1.5));
const text = (max: number) =>
  fc.oneof(fc.string({ minLength: 1, maxLength: Math.min(max, 30) }), fc.constantFrom('=1+1', '\ud800', 'x'.repeat(max), '<b>', '\u0000'));
const ids = (...known: string[]) => fc.uniqueArray(fc.constantFrom(...known, 'gone'), { minLength: 1, maxLength: 3 });
const day = fc.constantFrom('2026-11-30', '1970-01-01', '2199-12-31', '9999-12-31', '2026-02-30', '0000-00-00');
const minutes = fc.constantFrom(0, 480, 539, 1080, 1440);
const hours = fc.record({ day: fc.integer({ min: 1, max: 7 }), from: minutes, to: minutes });
const cadence = fc.oneof(
  fc.record({ kind: fc.constant('fixed'), every: fc.constantFrom(30, 300, 43_200) }),
  fc.record({ kind: fc.constant('marks'), at: fc.constantFrom([900, 1800], [30], [7e9]), then: fc.constantFrom(30, 900) }),
  fc.constantFrom(
    { kind: 'sampled', every: 0.001 },
    { kind: 'spot', settle: 60 },
    { kind: 'coarse then fine', every: 600, level: 90, then: 30 },
  ),
);
const conditions = fc.array(fc.record({ name: text(60), value: text(80) }), { maxLength: 3 });

const calendar = fc.record({
  from: day,
  hours: fc.array(hours, { maxLength: 4 }),
  reading: fc.constantFrom(5, 60, 600),
  setUp: fc.constantFrom(0, 3600),
  packUp: fc.constantFrom(0, 3600),
  drain: fc.constantFrom(0, 86_400),
  sockets: fc.constantFrom(1, 24),
  allowance: fc.constantFrom(0, 0.1, 1),
  nights: fc.boolean(),
  otherwise: fc.constantFrom(undefined, 60, 172_800),
  pins: fc.array(fc.record({ run: fc.constantFrom('a/c//asleep#1', 'gone'), at: moment }), { maxLength: 2 }),
  laid: fc.array(fc.record({ run: fc.constantFrom('a/c//asleep#1', 'gone'), at: moment }), { maxLength: 2 }),
});
const study = fc.record(
  {
    schema: fc.constant(3),
    id: fc.constantFrom('s', 's2'),
    name: text(80),
    question: text(200),
    method: fc.constantFrom('full-charge', 'gone', 'm'),
    cadence,
    startLevel: fc.constantFrom(0, 2, 79.6, 100),
    devices: ids('a', 'b'),
    chargers: ids('c', 'd'),
    feeds: fc.array(fc.record({ charger: fc.constantFrom('c', 'gone'), by: fc.constantFrom('d', 'gone') }), { maxLength: 2 }),
    cables: fc.uniqueArray(fc.constantFrom('l', 'gone'), { maxLength: 2 }),
    meters: fc.uniqueArray(fc.constantFrom('w', 'gone'), { maxLength: 2 }),
    states: fc.uniqueArray(fc.constantFrom('asleep', 'awake', 'off', 'case on'), { minLength: 1 }),
    crossed: fc.array(fc.record({ cell: fc.constantFrom('a/c//asleep', 'gone'), reason: text(120) }), { maxLength: 2 }),
    repeats: fc.constantFrom(1, 3, 10),
    order: fc.constantFrom('as listed', 'shuffled', 'counterbalanced'),
    seed: fc.constantFrom(0, Number.MAX_SAFE_INTEGER, -5),
    races: fc.boolean(),
    conditions,
    calendar: fc.option(calendar, { nil: undefined }),
    notes: fc.array(fc.record({ at: moment, text: text(600) }), { maxLength: 2 }),
  },
  {
    requiredKeys: [
      'schema',
      'id',
      'name',
      'question',
      'method',
      'cadence',
      'startLevel',
      'devices',
      'chargers',
      'cables',
      'meters',
      'states',
      'crossed',
      'repeats',
      'order',
      'seed',
      'races',
      'conditions',
    ],
  },
);
const gear = {
  devices: [
    { id: 'a', name: 'A', kind: 'phone' as const, wattHours: 17, inputLimit: 25 },
    { id: 'b', name: 'B', kind: 'camera' as const },
  ],
  chargers: [
    { id: 'c', name: 'C', kind: 'adapter' as const, watts: 20 },
    { id: 'd', name: 'D', kind: 'power bank' as const, watts: 1e-6 },
  ],
  cables: [{ id: 'l', name: 'L', chargerEnd: 'USB-C' as const, deviceEnd: 'USB-C' as const, marker: '5 A' as const }],
  meters: [{ id: 'w', name: 'W', voltsResolution: 0.01, accuracyPercent: 0.5 }],
};

const method = fc.record({
  ...{ id: fc.constantFrom('m', 'm2'), name: text(80), start: text(120), cadence, records: text(160), stops: text(120) },
  ...{ goodFor: text(160), weakAt: text(160), conditions, startLevel: fc.constantFrom(undefined, 0, 100, 101) },
  rule: fc.record({ ends: fc.constantFrom('full', 'power', 'window'), wants: fc.constantFrom(['level'], ['watts', 'temperature']) }),
});
const comparison = fc.record({
  ...{ schema: fc.constant(3), id: fc.constantFrom('k'), name: text(120), at: moment, runs: ids('r', 's') },
  ...{ edits: fc.array(fc.record({ need: text(40), text: text(600), made: text(2400) }), { maxLength: 2 }), show: text(20) },
});
const part = fc.record(
  { text: text(80), bold: fc.constantFrom(undefined, true), ref: text(120), kept: text(20) },
  { requiredKeys: ['text'] },
);
const words = fc.array(fc.record({ as: fc.constantFrom('text', 'item'), parts: fc.array(part, { maxLength: 4 }) }), { maxLength: 3 });
const line = fc.record({ id: fc.constantFrom('c', 'd'), at: moment, text: text(600) });
const piece = fc.record(
  {
    ...{ schema: fc.constant(3), id: fc.constantFrom('w'), name: text(80), at: moment, runs: ids('r', 's'), lent: text(1000) },
    blocks: fc.array(fc.record({ id: fc.constantFrom(...BLOCKS.map(({ id }) => id)), title: text(120), words, made: text(200) }), {
      maxLength: 4,
    }),
    ...{ published: fc.record({ at: moment, text: text(200) }), corrections: fc.array(line, { maxLength: 2 }) },
    told: fc.array(fc.record({ key: text(40), of: text(80), says: text(80) }), { maxLength: 3 }),
  },
  { requiredKeys: ['schema', 'id', 'name', 'at', 'runs', 'blocks'] },
);

const wild = fc.constantFrom(0, 9e15, -1, 1e-9, 'late', '', '\ud800', null);
const mostly = (...fit: unknown[]) => fc.oneof({ weight: 12, arbitrary: fc.constantFrom(...fit) }, { weight: 1, arbitrary: wild });
const settings = fc.record(
  {
    ...{
      projectTo: mostly(0, 50, 100),
      projectFrom: mostly(0, 40),
      zeroesCounter: fc.boolean(),
      levels: mostly([], [37, 79.6], [0, 100]),
      marks: mostly([], [600, 1e6]),
      watts: mostly(0.5, 5000),
    },
    ...{ countFrom: mostly('plug-in', 'boot', 20), scale: mostly('°C', '°F'), decimal: mostly('.', ','), dates: mostly('day', 'year') },
    ...{ spread: mostly(0.005, 0.03, 0.2), realUse: mostly(0.05, 1), currency: mostly('', '€', '<b>'), quietFrom: mostly('', '22:00') },
  },
  { requiredKeys: [] },
);

/** What a logbook holds beside runs, as wild as files have it: some of it no schema lets in. For tests. */
export const WILD_BOOKS = { study, method, comparison, piece, settings, gear };
