import { describe, expect, it } from 'vitest';
import { inkOf } from '../ink/build';
import type { Entry } from '../ink/entry';
import { exampleHeader } from '../ink/example';
import { readLabel } from '../bench/label';
import { readCsv } from './csvIn';
import { readGearCsv } from './gearCsv';
import { ImportError } from './importError';
import { logbookOf, logbookParts, writeLogbook, type StoredRun } from './logbook';
import { LogbookReader, readLogbook } from './readLogbook';
import { runMisfit } from './runMisfit';

/** Files that nobody means to choose, and values that break whatever trusts them. */
const header = exampleHeader();
const run = (): StoredRun => ({ header, entries: inkOf(header, [{ seconds: 0, percent: 2 }]) });
const book = (runs: StoredRun[] = [run()]) =>
  logbookOf({ devices: [header.device], chargers: [header.charger], cables: [], meters: [] }, runs);

/** What a reader says of a text; it may refuse it with an ImportError, and with nothing else. */
function said(read: () => unknown): string {
  try {
    read();
    return '';
  } catch (error) {
    expect(error).toBeInstanceOf(ImportError);
    return (error as Error).message;
  }
}
/** A logbook in JSON with another value at a place, as `runs.0.header.id`; `undefined` removes it. */
function spoilt(place: string, value: unknown): string {
  const raw: unknown = JSON.parse(writeLogbook(book()));
  const steps = place.split('.');
  const last = steps.pop() ?? '';
  const holder = steps.reduce((each, step) => (each as Record<string, unknown>)[step], raw) as Record<string, unknown>;
  if (value === undefined) Reflect.deleteProperty(holder, last);
  else holder[last] = value;
  return JSON.stringify(raw);
}
const inLogbook = (place: string, value: unknown) => said(() => readLogbook(spoilt(place, value), 'van.json'));

describe('a logbook that somebody changed', () => {
  it.each([
    ['ports that are no list', 'chargers.0.ports', {}, /chargers\[0\]/],
    ['a label that is a number', 'chargers.0.ports', [{ connector: 'USB-C', label: 5 }], /label: it is not a text/],
    ['a plug-in at the end of time', 'runs.0.header.plugInAt', 9e15, /plugInAt: it is more than/],
    ['a run that is not a run', 'runs.0', 7, /runs\[0\]: it is not a run/],
    ['entries that are no list', 'runs.0.entries', {}, /entries: it is not a list/],
    ['a value nobody knows', 'runs.0.entries.0.colour', 'red', /nothing is known of/],
    ['samples that go back in time', 'runs.0.samples', { watts: { seconds: [5, 4], values: [1, 1] } }, /watts.seconds\[1\]/],
    ['a sampled level of 130 %', 'runs.0.samples', { percent: { seconds: [0], values: [130] } }, /percent.values\[0\]/],
    ['columns of unequal length', 'runs.0.samples', { watts: { seconds: [0, 1], values: [1] } }, /as many seconds as values/],
    ['a picture that is cut off', 'pictures', { p: 'data:image/jpeg;base64,/9j/4AA' }, /pictures.p: it is not a picture/],
    ['a part that no logbook has', 'secrets', [1], /secrets: it is no part of a logbook/],
    ['runs that are no list', 'runs', { a: 1 }, /runs/],
    ['no devices', 'devices', undefined, /devices: it is missing/],
  ])('is refused for %s, in a sentence', (_what, place, value, sentence) => {
    const words = inLogbook(place, value);
    expect(words).toMatch(sentence);
    expect(words).toMatch(/nothing was imported/);
    expect(words).not.toMatch(/must be a `|final value|TypeError|undefined/);
  });

  it.each(['a/b', 'a b', '..', '%2F', 'a?b', '\ud800', '', 'x'.repeat(41), '__proto__'])('is refused for the id %j', (id) => {
    expect(inLogbook('runs.0.header.id', id)).toMatch(/header.id/);
    expect(inLogbook('runs.0.entries.0.id', id)).toMatch(/entries\[0\].id/);
    expect(inLogbook('devices.0.id', id)).toMatch(/devices\[0\].id/);
  });

  it('is refused for figures beyond all numbers', () => {
    const text = writeLogbook(book()).replace('"percent":2', '"percent":2,"watts":1e999');
    expect(said(() => readLogbook(text, 'van.json'))).toMatch(/entries\[0\].watts: it is more than 5000/);
  });

  it('is refused when it is nested deeper than any logbook, cut off anywhere, or goes on after its end', () => {
    expect(said(() => readLogbook(`{"schema":3,"runs":[${'['.repeat(100_000)}`, 'van.json'))).toMatch(/more than 40 deep/);
    const text = writeLogbook(book());
    for (let end = 0; end < text.length; end += 7) expect(said(() => readLogbook(text.slice(0, end), 'van.json'))).not.toBe('');
    expect(said(() => readLogbook(`${text}{}`, 'van.json'))).toMatch(/not JSON/);
    expect(said(() => readLogbook('{"schema":3 "runs":[]}', 'van.json'))).toMatch(/not JSON/);
  });

  it('takes what a meter on a draining device tells: amps and watts below zero', () => {
    const drained = {
      header,
      entries: inkOf(header, [{ seconds: 0, watts: -3, amps: -0.6 }]),
      samples: { watts: { seconds: Float64Array.of(0, 1), values: Float64Array.of(-3, 4) } },
    };
    expect(runMisfit(drained)).toBeUndefined();
    expect(readLogbook(writeLogbook(book([drained])), 'van.json').runs[0]?.samples?.watts?.values).toEqual(Float64Array.of(-3, 4));
  });

  it('reads the same whatever the pieces it comes in, and writes the same in parts', async () => {
    const samples = {
      watts: { seconds: Float64Array.from({ length: 60_000 }, (_, index) => index / 3), values: new Float64Array(60_000).fill(1 / 3) },
    };
    const tricky = [{ kind: 'note', seq: 2, id: 'n', at: 0, written: 0, text: 'a "b\\" {[,:]} \\\\ é ⎓' }] as Entry[];
    const given = book([run(), { header: { ...header, id: 'run-2' }, entries: tricky, samples }]);
    const { runs, ...rest } = given;
    let text = '';
    for await (const part of logbookParts(runs, [['p', 'data:image/png;base64,AAAA']], () => Promise.resolve(rest))) text += part;
    expect(JSON.parse(text)).toEqual(JSON.parse(writeLogbook({ ...given, pictures: { p: 'data:image/png;base64,AAAA' } })));
    for (const size of [1, 7, 65_536]) {
      const reader = new LogbookReader('van.json');
      const part = size === 65_536 ? text : writeLogbook(book([{ header, entries: tricky }]));
      for (let from = 0; from < part.length; from += size) reader.push(part.slice(from, from + size));
      expect(reader.end()).toEqual(readLogbook(part, 'van.json'));
    }
  });
});

describe('a CSV that somebody changed', () => {
  it.each([
    ['time,watts\n0,1e999\n', /“1e999” cannot be in column “watts”: from -5000 to 5000 is kept/],
    ['time,volts\n0,9000\n', /cannot be in column “volts”/],
    ['time,percent\n0,-1\n', /not a level from 0 to 100/],
    ['time,watts\n2026-02-31T10:00:00,5\n', /“2026-02-31T10:00:00” is no day of the calendar/],
    ['time,watts\n0,5\n1,"6\n2,7\n3,8\n', /Row 3 of bad.csv opens a quotation mark that is never closed/],
    ['elapsed (s),watts\n1e300,5\n', /is no time of a run/],
    ['elapsed (s),kind,percent,note\n0,note,,\n', /Row 2 of bad.csv is a note without a text/],
  ])('%j is refused by its place', (text, sentence) => expect(said(() => readCsv(text, 'bad.csv'))).toMatch(sentence));

  it('keeps a note that says “n/a”, and drops what stands for no figure', () => {
    const { entries, samples } = readCsv('elapsed (s),kind,watts,note\n0,note,,n/a\n1,sample,nan,\n2,sample,-3,\n', 'own.csv');
    expect(entries[0]?.draft).toMatchObject({ kind: 'note', text: 'n/a' });
    expect(samples.watts).toEqual({ seconds: Float64Array.of(2), values: Float64Array.of(-3) });
  });

  it('reads a row longer than a row can be, and headings and labels of blanks, without taking long', () => {
    expect(said(() => readCsv(`time,watts\n0,"${'x'.repeat(3_000_000)}`, 'bad.csv'))).toMatch(/never closed/);
    expect(said(() => readCsv(`${' '.repeat(60_000)}x,${'\t'.repeat(60_000)}y\n0,1\n`, 'bad.csv'))).toMatch(/heads no column of times/);
    expect(readLabel(`5V${'-'.repeat(8000)}3A`).offers.length).toBeLessThan(2);
    expect(readLabel(`${' '.repeat(8000)}5V⎓3A`).offers).toHaveLength(0);
  });

  it('refuses bad gear row by row', () => {
    const rows = 'charger,X,adapter,-1\n'.repeat(2000);
    expect(readGearCsv(`shelf,name,kind,watts (w)\n${rows}`, 'gear.csv').refused).toHaveLength(2000);
    expect(said(() => readGearCsv('shelf,name\ndevice,"A\n', 'gear.csv'))).toMatch(/never closed/);
  });

  it('repeats no more than 80 characters of what it names, however long that is', () => {
    const long = 'x'.repeat(5_000_000);
    const said = (change: (raw: Record<string, never>) => void) => {
      const raw = JSON.parse(writeLogbook(book([run()]))) as Record<string, never>;
      change(raw);
      try {
        readLogbook(JSON.stringify(raw), 'van.json');
      } catch (error) {
        return (error as Error).message;
      }
      throw new Error('it was let in');
    };
    const cases = [
      said((raw) => Object.assign(raw, { [long]: 1 })),
      said((raw) => Object.assign((raw.runs as unknown as object[])[0] ?? {}, { [long]: 1 })),
      said((raw) => Object.assign((raw.runs as unknown as { header: object }[])[0]?.header ?? {}, { id: long })),
      said((raw) => Object.assign(raw, { pictures: { [long]: 'data:image/png;base64,AAAA' } })),
      said((raw) => Object.assign((raw.runs as unknown as { logs?: object }[])[0] ?? {}, { logs: { [long]: {} } })),
    ];
    for (const each of cases) expect(each.length).toBeLessThan(400);
  });

  it('keeps no text of ten megabytes, and says where one stands', () => {
    const entry = {
      kind: 'note' as const,
      seq: 2,
      id: 'long',
      at: header.plugInAt,
      written: header.plugInAt,
      text: 'x'.repeat(10_000_000),
    };
    expect(runMisfit({ ...run(), entries: [entry] })).toEqual({ path: 'entries[0].text', says: 'is longer than 100000' });
  });
});
