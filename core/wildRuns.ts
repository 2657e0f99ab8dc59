import fc from 'fast-check';
import { EVENTS, entriesSchema, headerSchema, RUN_ENDING_IDS, SCHEMA, type Entry, type Header } from './ink';
import { toTick } from './ink/ranges';
import { QUANTITIES, type Quantity } from './quantity';
import { quantityOf } from './quantity/quantity';

const BEGINS = Date.UTC(2026, 9, 5, 14, 2);
const LAST_MOMENT = Date.UTC(2200, 0, 1) - 1;

/** Moments around the run, at its very plug-in, before it, and at either end of time. */
const moment = fc.oneof(
  { weight: 8, arbitrary: fc.integer({ min: 0, max: 40_000 }).map((seconds) => BEGINS + seconds * 1000) },
  { weight: 2, arbitrary: fc.integer({ min: -600, max: 600 }).map((seconds) => BEGINS + seconds * 1000) },
  { weight: 1, arbitrary: fc.constantFrom(BEGINS, 0, LAST_MOMENT) },
);
const text = fc.oneof(
  fc.string({ minLength: 1, maxLength: 20 }),
  fc.constantFrom('<b>', '=1+1', '\ud800', ' ', '\t=1', '\r+1', 'a\0b', 'x"\n;,y'),
);
const id = fc.constantFrom('a', 'b', 'c', 'e1', 'e2', 'e3', 'e5', 'e8');

const value = (quantity: Quantity) => {
  const { min, max } = quantityOf(quantity);
  const usual = quantity === 'percent' ? fc.integer({ min: 0, max: 100 }) : fc.double({ min: 0, max: 30, noNaN: true });
  return fc.oneof(
    { weight: 6, arbitrary: usual },
    { weight: 1, arbitrary: fc.double({ min: min, max: max, noNaN: true }) },
    fc.constantFrom(0, min, max, 79.6),
  );
};
const values = Object.fromEntries(QUANTITIES.map((quantity) => [quantity, value(quantity)])) as Record<Quantity, fc.Arbitrary<number>>;

const device = fc.record(
  {
    id: fc.constantFrom('a', 'b'),
    name: fc.constantFrom('A', 'B'),
    kind: fc.constantFrom('phone', 'laptop', 'camera', 'power bank'),
    wattHours: fc.oneof(fc.double({ min: 1, max: 100, noNaN: true }), fc.constantFrom(1e-6, 5000)),
    health: fc.constantFrom(1e-6, 80, 110),
    inputLimit: fc.constantFrom(1e-6, 5, 25, 1000),
    leastWatts: fc.constant(1e-6),
    awakeWatts: fc.constantFrom(3, 500),
    display: fc.constantFrom('percent', 'light', 'nothing'),
    deliveryVolts: fc.constantFrom(5, 9, 20, 48),
    programmableVolts: fc.constantFrom(1e-6, 11, 21),
  },
  { requiredKeys: ['id', 'name', 'kind'] },
);
const charger = fc.record(
  {
    id: fc.constantFrom('c', 'd'),
    name: fc.constantFrom('C', 'D'),
    kind: fc.constantFrom('adapter', 'pad', 'power bank', 'computer'),
    watts: fc.oneof(fc.double({ min: 1, max: 100, noNaN: true }), fc.constantFrom(1e-6, 1000)),
    ports: fc.array(
      fc.record({
        name: fc.constantFrom('1', '2'),
        connector: fc.constantFrom('USB-C', 'USB-A', 'pad', 'DC barrel'),
        label: fc.constantFrom('5V⎓3A 9V⎓3A', '0V⎓0A', 'PPS 3.3-11V⎓3A', '15W 5W', '???', ''),
      }),
      { maxLength: 1 },
    ),
  },
  { requiredKeys: ['id', 'name', 'kind', 'watts'] },
);
const link = { charger, port: fc.constantFrom(0, 99) };
const source = fc.record(
  { ...link, feed: fc.record(link, { requiredKeys: ['charger'] }), held: value('volts') },
  { requiredKeys: ['charger'] },
);
const cadence = fc.oneof(
  fc.constant(undefined),
  fc.record({ kind: fc.constant('fixed'), every: fc.constantFrom(30, 300, 43_200) }),
  fc.record(
    { kind: fc.constant('marks'), at: fc.constantFrom([300, 600], [30], [7e9]), then: fc.constantFrom(30, 900) },
    { requiredKeys: ['kind', 'at'] },
  ),
  fc.record({
    kind: fc.constant('coarse then fine'),
    every: fc.constant(600),
    level: fc.constantFrom(1, 90),
    then: fc.constantFrom(30, 300),
  }),
  fc.constantFrom({ kind: 'sampled', every: 0.001 }, { kind: 'spot', settle: 60 }),
);
const rule = fc.record({
  ends: fc.constantFrom('full', 'power', 'window', 'list'),
  wants: fc.subarray(['level', 'watts', 'watt-hours', 'temperature', 'battery watts', 'level at both ends']),
  stall: fc.constantFrom(300, 86_400),
  hot: fc.constantFrom(25, 60),
});
const header = fc.record(
  {
    device,
    charger,
    cadence,
    rule,
    port: fc.constantFrom(0, 3),
    feed: fc.record(link, { requiredKeys: ['charger'] }),
    method: fc.constantFrom('load-test', 'consumption'),
    plugInAt: fc.constantFrom(BEGINS, BEGINS, BEGINS, 0, LAST_MOMENT),
    group: fc.constantFrom('g'),
  },
  { requiredKeys: ['device', 'charger', 'plugInAt'] },
);

const reading = fc.record(
  { kind: fc.constant('reading'), ...values, paper: fc.constant(true), direction: fc.constantFrom('in', 'out'), note: text },
  { requiredKeys: ['kind'] },
);
const level = fc.record(
  { kind: fc.constant('reading'), percent: fc.double({ min: 0, max: 100, noNaN: true }), watts: values.watts },
  { requiredKeys: ['kind', 'percent'] },
);
/** What an event carries beside its remark: each its own. */
const CARRIED: Readonly<Record<string, Record<string, fc.Arbitrary<unknown>>>> = {
  swapped: { source },
  away: { until: moment },
  clock: { shift: fc.oneof(fc.integer({ min: -4_000_000, max: 4_000_000 }), fc.constantFrom(-LAST_MOMENT, LAST_MOMENT)) },
  'work ended': {
    scores: fc.array(
      fc.record({
        name: fc.constant('s'),
        value: fc.constantFrom(-1e15, 0, 12),
        unit: fc.constant(''),
        better: fc.constantFrom('more', 'less'),
      }),
      { maxLength: 2 },
    ),
  },
};
const happened = (event: string) =>
  fc.record(
    { kind: fc.constant('event'), event: fc.constant(event), remark: text, ...CARRIED[event] },
    { requiredKeys: ['kind', 'event'] },
  );

const entry = fc.oneof(
  { weight: 6, arbitrary: level },
  { weight: 3, arbitrary: reading },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('note'), text }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('strike'), target: id, reason: text }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('picture'), picture: id, target: id }) },
  {
    weight: 3,
    arbitrary: fc.constantFrom(...EVENTS.map((each) => each.id)).chain(happened),
  },
  {
    weight: 1,
    arbitrary: fc.record(
      {
        kind: fc.constant('trial'),
        source,
        state: fc.constantFrom('awake', 'asleep', 'off'),
        status: fc.constantFrom('fast', 'charges', 'holds', 'refuses', 'not charging'),
        wattsOut: values.watts,
        voltsBefore: values.volts,
        chimes: fc.constantFrom(0, 99),
        percent: values.percent,
        volts: values.volts,
        amps: values.amps,
        confirms: id,
      },
      { requiredKeys: ['kind', 'source', 'state', 'status'] },
    ),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('label'), tags: fc.constantFrom([], ['a', 'b']), text: fc.constant('') }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('discard') }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('list'), sources: fc.array(source, { maxLength: 3 }) }) },
  {
    weight: 1,
    arbitrary: fc
      .oneof(
        fc.record({ shelf: fc.constant('device'), gear: device, was: fc.constantFrom('a', 'b') }),
        fc.record({ shelf: fc.constant('charger'), gear: charger, was: fc.constantFrom('c', 'd') }),
      )
      .map((each) => ({ kind: 'correction', ...each })),
  },
  {
    weight: 1,
    arbitrary: fc.record(
      { kind: fc.constant('stop'), because: fc.constantFrom(...RUN_ENDING_IDS), remark: text },
      { requiredKeys: ['kind', 'because'] },
    ),
  },
);
/** Times of samples, as every door makes them. */
const sampled = fc.oneof(fc.integer({ min: 0, max: 9 }), fc.double({ min: 0, max: 90_000, noNaN: true })).map(toTick);
const samples = fc.record(
  Object.fromEntries(
    QUANTITIES.map((quantity) => [
      quantity,
      fc
        .array(fc.tuple(sampled, values[quantity]), {
          maxLength: 12,
        })
        .map((rows) => {
          const sorted = rows.sort((one, other) => one[0] - other[0]);
          return { seconds: Float64Array.from(sorted, ([seconds]) => seconds), values: Float64Array.from(sorted, ([, each]) => each) };
        }),
    ]),
  ),
  { requiredKeys: [] },
);

const run = fc
  .tuple(header, fc.array(fc.tuple(entry, moment, moment), { maxLength: 14 }), fc.option(samples, { nil: {} }), fc.nat({ max: 1 }))
  .map(([head, rows, streamed, which]) => {
    const entries = rows.map(([each, at, written], index) => ({ ...each, at, written, seq: index + 1, id: `e${index + 1}` }));
    const full = { schema: SCHEMA, id: `run-${which}`, pen: 0, ...head };
    return {
      header: headerSchema.validateSync(full, { strict: true }) as Header,
      entries: entriesSchema.validateSync(entries, { strict: true }) as Entry[],
      samples: streamed,
    };
  });

/**
 * Runs as wild as the schemas let them in, and what they are made of; for tests. The figures of such a run may say little, but they are always said.
 */
export const WILD_RUNS = { run, device, charger, value, moment, text, id, BEGINS, LAST_MOMENT };
