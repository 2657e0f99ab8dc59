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
import { type Entry, TRIAL_STATES, chargingTime, correctionSays, elapsedAt, foldMore, foldRun } from './ink';
import { explain, negotiate } from './power';
import { assessLine, decidedAt, dueOf, expectedRun, forecasts, ghostOf, missing, newsOf, stopOffer, worthReading, writeGhost } from './run';
import { expectedCharge } from './simulate';
import { entrySchema } from './ink/entry';
import { misfit } from './exchange/fits';
import { isPlainReading } from './ink/plainReading';
import { WILD_RUNS } from './wildRuns';

/** A third with every test; `npm run thorough` draws all. */
const drawn = (whole: number) => (process.env.THOROUGH ? whole : whole / 3);

let made = 0;
const { run, device, charger, value, moment, text, id, BEGINS } = WILD_RUNS;

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
