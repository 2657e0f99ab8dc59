import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { comparisonSchema } from './compare';
import { BLOCKS, pieceSchema } from './report';
import { logbookOf, readLogbook, settingsFit, writeAgenda, writeICalendar, writeLogbook, NOTHING_ELSE, type Rest } from './exchange';
import { misfit } from './exchange/fits';
import { ownMethodSchema, SCHOOLS, writeCadence } from './method';
import {
  agendaOf,
  cheapestChange,
  costOf,
  gearNames,
  schedule,
  nextRace,
  nextRun,
  oneAfterAnother,
  powerTelling,
  progressOf,
  studySetupsOf,
  studySchema,
  tallyOf,
  tellings,
  type Study,
} from './plan';

/**
 * What the schemas let in of studies, their calendars and notes, methods, comparisons and settings, as wild as they let it in: every page of it can be
 * opened, and all of it goes out and comes back.
 */
const LAST_MOMENT = Date.UTC(2200, 0, 1) - 1;
const drawn = (whole: number) => (process.env.THOROUGH ? whole : whole / 5);

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
  meters: [{ id: 'w', name: 'W', kind: 'in-line' as const }],
};

/** What the pages of a study show: its matrix, what it costs and tells, what comes next, its calendar, and what goes out of it. */
function pagesOf(one: Study): string {
  const at = Date.UTC(2026, 10, 30) / 1000;
  const setups = studySetupsOf(one, gear);
  const lay = schedule(one, setups, gear, [], at);
  const placed = lay.obstacles.length === 0 ? (oneAfterAnother(lay) ?? []) : [];
  const agenda = agendaOf(lay, placed);
  return JSON.stringify([
    progressOf(one, []),
    costOf(one, setups),
    tellings(one, setups, [80, 100]),
    powerTelling(one, setups, gear.meters),
    cheapestChange(one, setups, 80, 300),
    nextRun(one, []),
    nextRace(one, [], gear),
    writeCadence(one.cadence),
    lay.notes,
    lay.obstacles,
    tallyOf(placed, lay.problem),
    writeICalendar(one, agenda, gear),
    writeAgenda(one, agenda, gear),
    gearNames(gear),
    ...(one.notes ?? []).map((note) => new Date(note.at).toISOString()),
  ]);
}

/** It goes out and comes back as it was. */
function expectBack(rest: Partial<Rest>): void {
  const book = logbookOf(rest);
  const text = writeLogbook(book);
  expect(JSON.parse(writeLogbook(readLogbook(text, 'van.json')))).toEqual(JSON.parse(text));
}

describe('whatever the schemas let in', () => {
  it('of studies is planned, laid into days, and goes out and comes back', () => {
    let taken = 0;
    fc.assert(
      fc.property(study, (one) => {
        const plain = JSON.parse(JSON.stringify(one)) as Study;
        if (misfit(studySchema, plain)) return;
        taken += 1;
        expect(pagesOf(plain)).not.toMatch(/Invalid|NaN|undefined/);
        expectBack({ studies: [plain] });
      }),
      { numRuns: drawn(1000) },
    );
    expect(taken).toBeGreaterThan(drawn(1000) / 20);
  });

  it('of methods, comparisons and pieces goes out and comes back', () => {
    const method = fc.record({
      ...{ id: fc.constantFrom('m', 'm2'), name: text(80), start: text(120), cadence, records: text(160), stops: text(120) },
      ...{ goodFor: text(160), weakAt: text(160), conditions, startLevel: fc.constantFrom(undefined, 0, 100, 101) },
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
    const written = fc.record(
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
    let taken = 0;
    let pieced = 0;
    fc.assert(
      fc.property(method, comparison, written, (one, other, third) => {
        const [methods, comparisons, pieces] = JSON.parse(JSON.stringify([[one], [other], [third]])) as [
          Rest['methods'],
          Rest['comparisons'],
          Rest['pieces'],
        ];
        const fit = {
          methods: methods.filter((each) => !misfit(ownMethodSchema, each)),
          comparisons: comparisons.filter((each) => !misfit(comparisonSchema, each)),
          pieces: pieces.filter((each) => !misfit(pieceSchema, each)),
        };
        taken += fit.methods.length + fit.comparisons.length;
        pieced += fit.pieces.length;
        for (const { at } of fit.comparisons) expect(new Date(at).toISOString()).toMatch(/^(19|20|21)/);
        for (const { cadence: own } of [...fit.methods, ...SCHOOLS]) expect(JSON.stringify(writeCadence(own))).not.toContain('NaN');
        expectBack(fit);
      }),
      { numRuns: drawn(1000) },
    );
    expect(taken).toBeGreaterThan(drawn(1000) / 20);
    expect(pieced).toBeGreaterThan(drawn(1000) / 20);
  });

  it('of settings goes out and comes back; those that no file may hold are left out and stop nothing', () => {
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
    let taken = 0;
    fc.assert(
      fc.property(settings, (one) => {
        const rest = settingsFit({ ...NOTHING_ELSE, settings: JSON.parse(JSON.stringify(one)) as Rest['settings'] });
        taken += rest.settings ? 1 : 0;
        expectBack(rest);
      }),
      { numRuns: drawn(2000) },
    );
    expect(taken).toBeGreaterThan(drawn(2000) / 20);
    expect(taken).toBeLessThan(drawn(2000));
  });

  it('no study is dated where no calendar reaches, and none is larger than a page can show', () => {
    const fits = (changes: object) => misfit(studySchema, { ...base, ...changes });
    const [base] = fc
      .sample(
        study.filter((one) => !misfit(studySchema, JSON.parse(JSON.stringify(one)))),
        { numRuns: 1, seed: 7 },
      )
      .map((one) => JSON.parse(JSON.stringify(one)) as Study);
    expect(fits({ notes: [{ at: 9e15, text: 'later' }] })).toMatchObject({ path: 'notes[0].at' });
    const many = (prefix: string) => Array.from({ length: 120 }, (_, index) => `${prefix}${index}`);
    expect(fits({ devices: many('d'), chargers: many('c') })?.says).toMatch(/more than can be planned/);
  });
});
