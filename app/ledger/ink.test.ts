// First: it puts the database in place that the others look for as they load.
import { emptyBrowser } from './testBrowser';
import { beforeEach, describe, expect, it } from 'vitest';
import { inkOf, type Entry } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { inkOfRun } from './databases';
import { file, filedRun } from './filing';
import { allInk, takeSnapshots, inkBySnapshots, SNAPSHOT_SIZE } from './ink';
import { append, entryOf, missedInk, startRun } from './ledger';
import { readAhead, readNow } from './readAhead';
import { isSnapshot } from './snapshotKeys';

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
  await startRun(header, ink);
});

/** How many snapshots lie in its database. */
const snapshots = async (): Promise<number> => (await inkOfRun(id).keys()).filter(isSnapshot).length;

describe('the ink of a live run, in snapshots', () => {
  it('is the same by its snapshots as entry by entry, and grows on', async () => {
    await takeSnapshots(id, Date.now() + LATER);
    expect(await snapshots()).toBe(2);
    const next = entryOf({ kind: 'note', at: Date.now(), text: 'after' }, 251);
    await append(id, next);
    expect(await inkBySnapshots(id)).toEqual([...ink, next]);
    expect(await allInk(id)).toEqual([...ink, next]);
    for (let seq = 252; seq <= 300; seq += 1) await append(id, entryOf({ kind: 'note', at: Date.now(), text: `${seq}` }, seq));
    await takeSnapshots(id, Date.now() + LATER);
    expect(await snapshots()).toBe(3);
    expect((await inkBySnapshots(id)).map(({ seq }) => seq)).toEqual(Array.from({ length: 300 }, (_, index) => index + 1));
  });

  it('leaves alone what has only just been stored', async () => {
    await takeSnapshots(id, Date.now() + 59_000);
    expect(await snapshots()).toBe(0);
  });

  it('is looked through against its entries: one that came late among those gathered is found, and the snapshots are dropped', async () => {
    await takeSnapshots(id, Date.now() + LATER);
    expect(await missedInk(id, await inkBySnapshots(id))).toBeUndefined();
    const late = entryOf({ kind: 'note', at: Date.now(), text: 'of a tab that had lost the run' }, SNAPSHOT_SIZE - 1);
    await append(id, late);
    const shown = await inkBySnapshots(id);
    expect(shown).not.toContainEqual(late);
    expect(await missedInk(id, shown)).toContainEqual(late);
    expect(await snapshots()).toBe(0);
    expect(await inkBySnapshots(id)).toContainEqual(late);
  });

  it('is filed from its entries alone', async () => {
    await takeSnapshots(id, Date.now() + LATER);
    await file(id);
    expect((await filedRun(id)).entries).toEqual(ink);
  });

  it('is read ahead of the program, for the one who opens the logbook', async () => {
    const ahead = readAhead();
    expect(await ahead.ink(id)).toEqual(ink);
    const next = entryOf({ kind: 'note', at: Date.now(), text: 'after' }, 251);
    await append(id, next);
    expect(await readNow.ink(id)).toEqual([...ink, next]);
  });
});
