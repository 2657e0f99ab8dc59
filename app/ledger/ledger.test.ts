// First: it puts the database in place that the others look for as they load.
import { emptyBrowser } from './testBrowser';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type StoredRun } from '@core/exchange';
import { inkOf, type Entry, type Header } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { catalogueBook, liveBook, runBook, runsWithInk } from './databases';
import { importAll } from './arrivals';
import { amend, catalogue, everyRun, file, filedRun, unfile, tidy } from './filing';
import { append, entryOf, liveRuns, startRun } from './ledger';

let header: Header;
let ink: Entry[];
const stop = (): Entry => entryOf({ kind: 'stop', at: header.plugInAt + 700_000, because: 'window over' }, 9);

beforeEach(async () => {
  await emptyBrowser();
  header = exampleHeader({ id: `run-${Math.random().toString(36).slice(2)}` });
  ink = inkOf(header, [
    { seconds: 0, percent: 2 },
    { seconds: 300, percent: 9 },
    { seconds: 600, percent: 17 },
  ]);
});

const startWithInk = async (...more: Entry[]) => {
  await startRun(header, ink.slice(0, 1));
  for (const entry of [...ink.slice(1), ...more]) await append(header.id, entry);
};

describe('a live run', () => {
  it('comes back with all its ink, in order', async () => {
    await startWithInk();
    expect(await liveRuns()).toEqual([{ header, entries: ink }]);
  });

  it('is not there at all when its start could not be stored whole', async () => {
    const put = IDBObjectStore.prototype.put;
    let puts = 0;
    const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(function (this: IDBObjectStore, ...args) {
      puts += 1;
      if (puts > 1) throw new DOMException('full', 'QuotaExceededError');
      return put.apply(this, args);
    });
    await expect(startRun(header, ink.slice(0, 1))).rejects.toThrow(/no room left/);
    full.mockRestore();
    expect(await liveRuns()).toEqual([]);
  });

  it('keeps both of two entries given the same place', async () => {
    await startWithInk(...[1, 2].map(() => entryOf({ kind: 'note', at: header.plugInAt, text: 'same place' }, 2)));
    expect((await liveRuns())[0]?.entries).toHaveLength(5);
  });

  it('says so when storage is full, and keeps what it had', async () => {
    await startWithInk();
    const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    await expect(append(header.id, stop())).rejects.toThrow(/^Not logged. This browser has no room left/);
    full.mockRestore();
    expect((await liveRuns())[0]?.entries).toEqual(ink);
  });
});

describe('filing', () => {
  it('packs a run as one value and lists it; the database it leaves empty is dropped at the next start', async () => {
    await startWithInk(stop());
    const record = await file(header.id);
    expect(record.stop?.because).toBe('window over');
    expect(await liveRuns()).toEqual([]);
    expect((await filedRun(header.id)).entries.slice(0, 3)).toEqual(ink);
    expect(await catalogue()).toMatchObject([{ id: header.id, startLevel: 2, lastLevel: 17, stop: 'window over' }]);
    await tidy();
    expect(await runsWithInk()).not.toContain(header.id);
  });

  it.each([
    ['while packing', runBook, 'setItem'],
    ['while reading back', runBook, 'getItem'],
    ['while listing', catalogueBook, 'setItem'],
    ['while leaving the live list', liveBook, 'removeItem'],
  ] as const)('loses nothing in a crash %s, and ends the same when done again', async (_when, book, step) => {
    await startWithInk(stop());
    const crash = vi.spyOn(book, step as 'setItem').mockRejectedValueOnce(new Error('crash'));
    await expect(file(header.id)).rejects.toThrow();
    crash.mockRestore();
    expect((await liveRuns())[0]?.entries).toHaveLength(4);
    await file(header.id);
    expect((await filedRun(header.id)).entries).toHaveLength(4);
    expect(await liveRuns()).toEqual([]);
  });

  it('drops nothing when what it reads back differs', async () => {
    await startWithInk(stop());
    vi.spyOn(runBook, 'getItem').mockResolvedValueOnce(null).mockResolvedValueOnce({ schema: 1, header, entries: [] });
    await expect(file(header.id)).rejects.toThrow(/does not read back the same/);
    expect(await runsWithInk()).toContain(header.id);
  });

  it('files an amendment that a crash left behind', async () => {
    await startWithInk(stop());
    await file(header.id);
    await append(header.id, entryOf({ kind: 'strike', at: header.plugInAt, target: ink[1]?.id ?? '', reason: 'wrong row' }, 10));
    expect(await tidy()).toEqual({ filed: 1, aside: [] });
    expect((await filedRun(header.id)).entries).toHaveLength(5);
    expect(await tidy()).toEqual({ filed: 0, aside: [] });
  });

  it('takes strikes later, and a stop back', async () => {
    const stopped = stop();
    await startWithInk(stopped);
    await file(header.id);
    const record = await amend(
      header.id,
      entryOf({ kind: 'strike', at: header.plugInAt, target: ink[2]?.id ?? '', reason: 'wrong row' }, 10),
    );
    expect(record.struck).toHaveLength(1);
    expect(await catalogue()).toMatchObject([{ lastLevel: 9 }]);
    const taken = entryOf({ kind: 'strike', at: header.plugInAt, target: stopped.id, reason: 'not full yet' }, 11);
    await unfile(header, [...record.entries, taken]);
    expect((await liveRuns())[0]?.entries).toHaveLength(6);
    expect(await catalogue()).toEqual([]);
    await append(header.id, entryOf({ kind: 'stop', at: header.plugInAt + 900_000, because: 'full' }, 12));
    expect((await file(header.id)).stop?.because).toBe('full');
  });
});

describe('taking runs in', () => {
  const samples = {
    watts: { seconds: Float64Array.from({ length: 70_000 }, (_, index) => index), values: new Float64Array(70_000).fill(9) },
  };

  it('keeps samples in chunks and gives them back whole', async () => {
    await importAll([{ header, entries: ink, samples }]);
    expect((await filedRun(header.id)).samples).toEqual(samples);
    const all: StoredRun[] = [];
    for await (const run of everyRun([], () => undefined)) all.push(run);
    expect(all).toEqual([{ header, entries: ink, samples }]);
  });

  it('joins copies, and stores nothing when one contradicts', async () => {
    await importAll([{ header, entries: ink.slice(0, 2) }]);
    await importAll([{ header, entries: ink }]);
    expect((await filedRun(header.id)).entries).toEqual(ink);
    const fresh = exampleHeader({ id: 'fresh' });
    const bent = ink.map((entry, index) => (index === 0 ? { ...entry, percent: 99 } : entry) as Entry);
    await expect(
      importAll([
        { header: fresh, entries: [] },
        { header, entries: bent },
      ]),
    ).rejects.toThrow(/differs from the one already here/);
    await expect(filedRun('fresh')).rejects.toThrow(/no such run/);
  });
});
