// First: it puts the database in place that the others look for as they load.
import { emptyBrowser } from '../ledger/testBrowser';
import fc from 'fast-check';
import { expect, it, vi } from 'vitest';
import { SCHEMAS, SHELVES } from '@core/bench';
import { comparisonSchema } from '@core/compare';
import { logbookOf, readLogbook, restOf, runMisfit, settingsFit, writeLogbook, type Rest, type StoredRun } from '@core/exchange';
import { ownMethodSchema } from '@core/method';
import { studySchema } from '@core/plan';
import { pieceSchema } from '@core/report';
import { misfit } from '../../core/exchange/fits';
import { WILD_BOOKS } from '../../core/wildBooks';
import { WILD_RUNS } from '../../core/wildRuns';
import { bytesIn } from '../kit/dataAddress';
import { incomingOf } from '../ledger/incoming';
import { bringIn } from '../logbook/bringIn';
import { writeLogbookFile } from './formats/logbook';
import { everythingElse } from './exportFile';
import { FileMaker } from './fileMaker';
import { exportSourceOf } from './source';
import { WHOLE } from './target';

vi.stubGlobal('matchMedia', () => ({ matches: false }));
vi.stubGlobal(
  'FileReader',
  class {
    onload = () => undefined;
    result = '';
    readAsDataURL(file: Blob): void {
      void file.arrayBuffer().then((bytes) => {
        this.result = `data:${file.type};base64,${Buffer.from(bytes).toString('base64')}`;
        this.onload();
      });
    }
  },
);

const { run, device, charger, text, id } = WILD_RUNS;
const { study, method, comparison, piece, settings, gear } = WILD_BOOKS;

/** Some of a kind, each with an id of its own, as a file has them; what its schema refuses is no part of a logbook. */
const some = (kind: fc.Arbitrary<unknown>, fits: (thing: unknown) => boolean) =>
  fc
    .uniqueArray(
      kind.map((each) => JSON.parse(JSON.stringify(each)) as { id: string }),
      { selector: (each) => each.id, maxLength: 2 },
    )
    .map((all) => all.filter(fits));
const by = (schema: Parameters<typeof misfit>[0]) => (thing: unknown) => !misfit(schema, thing);

const rest = fc.record({
  devices: some(device, by(SCHEMAS.device)),
  chargers: some(charger, by(SCHEMAS.charger)),
  cables: fc.subarray(gear.cables),
  meters: fc.subarray(gear.meters),
  methods: some(method, by(ownMethodSchema)),
  studies: some(study, by(studySchema)),
  comparisons: some(comparison, by(comparisonSchema)),
  pieces: some(piece, by(pieceSchema)),
  settings,
  remembered: fc.uniqueArray(
    fc.record({ heading: text, columns: fc.constantFrom(['volts:V', 'amps:A'], ['', 'watts:W']), headingRow: fc.nat({ max: 9 }) }),
    { selector: ({ heading }) => heading, maxLength: 2 },
  ),
});
/** A run as a file has it, some of them with a log that was laid into it later. */
const stored = fc.tuple(run, fc.boolean()).map(([{ header, entries, samples: drawn }, isLogged]): StoredRun => {
  // A column without a value is none.
  const samples = Object.fromEntries(Object.entries(drawn).filter(([, column]) => (column?.values.length ?? 0) > 0));
  const log = { kind: 'log' as const, log: 'l1', name: 'later.csv', zero: header.plugInAt, at: header.plugInAt, written: header.plugInAt };
  return {
    header,
    entries: isLogged ? [...entries, { ...log, seq: entries.length + 1, id: 'log1' }] : entries,
    ...(Object.keys(samples).length > 0 && { samples }),
    ...(isLogged && Object.keys(samples).length > 0 && { logs: { l1: samples } }),
  };
});
const runs = fc
  .uniqueArray(stored, { selector: ({ header }) => header.id, maxLength: 2 })
  .map((all) => all.filter((each) => !runMisfit(each)));
const pictures = fc.dictionary(
  id,
  fc.uint8Array({ minLength: 1, maxLength: 40 }).map((bytes) => `data:image/png;base64,${Buffer.from(bytes).toString('base64')}`),
  { maxKeys: 3 },
);

/** Brings a file into a logbook in which nothing is yet, and takes all of that out again. */
async function through(file: string): Promise<string> {
  await emptyBrowser();
  const book = readLogbook(file, 'book.json');
  const shots = Object.entries(book.pictures ?? {}).map(([name, address]): [string, Blob] => [
    name,
    new Blob([bytesIn(address)], { type: 'image/png' }),
  ]);
  await bringIn(restOf(book), incomingOf(book.runs, { pictures: shots }));
  const out = new FileMaker('application/json');
  const source = exportSourceOf(WHOLE, everythingElse, () => undefined);
  await writeLogbookFile(source, out);
  expect([source.aside, source.leftOut]).toEqual([[], []]);
  return out.end().text();
}

/** What is in a file, whatever the order of its lists, and whenever it was written. */
function heldIn(file: string): Record<string, unknown> {
  const held = { ...(JSON.parse(file) as Record<string, unknown>), exportedAt: '' };
  const nameOf = (thing: object) =>
    JSON.stringify('header' in thing ? (thing.header as { id: string }).id : 'id' in thing ? thing.id : thing);
  return Object.fromEntries(
    Object.entries(held).map(([key, value]) => [
      key,
      Array.isArray(value) ? (value as object[]).toSorted((one, other) => (nameOf(one) < nameOf(other) ? -1 : 1)) : value,
    ]),
  );
}

it('everything that a logbook may hold goes in, is stored, comes out, and is the same', async () => {
  const had = new Set<string>();
  await fc.assert(
    fc.asyncProperty(rest, runs, pictures, async (given, all, shots) => {
      const book = { ...logbookOf(settingsFit(given as unknown as Rest), all), ...(Object.keys(shots).length > 0 && { pictures: shots }) };
      const file = writeLogbook(book);
      const [first, held] = [await through(file), heldIn(file)];
      const { settings: chosen, ...out } = heldIn(first);
      const { settings: before, ...whole } = held;
      expect(out).toEqual(whole);
      expect(chosen).toMatchObject(before ?? {});
      // With all settings told, it is the same to the letter.
      expect(heldIn(await through(first))).toEqual(heldIn(first));
      for (const [key, value] of Object.entries(held)) if (Object.keys(value ?? {}).length > 0) had.add(key);
    }),
    { numRuns: process.env.THOROUGH ? 1000 : 30 },
  );
  for (const part of [
    'runs',
    'methods',
    'studies',
    'comparisons',
    'pieces',
    'settings',
    'remembered',
    'pictures',
    ...SHELVES.map((shelf) => `${shelf}s`),
  ])
    expect(had).toContain(part);
});
