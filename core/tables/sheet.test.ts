import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { NOTHING_ELSE } from '../exchange';
import { inkOf } from '../ink';
import { finishedRuns } from '../../demo/finished';
import { sheetSink } from './sheet';
import { writeTables } from './write';

/** A Python with Debian’s openpyxl; `npm run unit` installs it where it may. */
const { SHEET_READER = '' } = process.env;

const READ = `
import json, sys, openpyxl
book = openpyxl.load_workbook(sys.argv[1])
told = {}
for sheet in book:
    rows = [[[type(cell.value).__name__, str(cell.value), cell.data_type] for cell in row] for row in sheet.iter_rows()]
    widths = [sheet.column_dimensions[letter].width for letter in 'AB']
    told[sheet.title] = {'rows': rows, 'frozen': sheet.freeze_panes, 'widths': widths}
print(json.dumps(told))`;

type Cell = [type: string, value: string, kind: string];
type Book = Record<string, { rows: Cell[][]; frozen: string | null; widths: number[] }>;

async function readBack(runs: ReturnType<typeof finishedRuns>): Promise<Book> {
  const folder = mkdtempSync(join(tmpdir(), 'inkpath-sheet-'));
  try {
    let file = new Blob();
    const sink = sheetSink(
      (made) => (file = made),
      () => undefined,
    );
    await writeTables(runs, () => NOTHING_ELSE, sink);
    const path = join(folder, 'book.xlsx');
    writeFileSync(path, Buffer.from(await file.arrayBuffer()));
    const { stdout, stderr, status } = spawnSync(SHEET_READER, ['-c', READ, path], { encoding: 'utf8', maxBuffer: 1e9 });
    expect([status, stderr]).toEqual([0, expect.anything()]);
    return JSON.parse(stdout) as Book;
  } finally {
    rmSync(folder, { recursive: true });
  }
}

it.skipIf(SHEET_READER === '')(
  'a workbook is read elsewhere (openpyxl 3) as it was meant: figures, dates, units in frozen heads',
  async () => {
    const runs = finishedRuns().map(({ header, ...each }, index) => ({
      ...each,
      header: { ...header, ...(index === 0 && { conditions: [{ name: 'radio', value: 'aeroplane mode' }] }) },
    }));
    const book = await readBack(runs);
    expect(Object.keys(book)).toEqual(expect.arrayContaining(['Results', 'Runs', 'Readings', 'Gear', 'Conditions', 'Methods', 'Columns']));
    for (const sheet of Object.values(book)) {
      expect(sheet.frozen).toBe('A2');
      for (const width of sheet.widths) expect(width).toBeGreaterThan(3);
    }
    const [head = [], ...rows] = book.Results?.rows ?? [];
    const heads = head.map(([, value]) => value);
    expect(heads).toEqual(
      expect.arrayContaining(['device', 'plugged in (UTC)', 'Time to 80 % (min)', 'Time to 80 % lower (min)', 'Peak power (W)']),
    );
    expect(rows).toHaveLength(runs.length);
    const dates = rows.map((row) => row[heads.indexOf('plugged in (UTC)')]);
    expect(new Set(dates.map((cell) => cell?.[0]))).toEqual(new Set(['datetime']));
    expect(dates.map((cell) => Date.parse(`${cell?.[1].replace(' ', 'T') ?? ''}Z`))).toEqual(
      runs.map(({ header }) => Math.round(header.plugInAt / 1000) * 1000),
    );
    for (const title of ['Time to 80 % (min)', 'Peak power (W)'])
      for (const row of rows) {
        const [type = ''] = row[heads.indexOf(title)] ?? [];
        expect(['float', 'int', 'NoneType']).toContain(type);
      }
  },
);

it.skipIf(SHEET_READER === '')('a name or a note that looks like a formula stays a text', async () => {
  const [first] = finishedRuns();
  if (!first) throw new Error('There is no run.');
  const header = { ...first.header, device: { ...first.header.device, name: '=HYPERLINK("https://x.example")' } };
  const entries = inkOf(header, [
    { seconds: 0, percent: 5 },
    { seconds: 60, percent: 6 },
  ]);
  const book = await readBack([
    {
      header,
      entries: [
        ...entries,
        { ...entries[0], seq: 90, id: 'n', kind: 'note', text: '+1-2', at: header.plugInAt, written: header.plugInAt } as never,
      ],
    },
  ]);
  const cells = Object.values(book).flatMap(({ rows }) => rows.flat());
  expect(cells.filter(([, value]) => value.startsWith('=HYPERLINK')).map(([, , kind]) => kind)).not.toContain('f');
  expect(cells.filter(([, value]) => value.startsWith('=HYPERLINK'))).not.toEqual([]);
  expect(cells.filter(([, , kind]) => kind === 'f')).toEqual([]);
});
