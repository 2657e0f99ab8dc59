import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleHeader } from '../ink/example';
import type { Entry } from '../ink/entry';
import { SCHEMA } from '../ink/version';
import { foldRun } from '../ink/fold';
import { inkOf } from '../ink/build';
import { joinInk } from './joinInk';
import { writeLogbook, type Logbook } from './logbook';
import { readLogbook } from './readLogbook';
import { migrate } from './migrate';

const header = exampleHeader();
const logbook = (changes: Partial<Logbook> = {}): Logbook => ({
  format: 'inkpath-logbook',
  schema: SCHEMA,
  exportedAt: '2026-10-05T16:00:00.000Z',
  devices: [header.device],
  chargers: [header.charger],
  cables: [{ id: 'l1', name: 'short', chargerEnd: 'USB-C', deviceEnd: 'USB-C', marker: '5 A' }],
  meters: [],
  methods: [],
  studies: [],
  comparisons: [],
  pieces: [],
  remembered: [],
  runs: [
    {
      header,
      entries: inkOf(header, [
        { seconds: 0, percent: 2 },
        { seconds: 300, percent: 9, watts: 18.4 },
      ]),
    },
  ],
  ...changes,
});
const changed = (change: (raw: { schema: unknown; runs: { entries: Record<string, unknown>[] }[] } & Record<string, unknown>) => void) => {
  const raw = JSON.parse(writeLogbook(logbook())) as Parameters<typeof change>[0];
  change(raw);
  return () => readLogbook(JSON.stringify(raw), 'van.json');
};

it('comes back from JSON as it went in', () => {
  const mark = { at: fc.integer({ min: 0, max: 2e12 }), written: fc.integer({ min: 0, max: 2e12 }) };
  const size = fc.double({ min: -5000, max: 5000, noNaN: true }).map((value) => value + 0);
  const entry = fc.oneof(
    fc.record(
      {
        ...mark,
        kind: fc.constant('reading'),
        percent: fc.integer({ min: 0, max: 100 }),
        watts: size,
        celsius: fc.double({ min: -40, max: 90, noNaN: true }).map((value) => value + 0),
        note: fc.string({ minLength: 1 }),
        sure: fc.constant(true),
      },
      { requiredKeys: ['at', 'written', 'kind'] },
    ),
    fc.record({
      ...mark,
      kind: fc.constant('strike'),
      target: fc.stringMatching(/^[A-Za-z0-9-]{1,40}$/),
      reason: fc.string({ minLength: 1 }),
    }),
    fc.record({ ...mark, kind: fc.constant('note'), text: fc.string({ minLength: 1 }) }),
    fc.record({ ...mark, kind: fc.constant('stop'), because: fc.constantFrom('full', 'other') }),
  );
  const samples = fc.option(
    fc
      .array(size, { minLength: 1 })
      .map((values) => ({ watts: { seconds: Float64Array.from(values.keys()), values: Float64Array.from(values) } })),
    { nil: undefined },
  );
  fc.assert(
    fc.property(fc.array(entry, { maxLength: 8 }), samples, fc.string({ minLength: 1, maxLength: 40 }), (ink, streamed, name) => {
      const entries = ink.map((each, index) => ({ ...each, seq: index + 1, id: `e${index}` })) as Entry[];
      const device = { ...header.device, name: name.trim() || 'x' };
      const given = logbook({
        devices: [device],
        runs: [{ header: { ...header, device }, entries, ...(streamed && { samples: streamed }) }],
      });
      expect(readLogbook(writeLogbook(given), 'van.json')).toEqual(given);
    }),
  );
});

it('keeps saved comparisons, refuses one that is none, and reads a logbook from before there were any', () => {
  const edits = [{ need: 'to-80', text: 'Take it.', made: 'A: 50 min\n' }];
  const comparisons = [{ schema: SCHEMA, id: 'k1', name: 'Vans', at: 5, runs: ['a', 'b'], base: 'a', edits }];
  const read = (changes: object) =>
    readLogbook(JSON.stringify({ ...JSON.parse(writeLogbook(logbook({ comparisons }))), ...changes }), 'book.json');
  expect(read({}).comparisons).toEqual(comparisons);
  expect(read({ comparisons: undefined }).comparisons).toEqual([]);
  expect(() => read({ comparisons: [{ ...comparisons[0], runs: ['a'] }] })).toThrow(/at comparisons\[0\]\.runs/);
});

it('keeps pictures, trials, footage, rules and times away, and refuses what is no picture', () => {
  const mark = (seq: number) => ({ seq, id: `k${seq}`, at: header.plugInAt + seq * 1000, written: header.plugInAt });
  const source = { charger: header.charger };
  const entries: Entry[] = [
    { ...mark(1), kind: 'reading', percent: 4, clip: 12 },
    { ...mark(2), kind: 'picture', picture: 'p1', target: 'k1' },
    { ...mark(3), kind: 'trial', source, state: 'awake', status: 'holds', percent: 47, chime: true, meter: false },
    { ...mark(4), kind: 'trial', source, state: 'awake', status: 'holds', percent: 46, confirms: 'k3' },
    { ...mark(5), kind: 'event', event: 'away', until: header.plugInAt + 9000 },
    { ...mark(6), kind: 'event', event: 'clock', shift: -3_600_000 },
    { ...mark(7), kind: 'stop', because: 'power died away' },
  ];
  const rich = {
    ...header,
    rule: { ends: 'power' as const, wants: ['level' as const] },
    footage: { offset: 2, speed: 60, cuts: [{ at: 20, missing: 600 }] },
    list: ['cobble'],
  };
  const given = logbook({ runs: [{ header: rich, entries }], pictures: { p1: 'data:image/jpeg;base64,/9j/4AAQ' } });
  expect(readLogbook(writeLogbook(given), 'van.json')).toEqual(given);
  for (const address of ['https://elsewhere/a.jpg', 'data:text/html;base64,PGI+', 'data:image/svg+xml;base64,PHN2Zz4='])
    expect(() => readLogbook(writeLogbook(logbook({ pictures: { p1: address } })), 'van.json')).toThrow(/is not a picture/);
});

describe('a logbook that cannot be read', () => {
  it.each([
    ['', /van.json is empty/],
    ['time,watts', /van.json is not JSON/],
    ['{"schema":1,"runs":[', /not JSON, or was cut off/],
    ['{"hello":1}', /does not say which schema/],
    ['{"schema":1,"format":"other"}', /JSON, but not a logbook/],
    ['null', /not JSON, or was cut off/],
  ])('%j', (text, sentence) => expect(() => readLogbook(text, 'van.json')).toThrow(sentence));

  it('names the place that does not fit', () => {
    expect(changed((raw) => Object.assign(raw.runs[0]?.entries[1] ?? {}, { percent: 130 }))).toThrow(/runs\[0\].entries\[1\].percent/);
    expect(changed((raw) => Object.assign(raw.runs[0]?.entries[1] ?? {}, { percent: '9' }))).toThrow(/percent/);
    expect(changed((raw) => Object.assign(raw.runs[0]?.entries[1] ?? {}, { kind: 'guess' }))).toThrow(/entries\[1\]/);
    expect(changed((raw) => raw.runs.push(raw.runs[0] as never))).toThrow(/holds run run-1 twice/);
    expect(changed((raw) => raw.runs[0]?.entries.push(raw.runs[0].entries[0] as never))).toThrow(
      /entries\[2\]: it has the id of another entry/,
    );
  });

  it('is told from one of a newer program', () => {
    expect(changed((raw) => (raw.schema = 7))).toThrow(/newer Inkpath Log \(schema 7; this one reads up to 3\)/);
  });
});

describe('schemas over the years', () => {
  it('still reads a logbook of schema 1', () => {
    const old = readLogbook(readFileSync(new URL('fixtures/logbook-1.json', import.meta.url), 'utf8'), 'logbook-1.json');
    const run = old.runs.map(({ header: kept, entries, samples }) => foldRun(kept, entries, samples))[0];
    expect(run?.readings.map(({ reading }) => reading.percent)).toEqual([2, 9, 17]);
    expect(run?.struck).toHaveLength(1);
    expect(run?.stop?.because).toBe('window over');
  });

  it('gives a charger of schema 1 a port with its label, on the shelf, in headers and in packed runs', () => {
    const label = '5V⎓3A 9V⎓2.22A';
    const ports = [{ connector: 'USB-C', label }];
    const old = readLogbook(readFileSync(new URL('fixtures/logbook-1.json', import.meta.url), 'utf8'), 'logbook-1.json');
    expect([old.chargers[0]?.ports, old.runs[0]?.header.charger.ports, old.cables]).toEqual([ports, ports, []]);
    const kept = migrate({ schema: 1, shelf: 'charger', gear: { id: 'p', kind: 'pad', label: '15W' } }, 'gear');
    expect(kept.gear).toEqual({ id: 'p', kind: 'pad', ports: [{ connector: 'pad', label: '15W' }] });
    const header1 = { schema: 1, id: 'r', charger: { id: 'c', kind: 'adapter', label } };
    expect(migrate(header1, 'a run').charger).toMatchObject({ ports });
    expect(migrate({ schema: 1, header: header1, entries: [] }, 'a run').header).toMatchObject({ schema: 3, charger: { ports } });
  });

  it('still reads a logbook of schema 2', () => {
    const book = readLogbook(readFileSync(new URL('fixtures/logbook-2.json', import.meta.url), 'utf8'), 'logbook-2.json');
    expect(book.chargers[0]?.ports?.[0]?.probed).toBe('5V⎓3A 9V⎓2A');
    expect(book.runs[0]?.header.cable?.marker).toBe('5 A');
    expect(book.meters[0]?.interval).toBe(1);
    expect(book.studies[0]).toMatchObject({ meters: [], races: false });
    expect(book.methods).toEqual([]);
    const gear = { schema: 2, shelf: 'meter', gear: { id: 'm' } };
    expect(migrate(gear, 'gear')).toEqual({ ...gear, schema: 3 });
  });

  it('still reads a logbook of schema 3, with methods of one’s own and a calendar', () => {
    const book = readLogbook(readFileSync(new URL('fixtures/logbook-3.json', import.meta.url), 'utf8'), 'logbook-3.json');
    expect(book.methods[0]?.cadence).toEqual({ kind: 'fixed', every: 180 });
    expect(book.studies[0]?.calendar?.hours[0]).toEqual({ day: 1, from: 540, to: 1020 });
    expect(migrate({ schema: 2, id: 's', repeats: 1 }, 'a study')).toEqual({ schema: 3, id: 's', repeats: 1, meters: [], races: false });
  });

  it('raises an old value one schema at a time', () => {
    const steps = { 1: (old: object) => ({ ...old, schema: 2, two: true }), 2: (old: object) => ({ ...old, schema: 3, three: true }) };
    expect(migrate({ schema: 1 }, 'old.json', steps, 3)).toEqual({ schema: 3, two: true, three: true });
    expect(() => migrate({ schema: 0 }, 'old.json', steps, 3)).toThrow(/never in use/);
  });
});

it('joins two copies of a run, and refuses copies that contradict each other', () => {
  const ink = inkOf(header, [
    { seconds: 0, percent: 2 },
    { seconds: 300, percent: 9 },
  ]);
  const [first, second] = ink;
  if (!first || !second) throw new Error('two entries');
  const later = { ...second, id: 'other', seq: 2 };
  expect(joinInk([first, second], [first, later], 'run').map(({ id }) => id)).toEqual(['run-1-1', 'other', 'run-1-2']);
  expect(() => joinInk(ink, [{ ...first, percent: 3 } as Entry], 'run')).toThrow(/differs from the one already here/);
});
