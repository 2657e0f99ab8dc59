// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant, refuse, stored, storedKeys } from './testBrowser';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type StoredRun } from '@core/exchange';
import { inkOf, type Draft, type Entry, type Header } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { adoptInk, drop, file, remove, reopen, save, start, write, writeNext } from './acts';
import { entryOf } from './entries';
import { catalogue, everyRun, filedRun } from './filed';
import { importAll } from './importing';
import { incomingOf } from './incoming';
import { liveRuns } from './live';
import { changing, reading } from './transactions';
import { inkKey, keysOf, LOGBOOK } from './keys';

let header: Header;
let ink: Entry[];
const note = (text: string, seq: number): Entry => entryOf({ kind: 'note', at: header.plugInAt, text }, seq);
const stop = (seq = 9): Entry => entryOf({ kind: 'stop', at: header.plugInAt + 700_000, because: 'window over' }, seq);
const add = (...entries: Entry[]) => write(entries.map((entry) => ({ runId: header.id, entry })));

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
  await start([{ header, entries: ink.slice(0, 1) }]);
  for (const entry of [...ink.slice(1), ...more]) await add(entry);
};

const everything = () => reading(LOGBOOK, async (store) => JSON.stringify([await store.getAllKeys(), await store.getAll()]));

describe('every act', () => {
  const acts: Readonly<Record<string, () => Promise<unknown>>> = {
    'a start of two': () => start(['a', 'b'].map((id) => ({ header: exampleHeader({ id }), entries: ink }))),
    'ink of a live run and of one that was filed': () => write(['live', 'filed'].map((runId) => ({ runId, entry: note('both', 20) }))),
    filing: () => file('live'),
    'a run that is reopened': () => reopen('filed', 'B', undefined),
    'a removal': () => remove('filed'),
    'gear and a study': () =>
      save([
        ['device/x', { name: 'x' }],
        ['study/y', { name: 'y' }],
      ]),
  };
  it.each(Object.keys(acts))('%s is done whole, or leaves all as it was, wherever it fails', async (name) => {
    const outcomes = new Set<boolean>();
    for (let nth = 1; !outcomes.has(true); nth += 1) {
      await emptyBrowser();
      await start(['live', 'filed'].map((id) => ({ header: exampleHeader({ id }), entries: ink })));
      await file('filed');
      const before = await everything();
      const mend = refuse((each) => each === nth);
      const isDone = await (acts[name]?.() ?? Promise.reject(new Error(name))).then(
        () => true,
        (error: unknown) => {
          expect(String(error)).toMatch(/no room left/);
          return false;
        },
      );
      mend();
      expect((await everything()) !== before).toBe(isDone);
      outcomes.add(isDone);
      expect(nth).toBeLessThan(40);
    }
    expect(outcomes.size).toBe(2);
  });

  it('can be undone, unless something was changed since', async () => {
    await save([['device/x', { name: 'before' }]]);
    const { undo } = await save([
      ['device/x', { name: 'after' }],
      ['charger/y', { name: 'new' }],
    ]);
    await undo();
    expect([await stored('device/x'), await stored('charger/y')]).toEqual([{ name: 'before' }, undefined]);
    const dropped = await drop('device/x');
    expect(await storedKeys('device')).toEqual([]);
    await dropped.undo();
    expect(await stored('device/x')).toEqual({ name: 'before' });
    const again = await save([['device/x', { name: 'after' }]]);
    await save([['device/x', { name: 'of another tab' }]]);
    await expect(again.undo()).rejects.toThrow(/^Nothing was undone. It was changed since/);
    expect(await stored('device/x')).toEqual({ name: 'of another tab' });
  });

  it('on a run is undone as a run is: ink is struck, a filed run is live again, a removed one is back', async () => {
    await startWithInk();
    const { undo } = await add(note('slip', 4));
    await undo();
    expect((await liveRuns())[0]?.entries.map(({ kind }) => kind)).toEqual(['reading', 'reading', 'reading', 'note', 'strike']);
    const filed = await file(header.id);
    expect(await catalogue()).toHaveLength(1);
    await filed.undo();
    expect([await catalogue(), (await liveRuns())[0]?.entries.length]).toEqual([[], 5]);
    await file(header.id);
    const removed = await remove(header.id);
    expect(await catalogue()).toEqual([]);
    await removed.undo();
    expect((await filedRun(header.id)).entries).toHaveLength(5);
  });
});

describe('a live run', () => {
  it('comes back with all its ink, in order', async () => {
    await startWithInk();
    expect(await liveRuns()).toEqual([{ header, entries: ink }]);
  });

  it('keeps both of two entries given the same place', async () => {
    await startWithInk(...[1, 2].map(() => note('same place', 2)));
    expect((await liveRuns())[0]?.entries).toHaveLength(5);
  });

  it('refuses an entry that its schema does not let in, and ink of a run that is gone', async () => {
    await startWithInk();
    await expect(add({ ...note('x', 4), text: 7 } as unknown as Entry)).rejects.toThrow(/^Not logged. It cannot be stored: text/);
    const both = [header.id, 'gone'].map((runId) => ({ runId, entry: note('x', 4) }));
    await expect(write(both)).rejects.toThrow(/^Not logged. There is no such run/);
    expect((await liveRuns())[0]?.entries).toHaveLength(3);
    await remove(header.id);
    await expect(add(note('x', 4))).rejects.toThrow(/^Not logged. There is no such run/);
    expect(await storedKeys('ink')).toEqual([]);
  });

  it('that was filed just then gets its entry where it lies now; after a kill, at the next start', async () => {
    await startWithInk();
    await file(header.id);
    await add(note('just then', 4));
    expect((await filedRun(header.id)).entries.at(-1)).toMatchObject({ text: 'just then' });
    const left = note('left by a kill', 5);
    await plant(inkKey(header.id, left), left);
    await adoptInk();
    expect((await filedRun(header.id)).entries.at(-1)).toEqual(left);
    expect(await storedKeys('ink')).toEqual([]);
  });
});

describe('filing', () => {
  it('packs a run as one value, lists it, and takes its ink from the live', async () => {
    await startWithInk(stop());
    await file(header.id);
    expect(await liveRuns()).toEqual([]);
    expect((await filedRun(header.id)).entries.slice(0, 3)).toEqual(ink);
    expect(await catalogue()).toMatchObject([{ id: header.id, startLevel: 2, lastLevel: 17, stop: 'window over' }]);
    expect([...(await storedKeys('ink')), ...(await storedKeys('live'))]).toEqual([]);
    await file(header.id);
    await expect(file('none')).rejects.toThrow(/lost its header/);
  });

  it('takes along what was logged while it was worked out', async () => {
    await startWithInk(stop());
    const filing = file(header.id);
    await add(note('late', 10));
    await filing;
    expect((await filedRun(header.id)).entries.at(-1)).toMatchObject({ text: 'late' });
    expect((await catalogue())[0]?.id).toBe(header.id);
  });

  it('takes strikes later, and a stop back', async () => {
    const stopped = stop();
    await startWithInk(stopped);
    await file(header.id);
    await writeNext([{ runId: header.id, draft: { kind: 'strike', at: header.plugInAt, target: ink[2]?.id ?? '', reason: 'wrong row' } }]);
    expect(await catalogue()).toMatchObject([{ lastLevel: 9 }]);
    await reopen(header.id, 'C', { stop: stopped.id });
    expect((await liveRuns())[0]).toMatchObject({ header: { lane: 'C' }, entries: { length: 6 } });
    expect(await catalogue()).toEqual([]);
    await expect(reopen(header.id, 'C', undefined)).rejects.toThrow(/^The run was not resumed/);
    await add(entryOf({ kind: 'stop', at: header.plugInAt + 900_000, because: 'full' }, 12));
    await file(header.id);
    expect(await catalogue()).toMatchObject([{ stop: 'full' }]);
  });

  it('loses neither of two entries that are added at once, nor one that is added while the run is reopened', async () => {
    await startWithInk(stop());
    await file(header.id);
    const draft = (text: string): Draft => ({ kind: 'note', at: header.plugInAt, text });
    await Promise.all([
      ...['one', 'other'].map((text) => writeNext([{ runId: header.id, draft: draft(text) }])),
      reopen(header.id, undefined, undefined),
    ]);
    expect((await liveRuns())[0]?.entries.flatMap((each) => (each.kind === 'note' ? [each.text] : [])).sort()).toEqual(['one', 'other']);
    expect(await catalogue()).toEqual([]);
  });

  it('begins anew where a run was changed by something else meanwhile', async () => {
    await startWithInk(stop());
    await file(header.id);
    const adding = add(note('mine', 10));
    await changing(LOGBOOK, async (store) => {
      const run = (await store.get(`run/${header.id}`)) as { entries: Entry[] };
      await store.put({ ...run, entries: [...run.entries, note('theirs', 10)] }, `run/${header.id}`);
    });
    await adding;
    expect((await filedRun(header.id)).entries).toHaveLength(6);
  });
});

describe('samples and copies', () => {
  const samples = {
    watts: { seconds: Float64Array.from({ length: 70_000 }, (_, index) => index), values: new Float64Array(70_000).fill(9) },
  };

  it('are kept in chunks and given back whole', async () => {
    await importAll(incomingOf([{ header, entries: ink, samples }]));
    expect((await filedRun(header.id)).samples).toEqual(samples);
    const all: StoredRun[] = [];
    for await (const run of everyRun([], () => undefined)) all.push(run);
    expect(all).toEqual([{ header, entries: ink, samples }]);
  });

  it('are joined, and nothing is stored when one contradicts', async () => {
    await importAll(incomingOf([{ header, entries: ink.slice(0, 2) }]));
    await importAll(incomingOf([{ header, entries: ink }]));
    expect((await filedRun(header.id)).entries).toEqual(ink);
    const fresh = exampleHeader({ id: 'fresh' });
    const bent = ink.map((entry, index) => (index === 0 ? { ...entry, percent: 99 } : entry) as Entry);
    await expect(
      importAll(
        incomingOf([
          { header: fresh, entries: [] },
          { header, entries: bent },
        ]),
      ),
    ).rejects.toThrow(/differs from the one already here/);
    await expect(filedRun('fresh')).rejects.toThrow(/no such run/);
  });
});

it('numbers its acts on and on, though the clock went back', async () => {
  await startWithInk();
  const number = async () => ((await reading(LOGBOOK, (store) => store.getAll(keysOf('page')))) as number[])[0] ?? 0;
  const before = await number();
  expect(before).toBeGreaterThanOrEqual(Date.now() - 60_000);
  vi.spyOn(Date, 'now').mockImplementation(() => 5);
  await add(note('x', 4));
  vi.restoreAllMocks();
  expect(await number()).toBe(before + 1);
});
