import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { compareRuns } from '../compare/compare';
import { figuresOf, readRun } from '../curve/figures';
import { notices } from '../curve/notices';
import { summarise } from '../curve/summary';
import { foldRun } from '../ink/fold';
import { seeded } from '../simulate/seeded';
import { exampleHeader } from '../ink/example';
import { readCsv } from './csvIn';
import { writeCsv } from './csvOut';
import { readGearCsv } from './gearCsv';
import { ImportError } from './importError';
import { writeLogbook, type Logbook, type StoredRun } from './logbook';
import { readLogbook } from './readLogbook';
import { runFromCsv } from './runFromCsv';

/**
 * Two thousand files, each spoilt in one to three places: characters changed, stretches lost, doubled or moved, values put in that break what
 * trusts them. Whatever is accepted opens, lists, compares, and survives export and import.
 */
const FILES = 2000;
/** In so many handfuls, each with a seed of its own. */
const HANDFULS = 8;
const WILD = [
  '1e999',
  '-1',
  '9e15',
  'null',
  '""',
  '[]',
  '{}',
  '"\\ud800"',
  '"../x"',
  'true',
  '0.1',
  '1e-320',
  '"2026-02-31T00:00"',
  'nan',
  '=1',
  '"',
  ';',
  '\n',
  '\0',
];

const logbooks = ['1', '2', '3'].map((schema) => readFileSync(new URL(`fixtures/logbook-${schema}.json`, import.meta.url), 'utf8'));
const METER = `Time (s),Voltage (V),Current (A),Battery %,Temperature (°F),Note\n${Array.from({ length: 20 }, (_, row) => `${row * 7},9.0${row % 10},${2 - row / 20},${row + 3},8${row % 10},ok`).join('\n')}`;
const GEAR = 'shelf,name,kind,watts (w)\ncharger,Cobble 20,adapter,20\ndevice,Sedge 5,phone,\n';

const header = exampleHeader();
let next = 0;
const fromCsv = (text: string): StoredRun[] => [runFromCsv(readCsv(text, 'x.csv'), header, () => `f${(next += 1)}`, header.plugInAt)];
const READERS: [text: string, read: (text: string) => StoredRun[]][] = [
  ...logbooks.map((text): (typeof READERS)[number] => [text, (spoilt) => readLogbook(spoilt, 'x.json').runs]),
  [METER, fromCsv],
  [writeCsv(foldRun(header, readLogbook(logbooks[2] ?? '', 'x').runs[0]?.entries ?? [])), fromCsv],
  [GEAR, (spoilt) => (readGearCsv(spoilt, 'x.csv'), [])],
];

function spoil(text: string, noise: () => number): string {
  let spoilt = text;
  for (let places = 1 + Math.floor(noise() * 3); places > 0; places -= 1) {
    const at = Math.floor(noise() * spoilt.length);
    const to = at + Math.floor(noise() * 12);
    const wild = WILD[Math.floor(noise() * WILD.length)] ?? '';
    const kind = noise();
    if (kind < 0.2) spoilt = spoilt.slice(0, at) + spoilt.slice(to);
    else if (kind < 0.3) spoilt = spoilt.slice(0, to) + spoilt.slice(at);
    else if (kind < 0.4) spoilt = spoilt.slice(0, at) + String.fromCharCode(Math.floor(noise() * 0x250)) + spoilt.slice(at + 1);
    else {
      // A whole value, where one stands.
      const value = /-?\d[\d.]*|"[^"\n]*"/g;
      value.lastIndex = at;
      const found = value.exec(spoilt);
      spoilt = found ? spoilt.slice(0, found.index) + wild + spoilt.slice(found.index + found[0].length) : spoilt + wild;
    }
  }
  return spoilt;
}

it.each(Array.from({ length: HANDFULS }, (_, index) => index + 1))(
  'lets no file in that cannot be opened, listed, compared and exported again, handful %i',
  (handful) => {
    const noise = seeded(20_261_126 + handful);
    let accepted = 0;
    for (let file = 0; file < FILES / HANDFULS; file += 1) {
      const [text = '', read = fromCsv] = READERS[file % READERS.length] ?? [];
      const spoilt = spoil(text, noise);
      let runs: StoredRun[];
      try {
        runs = read(spoilt);
      } catch (error) {
        expect(error, spoilt).toBeInstanceOf(ImportError);
        continue;
      }
      accepted += 1;
      const records = runs.map((run) => foldRun(run.header, run.entries, run.samples));
      for (const record of records) {
        figuresOf(record);
        notices(record);
        summarise(record);
      }
      compareRuns(
        records.map((record) => readRun(record)),
        records[0]?.header.id ?? '',
        80,
      );
      const back = readLogbook(writeLogbook({ ...(JSON.parse(logbooks[2] ?? '') as Logbook), runs }), 'back.json');
      expect(back.runs, spoilt).toEqual(runs);
    }
    expect(accepted).toBeGreaterThan(FILES / HANDFULS / 20);
    expect(accepted).toBeLessThan((FILES / HANDFULS) * 0.9);
  },
);
