// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, storedKeys } from './testBrowser';
import { beforeEach, describe, expect, it } from 'vitest';
import { inkOf, type Draft, type Entry } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { file, start, write } from './acts';
import { entryOf } from './entries';
import { filedRun } from './filed';
import { liveRun } from './live';
import { readAhead, readNow } from './readAhead';
import { missedInk, SNAPSHOT_SIZE, takeSnapshots } from './snapshots';

const LATER = 61_000;
let id: string;
let ink: Entry[];

beforeEach(async () => {
  await emptyBrowser();
  const header = exampleHeader({ id: `run-${Math.random().toString(36).slice(2)}`, plugInAt: Date.now() - 7200_000 });
  id = header.id;
  ink = inkOf(
    header,
    Array.from({ length: 250 }, (_, row) => ({ seconds: row * 20, percent: Math.floor(row / 3) })),
  ).map((entry) => ({ ...entry, written: Date.now() }));
  await start([{ header, entries: ink }]);
});

/** How many snapshots there are. */
const snapshots = async (): Promise<number> => (await storedKeys('snapshot')).length;
const append = (entry: Entry) => write([{ runId: id, entry }]);
const note = (text: string): Draft => ({ kind: 'note', at: Date.now(), text });

describe('the ink of a live run, in snapshots', () => {
  it('is the same by its snapshots as entry by entry, and grows on', async () => {
    await takeSnapshots(id, Date.now() + LATER);
    expect(await snapshots()).toBe(10);
    const next = entryOf(note('after'), 251);
    await append(next);
    expect(await readNow.ink(id)).toEqual([...ink, next]);
    expect((await liveRun(id))?.entries).toEqual([...ink, next]);
    for (let seq = 252; seq <= 300; seq += 1) await append(entryOf(note(`${seq}`), seq));
    await takeSnapshots(id, Date.now() + LATER);
    expect(await snapshots()).toBe(12);
    expect((await readNow.ink(id)).map(({ seq }) => seq)).toEqual(Array.from({ length: 300 }, (_, index) => index + 1));
  });

  it('leaves alone what has only just been stored', async () => {
    await takeSnapshots(id, Date.now() + 59_000);
    expect(await snapshots()).toBe(0);
  });

  it('is looked through against its entries: one that came late among those gathered is found, and the snapshots are dropped', async () => {
    await takeSnapshots(id, Date.now() + LATER);
    expect(await missedInk(id, await readNow.ink(id))).toBeUndefined();
    const late = entryOf({ kind: 'note', at: Date.now(), text: 'of a tab that had lost the run' }, SNAPSHOT_SIZE - 1);
    await append(late);
    const shown = await readNow.ink(id);
    expect(shown).not.toContainEqual(late);
    expect(await missedInk(id, shown)).toContainEqual(late);
    expect(await snapshots()).toBe(0);
    expect(await readNow.ink(id)).toContainEqual(late);
  });

  it('is filed from its entries alone', async () => {
    await takeSnapshots(id, Date.now() + LATER);
    await file(id);
    expect((await filedRun(id)).entries).toEqual(ink);
    expect(await snapshots()).toBe(0);
  });

  it('is read ahead of the program, for the one who opens the logbook', async () => {
    const ahead = readAhead();
    expect(await ahead.ink(id)).toEqual(ink);
    const next = entryOf(note('after'), 251);
    await append(next);
    expect(await readNow.ink(id)).toEqual([...ink, next]);
  });
});
