import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { headlineOf, judge, questionOf } from './advise';
import { SCHEMAS } from './bench';
import {
  aheadOf,
  columnsOf,
  compareRuns,
  compatibility,
  gainUnitsOf,
  matrixOf,
  measuresOf,
  namesOf,
  setupsOf,
  standingsOf,
  unlikeIn,
  workingOf,
  writeDifference,
  writeTried,
  yardsticksOf,
} from './compare';
import {
  LEVELS,
  type ReadRun,
  figuresOf,
  isHot,
  notices,
  readRun,
  splitInWords,
  summarise,
  watchNotices,
  workloads,
  writeFigures,
} from './curve';
import { entryMisfit, readCsv, runFromCsv, writeCompatibility, writeCsv } from './exchange';
import {
  EVENTS,
  type Entry,
  type Header,
  RUN_ENDING_IDS,
  SCHEMA,
  TRIAL_STATES,
  chargingTime,
  correctionSays,
  elapsedAt,
  entriesSchema,
  foldMore,
  foldRun,
  headerSchema,
} from './ink';
import { explain, negotiate } from './power';
import { QUANTITIES, type Quantity } from './quantity';
import { assessLine, decidedAt, dueOf, expectedRun, forecasts, ghostOf, missing, newsOf, stopOffer, worthReading, writeGhost } from './run';
import { expectedCharge } from './simulate';
import { entrySchema } from './ink/entry';
import { misfit } from './exchange/fits';
import { isPlainReading } from './ink/plainReading';
import { quantityOf } from './quantity/quantity';
import { toTick } from './ink/ranges';

/** A third with every test; `npm run thorough` draws all. */
const drawn = (whole: number) => (process.env.THOROUGH ? whole : whole / 3);

/** What the schemas let in, as wild as they let it in: the figures of such a run may say little, but they are always said. */
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

let made = 0;
const entryMisfits = (entries: readonly Entry[]) => entries.flatMap((each) => entryMisfit(each) ?? []);

/** No word of a figure is a slip of the program. */
const PLAIN = /NaN|Infinity|undefined|null|\[object/;
const said = (what: unknown): string =>
  JSON.stringify(what, (key, each: unknown) =>
    ['id', 'header', 'run', 'note', 'remark', 'entries'].includes(key)
      ? undefined
      : typeof each === 'string'
        ? each
        : Array.isArray(each) || (typeof each === 'object' && each !== null)
          ? each
          : 0,
  );

it('is quick about plain readings, and never lets one in that the schema would not', () => {
  const loose = fc.oneof(
    value('watts'),
    fc.constantFrom(Number.NaN, Infinity, -1e9, 130, '5' as unknown as number, undefined as unknown as number),
  );
  const any = fc.record(
    {
      kind: fc.constantFrom('reading', 'note'),
      id: fc.oneof(id, fc.constantFrom('abcdefghij', 'a/bcdefghij', '')),
      seq: fc.constantFrom(1, 0, 1.5),
      at: moment,
      written: moment,
      percent: loose,
      watts: loose,
      note: text,
      sure: fc.constantFrom(true, false),
      colour: fc.constant('red'),
    },
    { requiredKeys: ['kind', 'id', 'seq', 'at', 'written'] },
  );
  fc.assert(
    fc.property(any, (each) => {
      if (isPlainReading(each as Entry)) expect(misfit(entrySchema, each)).toBeUndefined();
    }),
    { numRuns: 1000 },
  );
  expect(isPlainReading({ kind: 'reading', id: 'abcdefghij', seq: 1, at: BEGINS, written: BEGINS, percent: 42, watts: -3 })).toBe(true);
});

describe('any run that the schemas let in', () => {
  const runs = fc.array(run, { minLength: 1, maxLength: 3 });

  it('has every figure, notice and answer of a live run', () => {
    fc.assert(
      fc.property(run, moment, ({ header: head, entries, samples: streamed }, now) => {
        const record = foldRun(head, entries, streamed);
        const elapsed = elapsedAt(record, now);
        expect(said(writeFigures(figuresOf(record)))).not.toMatch(PLAIN);
        notices(record);
        watchNotices(record);
        isHot(record);
        expect(said(summarise(record))).not.toMatch(PLAIN);
        expect(said(workloads(record).map(splitInWords))).not.toMatch(PLAIN);
        expect(said(record.corrections.map((each) => correctionSays(each, each.before)))).not.toMatch(PLAIN);
        expect(
          said(compatibility(record).flatMap((row) => TRIAL_STATES.flatMap((state) => (row[state] ? writeTried(row[state]) : [])))),
        ).not.toMatch(PLAIN);
        writeCompatibility([{ device: 'A', rows: compatibility(record) }]);
        // Its own CSV is read back, whatever stands in it.
        const back = runFromCsv(readCsv(writeCsv(record, streamed), 'run.csv'), record.header, () => `b${(made += 1)}`, 0);
        expect(entryMisfits(back.entries)).toEqual([]);
        dueOf(record, now);
        decidedAt(record, elapsed);
        stopOffer(record, elapsed);
        expect(said(missing(record, elapsed))).not.toMatch(PLAIN);
        newsOf([record]);
        chargingTime(record, elapsed);
        assessLine({ percent: 50, watts: 3 }, record, now);
      }),
      { numRuns: drawn(300) },
    );
  });

  it('is folded alike, entry by entry and whole', () => {
    let quick = 0;
    fc.assert(
      fc.property(run, ({ header: head, entries }) => {
        const ink: Entry[] = [];
        let record = foldRun(head, ink);
        for (const entry of entries) {
          ink.push(entry);
          const more = foldMore(record, ink);
          record = foldRun(head, ink);
          if (!more) continue;
          quick += 1;
          expect(more).toEqual(record);
          record = more;
        }
      }),
      { numRuns: drawn(600) },
    );
    expect(quick).toBeGreaterThan(drawn(600) / 3);
  });

  it('is compared, judged, forecast and expected', () => {
    fc.assert(
      fc.property(runs, fc.constantFrom(...LEVELS), (all, at) => {
        const records = all.map(({ header: head, entries, samples: streamed }) => foldRun(head, entries, streamed));
        const read = records.map((record) => readRun(record));
        const rows = compareRuns(read, records[0]?.header.id ?? '', at);
        const [setups, names] = [setupsOf(read), namesOf(rows)];
        expect(said([unlikeIn(setups, names), names])).not.toMatch(PLAIN);
        const question = questionOf(
          records.map((record, index) => ({ ...(read[index] as ReadRun), workloads: workloads(record), percent: record.tracks.percent })),
          { devices: [], chargers: [], cables: [] },
        );
        expect(said(judge(question))).not.toMatch(PLAIN);
        const columns = columnsOf(setups, question.unit, { from: 0, to: at });
        for (const { id } of yardsticksOf(columns.map(({ measure }) => measure)))
          expect(
            said([
              headlineOf(question, { yardstick: id }),
              standingsOf(
                rows,
                names,
                0,
                columns.find(({ measure }) => measure.id === id),
              ),
            ]),
          ).not.toMatch(PLAIN);
        for (const unit of gainUnitsOf(read))
          for (const measure of measuresOf(read, unit)) {
            const cells = measure.compare(setups);
            const [zero] = cells;
            const told = cells.map((cell) => [cell.value, cell.range, zero && writeDifference(cell, zero, measure.unit)]);
            expect(
              said([told, cells.map((_, index) => workingOf(cells, index, names, measure)), matrixOf(setups, measure).sources]),
            ).not.toMatch(PLAIN);
          }
        const levels = records.map(({ tracks }) => tracks.percent);
        for (const { value, margin } of aheadOf(levels.slice(0, 1), levels.slice(1)))
          expect(Number.isFinite(value) && margin >= 0).toBe(true);
        for (const record of records) {
          const coming = forecasts(record, [], LEVELS);
          for (const { low, high = low } of coming) expect(Number.isFinite(low) && Number.isFinite(high) && low <= high).toBe(true);
          worthReading(record, coming, 900, 800);
          expectedRun(record);
          const ghost = ghostOf(record, (records[0] ?? record).tracks.percent);
          if (ghost) expect(writeGhost(ghost)).not.toMatch(PLAIN);
        }
      }),
      { numRuns: drawn(150) },
    );
  });

  it('is expected of any gear that the shelf takes', () => {
    fc.assert(
      fc.property(device, charger, (one, other) => {
        const [on, by] = [SCHEMAS.device.validateSync(one), SCHEMAS.charger.validateSync(other)];
        const outcome = negotiate({ device: on, charger: by });
        explain(outcome);
        expectedCharge(outcome, 3);
      }),
      { numRuns: drawn(150) },
    );
  });
});
