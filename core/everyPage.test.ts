import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { comparisonSchema } from './compare';
import { pieceSchema } from './report';
import { logbookOf, readLogbook, settingsFit, writeAgenda, writeICalendar, writeLogbook, NOTHING_ELSE, type Rest } from './exchange';
import { misfit } from './exchange/fits';
import { WILD_BOOKS } from './wildBooks';
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
const drawn = (whole: number) => (process.env.THOROUGH ? whole : whole / 8);

const { study, method, comparison, piece, settings, gear } = WILD_BOOKS;

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
    let taken = 0;
    let pieced = 0;
    fc.assert(
      fc.property(method, comparison, piece, (one, other, third) => {
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
