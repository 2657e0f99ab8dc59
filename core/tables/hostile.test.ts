import Papa from 'papaparse';
import { gzipSync, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { ImportError, logbookOf, readLogbook, requireUnpacked, writeLogbook, NOTHING_ELSE, type StoredRun } from '../exchange';
import { inkOf } from '../ink';
import { exampleHeader } from '../ink/example';
import { packageSink } from './dataPackage';
import { writeTables } from './write';

/** What somebody may hand in or have written to do harm: refused in one sentence, or made harmless. */

/** What refuses it says; nothing where it is taken. */
function refusal(read: () => unknown): string {
  try {
    read();
    return '';
  } catch (error) {
    expect(error).toBeInstanceOf(ImportError);
    return (error as Error).message;
  }
}
/** One sentence or two that name the file, and repeat nothing long of what is in it. */
function expectPlain(says: string): void {
  expect(says).toMatch(/^.{10,320}[.!]$/su);
  expect(says).not.toMatch(/TypeError|undefined|\[object|<script/);
}

const header = exampleHeader();
const run: StoredRun = {
  header,
  entries: inkOf(header, [
    { seconds: 0, percent: 2 },
    { seconds: 300, percent: 12 },
  ]),
};
const book = writeLogbook(logbookOf({ devices: [header.device], chargers: [header.charger] }, [run]));

describe('archives', () => {
  const zeros = new Uint8Array(20_000_000);
  const descriptor = (resources: unknown) => strToU8(JSON.stringify({ profile: 'data-package', resources }));
  const archives: Record<string, Record<string, Uint8Array>> = {
    'a zip bomb': { 'logbook.json': zeros },
    'a path that climbs out': { '../../etc/cron.d/x': strToU8('x') },
    'an absolute path': { '/etc/passwd': strToU8('x') },
    'a path of another system': { 'C:\\Windows\\x.json': strToU8(book) },
    'names that differ by case alone': { 'a.csv': strToU8('x'), 'A.csv': strToU8('y') },
    'a name of a thousand letters': { [`${'x'.repeat(1000)}.json`]: strToU8(book) },
    'a name with markup': { '<script>alert(1)</script>.json': strToU8(book) },
    'a name that is a prototype': { constructor: strToU8(book) },
    'a logbook in it': { 'logbook.json': strToU8(book) },
    'a package that lies about its columns': {
      'datapackage.json': descriptor([{ name: 'runs', path: 'runs.csv', schema: { fields: [{ name: 'x' }] } }]),
      'runs.csv': strToU8('id\r\n1'),
    },
    'a package that leads elsewhere': { 'datapackage.json': descriptor([{ name: 'runs', path: 'https://x.example/runs.csv' }]) },
    'a package that leads to its parent': { 'datapackage.json': descriptor([{ name: 'runs', path: '../runs.csv' }]) },
    'a package whose descriptor is no JSON': { 'datapackage.json': strToU8('{') },
    'a package of nothing': { 'datapackage.json': descriptor([]) },
    'a workbook with a formula': { 'xl/worksheets/sheet1.xml': strToU8('<f>SYSTEM("x")</f>') },
    'a thousand files': Object.fromEntries(Array.from({ length: 1000 }, (_, index) => [`f${index}`, strToU8('x')])),
    nothing: {},
  };
  for (const [what, files] of Object.entries(archives))
    it(`with ${what} are refused unopened`, () => {
      const bytes = zipSync(files);
      // Whatever it would come to, it is small, and only its head is looked at.
      expect(bytes.length).toBeLessThan(200_000);
      expectPlain(refusal(() => requireUnpacked(bytes.subarray(0, 8), 'package.zip')));
    });
  it.each([
    ['a Parquet file', strToU8('PAR1....PAR1')],
    ['a gzip bomb', gzipSync(zeros)],
    ['an archive in an archive', zipSync({ 'inner.zip': zipSync({ 'x.json': zeros }) })],
    ['a 7z archive', Uint8Array.of(0x37, 0x7a, 0xbc, 0xaf, 0x27, 0x1c)],
    ['a zstd file', Uint8Array.of(0x28, 0xb5, 0x2f, 0xfd, 0)],
  ])('%s is refused by what it begins with', (_what, bytes) => {
    expectPlain(refusal(() => requireUnpacked(bytes.subarray(0, 8), '<b>x</b>'.repeat(30))));
  });
});

describe('a logbook', () => {
  it.each(Array.from({ length: 24 }, (_, index) => index / 24))('cut off after %d of it is refused', (share) => {
    expectPlain(refusal(() => readLogbook(book.slice(0, Math.floor(share * book.length)), 'cut.json')));
  });

  const places = [
    '',
    'settings',
    'runs.0',
    'runs.0.header',
    'runs.0.header.device',
    'runs.0.header.charger',
    'runs.0.entries.0',
    'devices.0',
    'chargers.0',
  ];
  const keys = ['__proto__', 'constructor', 'prototype', 'toString', 'hasOwnProperty'];
  it.each(places.flatMap((place) => keys.map((key) => [place, key] as const)))('with a prototype’s key at “%s”: %s', (place, key) => {
    const raw = JSON.parse(book) as Record<string, unknown>;
    raw.settings = {};
    const at = place
      .split('.')
      .filter(Boolean)
      .reduce((each, step) => each[step] as Record<string, unknown>, raw);
    Object.defineProperty(at, key, { value: { isAdmin: true }, enumerable: true });
    expectPlain(refusal(() => readLogbook(JSON.stringify(raw), 'proto.json')));
    expect(({} as { isAdmin?: boolean }).isAdmin).toBeUndefined();
  });

  it.each([4, 99, 0, -1, 1.5, '3', null, [3]])('of schema %j is refused or raised, never misread', (schema) => {
    const says = refusal(() => readLogbook(JSON.stringify({ ...(JSON.parse(book) as object), schema }), 'newer.json'));
    expectPlain(says);
  });
});

describe('names, notes and sentences that would do something elsewhere', () => {
  const texts = [
    '=1+1',
    '+1',
    '-1+2',
    '@SUM(A1)',
    '\t=1+1',
    '\r=1+1',
    ' =1+1',
    "'=1+1",
    "''=1+1",
    '=HYPERLINK("https://x.example","click")',
    "=cmd|' /C calc'!A0",
    '<script>alert(1)</script>',
    '<img src=x onerror=alert(1)>',
    '"quoted", and\r\na line',
    '../../../etc/passwd',
    '\u202egnp.exe',
    '\0nul\0',
    '__proto__',
    'x'.repeat(70),
  ];
  it.each(texts)('%j stays a text in every table', async (text) => {
    const device = { ...header.device, name: text.trim().slice(0, 70) || 'x' };
    const note = { kind: 'note' as const, seq: 90, id: 'note', at: header.plugInAt, written: header.plugInAt, text };
    const label = {
      kind: 'label' as const,
      seq: 91,
      id: 'label',
      at: header.plugInAt,
      written: header.plugInAt,
      tags: [text.slice(0, 40)],
      text,
    };
    const odd: StoredRun = { header: { ...header, device }, entries: [...run.entries, note, label] };
    const parts: Uint8Array[] = [];
    await writeTables(
      [odd],
      () => NOTHING_ELSE,
      packageSink((bytes) => parts.push(bytes), text, 0),
    );
    const files = unzipSync(Buffer.concat(parts));
    expect(Object.keys(files).every((name) => /^[\w.]+$/.test(name))).toBe(true);
    expect(Object.keys(JSON.parse(Buffer.from(files['datapackage.json'] ?? []).toString()) as object)).toContain('resources');
    for (const [name, bytes] of Object.entries(files)) {
      if (!name.endsWith('.csv')) continue;
      const { data, errors } = Papa.parse<string[]>(Buffer.from(bytes).toString(), { skipEmptyLines: true });
      expect(errors).toEqual([]);
      const [head = [], ...rows] = data;
      for (const row of rows) {
        expect(row).toHaveLength(head.length);
        // A figure below zero is a figure; nothing else may begin like a formula.
        for (const cell of row) expect(/^\s*[=+@]/.test(cell) || (/^\s*-/.test(cell) && Number.isNaN(Number(cell)))).toBe(false);
      }
    }
    const said = Papa.parse<Record<string, string>>(Buffer.from(files['events.csv'] ?? []).toString(), {
      header: true,
      skipEmptyLines: true,
    });
    expect(said.data.find(({ kind }) => kind === 'note')?.says?.replace(/^'(?='*\s*[=+\-@])/, '')).toBe(text.replaceAll('\0', '␀'));
  });
});
