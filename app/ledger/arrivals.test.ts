// First: it puts the database in place that the others look for as they load.
import { emptyBrowser } from './testBrowser';
import localforage from 'localforage';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type StoredRun } from '@core/exchange';
import { inkOf, type Entry, type Header } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { endArrival, importAll, type Arriving } from './arrivals';
import { catalogueBook, isArriving, liveBook, runBook, sampleBook, shelfBook } from './databases';
import { amend, catalogue, file, filedRun, listAll } from './filing';
import { append, entryOf, liveRuns, startRun } from './ledger';

let header: Header;
let ink: Entry[];
let run: StoredRun;
const samples = { watts: { seconds: Float64Array.of(0, 1), values: Float64Array.of(9, 9) } };
const gear: Arriving[] = [[shelfBook, 'charger/new', { shelf: 'charger' }]];

beforeEach(async () => {
  await emptyBrowser();
  await endArrival();
  header = exampleHeader({ id: `run-${Math.random().toString(36).slice(2)}` });
  ink = inkOf(header, [
    { seconds: 0, percent: 2 },
    { seconds: 300, percent: 9 },
  ]);
  run = { header, entries: ink, samples };
});
const changed = (change: object) => ink.map((entry, index) => (index === 0 ? { ...entry, ...change } : entry));

describe('an import beside a run that is live', () => {
  beforeEach(() => startRun(header, ink));

  it('refuses ink that contradicts what is live, and stores nothing', async () => {
    const other = exampleHeader({ id: 'other' });
    await expect(
      importAll(
        [
          { header: other, entries: [] },
          { header, entries: changed({ watts: 40 }) },
        ],
        gear,
      ),
    ).rejects.toThrow(/differs.*Nothing was imported/);
    expect(await runBook.keys()).toEqual([]);
    expect(await shelfBook.getItem('charger/new')).toBeNull();
    expect(await isArriving()).toBe(false);
    // The run goes on, is stopped and filed as if there had been no file.
    await append(header.id, entryOf({ kind: 'stop', at: header.plugInAt + 600_000, because: 'window over' }, 3));
    expect((await file(header.id)).readings).toHaveLength(2);
  });

  it('leaves a live run live: a backup of it is not listed as finished, and what it lacked is added to its ink', async () => {
    const more = entryOf({ kind: 'note', at: header.plugInAt, text: 'from the file' }, 3);
    await importAll([{ header, entries: [...ink, more] }]);
    expect(await catalogue()).toEqual([]);
    expect((await liveRuns())[0]?.entries.map(({ id }) => id)).toEqual([...ink, more].map(({ id }) => id));
    expect(await liveBook.getItem(header.id)).not.toBeNull();
  });
});

it('refuses what could not be read back, whoever hands it over', async () => {
  await expect(importAll([{ header, entries: changed({ percent: 130 }) }])).rejects.toThrow(/Nothing was imported.*percent/);
  await expect(importAll([{ ...run, header: { ...header, id: '../x' } }])).rejects.toThrow(/Nothing was imported/);
  expect(await runBook.keys()).toEqual([]);
});

describe('an import that is killed', () => {
  /** Lets so many values be stored, and fails from then on, as a browser that is killed would. */
  function killAfter(values: number): () => void {
    let stored = 0;
    const { dropInstance } = localforage;
    const [add, put] = [IDBObjectStore.prototype.add, IDBObjectStore.prototype.put];
    const dies = (of: typeof add) =>
      function (this: IDBObjectStore, ...args: Parameters<typeof add>) {
        if ((stored += 1) > values) throw new DOMException('killed', 'UnknownError');
        return of.apply(this, args);
      };
    const spies = [
      vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(dies(add)),
      vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(dies(put)),
      // The dead clear nothing up.
      vi
        .spyOn(localforage, 'dropInstance')
        .mockImplementation((options) => (stored > values ? Promise.reject(new Error('killed')) : dropInstance.call(localforage, options))),
    ];
    return () => {
      for (const spy of spies) spy.mockRestore();
    };
  }
  const everything = async () => ({
    runs: (await runBook.keys()).length,
    listed: (await catalogue()).length,
    gear: Number((await shelfBook.getItem('charger/new')) !== null),
    samples: (await sampleBook.keys()).length,
  });
  const ALL = { runs: 2, listed: 2, gear: 1, samples: 2 };
  const NOTHING = { runs: 0, listed: 0, gear: 0, samples: 0 };

  it('leaves nothing or everything, wherever it was killed', async () => {
    const outcomes = new Set<string>();
    for (let values = 0; values < 17; values += 1) {
      await emptyBrowser();
      const revive = killAfter(values);
      const second = { header: exampleHeader({ id: 'second' }), entries: ink };
      await importAll([run, second], gear).catch(() => undefined);
      revive();
      // The next start.
      await endArrival();
      await listAll();
      const found = await everything();
      expect([ALL, NOTHING]).toContainEqual(found);
      outcomes.add(JSON.stringify(found));
      expect(await isArriving()).toBe(false);
      if (found.runs > 0) expect((await filedRun(header.id)).samples).toEqual(samples);
    }
    expect(outcomes.size).toBe(2);
  });
});

it('lists whatever is stored, when a crash came between the run and its place in the list', async () => {
  await importAll([run]);
  await catalogueBook.clear();
  expect(await listAll()).toMatchObject({ listed: 1, aside: [] });
  expect(await catalogue()).toMatchObject([{ id: header.id, lastLevel: 9 }]);
  await runBook.removeItem(header.id);
  await listAll();
  expect(await catalogue()).toEqual([]);
});

it('waits for an amendment that is under way, and loses neither', async () => {
  await importAll([{ header, entries: ink }]);
  const strike = entryOf({ kind: 'strike', at: header.plugInAt, target: ink[1]?.id ?? '', reason: 'wrong row' }, 8);
  const more = entryOf({ kind: 'note', at: header.plugInAt, text: 'from a file' }, 9);
  await Promise.all([amend(header.id, strike), importAll([{ header, entries: [...ink, more] }])]);
  expect((await filedRun(header.id)).entries.map(({ id }) => id).sort()).toEqual([...ink, strike, more].map(({ id }) => id).sort());
});
