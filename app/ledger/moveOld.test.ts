// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant, refuse, stored, storedKeys } from './testBrowser';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { inkOf, type Entry, type Header } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { file } from './acts';
import { entryOf } from './entries';
import { catalogue, filedRun, runsNotListed } from './filed';
import { inkWithoutRun, liveHeaders, liveRun, liveRuns } from './live';
import { moveOld } from './moveOld';
import { isOldDatabase, OLD, OLD_COPY, OLD_INK } from './oldNames';
import { SAMPLES } from './samples';
import { databaseNames } from './transactions';

/**
 * A logbook as the last program with a dozen databases stored it: the demo of its day, opened in a browser, with some more logged, struck, marked,
 * imported, compared and chosen; its second copy; and the logbook that it exported then, without samples. It stays so for ever.
 */
const { databases, copy, exported } = JSON.parse(readFileSync(new URL('./fixtures/old-logbook.json', import.meta.url), 'utf8')) as {
  databases: Record<string, [string, unknown][]>;
  copy: string[];
  exported: Record<'devices' | 'chargers' | 'cables' | 'meters' | 'methods' | 'studies' | 'comparisons', { id: string }[]> & {
    runs: { header: Header; entries: Entry[] }[];
  };
};

const lay = async (all: Readonly<Record<string, readonly (readonly [string, unknown])[]>>) => {
  for (const [name, rows] of Object.entries(all)) for (const [key, value] of rows) await plant(key, value, name);
};
/** The files of a browser that has the second copy of then, and nothing else. */
function withOldCopy(): void {
  const file = { kind: 'file', getFile: () => Promise.resolve({ text: () => Promise.resolve(`${copy.join('\n')}\n`) }) };
  const folder = { values: () => [file].values() };
  const root = {
    getDirectoryHandle: (name: string) => (name === OLD_COPY ? Promise.resolve(folder) : Promise.reject(new Error('none'))),
    removeEntry: () => Promise.resolve(),
  };
  vi.stubGlobal('navigator', { locks: navigator.locks, storage: { getDirectory: () => Promise.resolve(root) } });
}

beforeEach(emptyBrowser);
afterEach(() => vi.restoreAllMocks());

async function expectWhole(): Promise<void> {
  expect((await databaseNames()).filter(isOldDatabase)).toEqual([]);
  const ids = (kind: 'devices' | 'chargers' | 'cables' | 'meters' | 'methods' | 'studies' | 'comparisons') =>
    exported[kind].map(({ id }) => id).sort();
  for (const [kind, of] of [
    ['device', 'devices'],
    ['charger', 'chargers'],
    ['cable', 'cables'],
    ['meter', 'meters'],
    ['method', 'methods'],
    ['study', 'studies'],
    ['comparison', 'comparisons'],
  ] as const)
    expect((await storedKeys(kind)).map((key) => key.slice(key.indexOf('/') + 1))).toEqual(ids(of));
  const live = await liveRuns();
  const filed = await catalogue();
  expect(live.length + filed.length).toBe(exported.runs.length);
  for (const { header, entries } of exported.runs) {
    const run = live.find((each) => each.header.id === header.id) ?? (await filedRun(header.id));
    expect(run.entries).toEqual(entries);
    expect(run.header).toEqual(header);
  }
  expect(filed.find(({ id }) => id === 'saltmarsh-5')).toMatchObject({ stop: 'stopped early', lastLevel: expect.any(Number) as number });
  expect(await stored('setting/chosen')).toEqual(databases[OLD.shelf]?.find(([key]) => key === 'settings')?.[1]);
  expect(await stored('setting/marks')).toEqual(databases[OLD.live]?.find(([key]) => key === 'marks')?.[1]);
}

describe('a logbook of the older program', () => {
  it('is moved whole, and nothing of the old is left', async () => {
    await lay(databases);
    expect(await moveOld()).toBe(false);
    await expectWhole();
    expect(await moveOld()).toBe(false);
  });

  it('is brought back from its second copy where the browser had thrown it away', async () => {
    withOldCopy();
    expect(await moveOld()).toBe(true);
    await expectWhole();
  });

  it('gets back ink that only its second copy has', async () => {
    const [name = ''] = Object.keys(databases).filter((each) => each.startsWith(OLD_INK));
    await lay({ ...databases, [name]: (databases[name] ?? []).slice(0, -2) });
    withOldCopy();
    expect(await moveOld()).toBe(false);
    await expectWhole();
  });

  it('is moved whole, wherever the move is killed', async () => {
    const whole = new Set<boolean>();
    for (let nth = 1; !whole.has(true); nth += 9) {
      await emptyBrowser();
      await lay(databases);
      const revive = refuse((changes) => changes > nth);
      whole.add(
        await moveOld().then(
          () => true,
          () => false,
        ),
      );
      revive();
      await moveOld();
      await expectWhole();
    }
    expect(whole.size).toBe(2);
  });
});

describe('what the older program had half done', () => {
  const header = exampleHeader({ id: 'one' });
  const other = exampleHeader({ id: 'other' });
  const [first, second] = inkOf(header, [
    { seconds: 0, percent: 2 },
    { seconds: 300, percent: 9 },
  ]) as [Entry, Entry];
  const key = ({ seq, id }: Entry) => `${String(seq).padStart(9, '0')}/${id}`;
  const note = entryOf({ kind: 'note', at: header.plugInAt, text: 'late' }, 3);
  const stop = entryOf({ kind: 'stop', at: header.plugInAt + 600_000, because: 'window over' }, 4);
  const packed = { schema: 3, header, entries: [first, second] };
  const entriesOf = async (id: string) => ((await liveRun(id)) ?? (await filedRun(id))).entries.map((entry) => entry.id);

  it('a start and a set, an event of several lanes', async () => {
    await lay({
      [OLD.live]: [
        ['one', { ...header, begun: [first] }],
        ['together/x', { runs: [{ header: other, entries: [first] }] }],
        ['happened/x', { entries: [{ runId: 'one', entry: note }] }],
      ],
    });
    await moveOld();
    expect([await entriesOf('one'), await entriesOf('other')]).toEqual([[first.id, note.id], [first.id]]);
    expect(await stored('live/one')).toEqual(header);
  });

  it('a filing, which the next start ends; an amendment; a run that was not listed', async () => {
    await lay({
      [OLD.live]: [['one', header]],
      [OLD_INK + 'one']: [first, second, stop].map((entry) => [key(entry), entry]),
      [OLD.runs]: [
        ['one', packed],
        ['other', { ...packed, header: other }],
        ['third', { ...packed, header: { ...header, id: 'third' } }],
      ],
      [OLD_INK + 'other']: [
        [key(note), note],
        ['sheaf/x', [note]],
      ],
      [OLD.catalogue]: [['other', { id: 'other', plugInAt: 1 }]],
    });
    await moveOld();
    // It was stopped: a start files it.
    await file('one');
    expect((await catalogue()).map(({ id, stop: why }) => [id, why]).sort()).toEqual([
      ['one', 'window over'],
      ['other', undefined],
      ['third', undefined],
    ]);
    expect([await entriesOf('one'), await entriesOf('other')]).toEqual([
      [first.id, second.id, stop.id],
      [first.id, second.id, note.id],
    ]);
  });

  it('an import that was there whole is in its place, and one that was not is gone', async () => {
    const arriving = (ready: boolean): [string, unknown][] => [
      [`${OLD.runs}\none`, { header, entries: [first] }],
      [`${OLD.shelf}\ncharger/x`, { shelf: 'charger' }],
      [`${SAMPLES}\none/watts/000000`, { seconds: Float64Array.of(0), values: Float64Array.of(5) }],
      ...(ready ? [['ready', true] as [string, unknown]] : []),
    ];
    await lay({ [OLD.arriving]: arriving(false) });
    await moveOld();
    expect([await catalogue(), await storedKeys('charger')]).toEqual([[], []]);
    await lay({ [OLD.arriving]: arriving(true) });
    await moveOld();
    expect((await filedRun('one')).samples?.watts?.values[0]).toBe(5);
    expect(await storedKeys('charger')).toEqual(['charger/x']);
  });

  it('ink without a run, and what cannot be read, are kept and named', async () => {
    await lay({
      [OLD_INK + 'lost']: [[key(first), first]],
      [OLD.live]: [['newer', { plugInAt: 1, schema: 99, device: { name: 'Curlew' } }]],
      [OLD.runs]: [
        ['damaged', { schema: 3 }],
        ['later', { schema: 99, header: { ...header, id: 'later' }, entries: [] }],
      ],
    });
    await moveOld();
    const aside = [...(await liveHeaders()).aside, ...(await inkWithoutRun()), ...(await runsNotListed())];
    expect(aside.map(({ id }) => id).sort()).toEqual(['damaged', 'later', 'lost', 'newer']);
  });

  it('what a tab of the older program writes afterwards is found at the next start', async () => {
    await lay({
      [OLD.live]: [['one', header]],
      [OLD_INK + 'one']: [[key(first), first]],
      [OLD.runs]: [['other', { ...packed, header: other }]],
    });
    await moveOld();
    // Entries of a live run, an amendment, and a filing of what it still had in hand.
    await lay({ [OLD_INK + 'one']: [[key(second), second]], [OLD_INK + 'other']: [[key(note), note]] });
    await moveOld();
    expect([await entriesOf('one'), await entriesOf('other')]).toEqual([
      [first.id, second.id],
      [first.id, second.id, note.id],
    ]);
    await lay({ [OLD.runs]: [['one', { ...packed, entries: [first, second, stop] }]], [OLD.catalogue]: [['one', { id: 'one' }]] });
    await moveOld();
    // It was stopped: a start files it.
    await file('one');
    expect((await catalogue()).map(({ id }) => id).sort()).toEqual(['one', 'other']);
    expect(await entriesOf('one')).toEqual([first.id, second.id, stop.id]);
    expect((await databaseNames()).filter(isOldDatabase)).toEqual([]);
  });
});
