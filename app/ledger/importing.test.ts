// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant, quiet, refuse, stored, storedKeys } from './testBrowser';
import { beforeEach, describe, expect, it } from 'vitest';
import { type StoredRun } from '@core/exchange';
import { inkOf, type Entry, type Header } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { file, remove, start, write, writeNext } from './acts';
import { entryOf } from './entries';
import { catalogue, filedRun } from './filed';
import { importAll as importIncoming } from './importing';
import { incomingOf } from './incoming';
import { liveRuns } from './live';
import { exclusively, sharing } from './locks';
import { PICTURES } from './keys';
import { SAMPLES } from './samples';
import { IMPORTING, sweep, sweepRemoved } from './sweep';
import type { StoredRow } from './transactions';
import { TAKING } from './unnamed';

let header: Header;
let ink: Entry[];
let run: StoredRun;
const importAll = (
  runs: StoredRun[],
  { rows = [], pictures: shots = [] }: { rows?: readonly StoredRow[]; pictures?: readonly StoredRow<Blob>[] } = {},
) => importIncoming(incomingOf(runs, { pictures: shots }), { rows });
const samples = { watts: { seconds: Float64Array.of(0, 1), values: Float64Array.of(9, 9) } };
const gear: StoredRow[] = [['charger/new', { shelf: 'charger' }]];
const pictures: StoredRow<Blob>[] = [['p1', new Blob(['x'])]];

beforeEach(async () => {
  await emptyBrowser();
  header = exampleHeader({ id: `run-${Math.random().toString(36).slice(2)}` });
  ink = inkOf(header, [
    { seconds: 0, percent: 2 },
    { seconds: 300, percent: 9 },
  ]);
  run = { header, entries: ink, samples };
});
const changed = (change: object) => ink.map((entry, index) => (index === 0 ? { ...entry, ...change } : entry));

describe('an import beside a run that is live', () => {
  beforeEach(() => start([{ header, entries: ink }]));

  it('refuses ink that contradicts what is live, and stores nothing', async () => {
    const other = exampleHeader({ id: 'other' });
    await expect(
      importAll(
        [
          { header: other, entries: [] },
          { header, entries: changed({ watts: 40 }) },
        ],
        { rows: gear },
      ),
    ).rejects.toThrow(/differs.*Nothing was imported/);
    expect([...(await storedKeys('run')), ...(await storedKeys('charger')), ...(await storedKeys('unnamed'))]).toEqual([]);
    // The run goes on, is stopped and filed as if there had been no file.
    await write([{ runId: header.id, entry: entryOf({ kind: 'stop', at: header.plugInAt + 600_000, because: 'window over' }, 3) }]);
    await file(header.id);
    expect((await filedRun(header.id)).entries).toHaveLength(3);
  });

  it('leaves a live run live: a backup of it is not listed as finished, and what it lacked is added to its ink', async () => {
    const more = entryOf({ kind: 'note', at: header.plugInAt, text: 'from the file' }, 3);
    await importAll([{ header, entries: [...ink, more] }]);
    expect(await catalogue()).toEqual([]);
    expect((await liveRuns())[0]?.entries.map(({ id }) => id)).toEqual([...ink, more].map(({ id }) => id));
  });

  it('joins it where it lies by then, when it is filed while the import is under way', async () => {
    const more = entryOf({ kind: 'note', at: header.plugInAt, text: 'from the file' }, 3);
    await Promise.all([importAll([{ header, entries: [...ink, more] }]), file(header.id)]);
    expect(await liveRuns()).toEqual([]);
    expect((await filedRun(header.id)).entries).toHaveLength(3);
    expect(await catalogue()).toHaveLength(1);
  });
});

it('is called off at any step, though the worker that had the runs has ended, and nothing of it stays', async () => {
  const never = () => new Promise<never>(() => undefined);
  const whole = () => incomingOf([run, { header: exampleHeader({ id: 'here' }), entries: ink }], { pictures });
  await importAll([{ header: exampleHeader({ id: 'here' }), entries: ink }]);
  for (const dead of [{ look: never }, { storeApart: never }, { next: never }, { join: never }]) {
    const work = new AbortController();
    const coming = importIncoming({ ...whole(), ...dead }, { rows: gear, signal: work.signal });
    await quiet();
    work.abort();
    await expect(coming).rejects.toThrow(/abort/);
    expect(await storedKeys('run')).toEqual(['run/here']);
    expect([
      ...(await storedKeys(undefined, SAMPLES)),
      ...(await storedKeys(undefined, PICTURES)),
      ...(await storedKeys('unnamed')),
    ]).toEqual([]);
  }
  // Called off before it had its turn.
  await expect(importIncoming({ ...whole(), look: never }, { signal: AbortSignal.abort() })).rejects.toThrow(/abort/);
});

it('refuses what could not be read back, whoever hands it over', async () => {
  await expect(importAll([{ header, entries: changed({ percent: 130 }) }])).rejects.toThrow(/Nothing was imported.*percent/);
  await expect(importAll([{ ...run, header: { ...header, id: '../x' } }])).rejects.toThrow(/Nothing was imported/);
  expect(await storedKeys('run')).toEqual([]);
});

describe('an import that is killed', () => {
  /** As a browser that is killed: the dead clear nothing up. */
  const killAfter = (changes: number) => refuse((nth) => nth > changes);
  const everything = async () => ({
    runs: (await storedKeys('run')).length,
    listed: (await catalogue()).length,
    gear: (await storedKeys('charger')).length,
    samples: (await storedKeys(undefined, SAMPLES)).length,
    pictures: (await storedKeys(undefined, PICTURES)).length,
    unnamed: (await storedKeys('unnamed')).length,
  });
  const ALL = { runs: 2, listed: 2, gear: 1, samples: 2, pictures: 1, unnamed: 0 };
  const NOTHING = { runs: 0, listed: 0, gear: 0, samples: 0, pictures: 0, unnamed: 0 };

  it('leaves nothing or everything, wherever it was killed', async () => {
    const outcomes = new Set<string>();
    for (let changes = 0; changes < 20; changes += 1) {
      await emptyBrowser();
      const revive = killAfter(changes);
      const second = { header: exampleHeader({ id: 'second' }), entries: ink };
      const isDone = await importAll([run, second], { rows: gear, pictures }).then(
        () => true,
        () => false,
      );
      revive();
      // The next start.
      await sweep();
      const found = await everything();
      expect(found).toEqual(isDone ? ALL : NOTHING);
      outcomes.add(JSON.stringify(found));
      if (found.runs > 0) expect((await filedRun(header.id)).samples).toEqual(samples);
    }
    expect(outcomes.size).toBe(2);
  });

  it('takes nothing of another away: what the dead left is swept before the next begins', async () => {
    const revive = killAfter(5);
    await importAll([run], { pictures }).catch(() => undefined);
    revive();
    await importAll([run], { pictures });
    await sweep();
    expect((await filedRun(header.id)).samples).toEqual(samples);
    expect(await storedKeys(undefined, PICTURES)).toEqual(['p1']);
  });

  it('is undone whole', async () => {
    const { undo } = await importAll([run], { rows: gear, pictures });
    await undo();
    await sweep();
    expect(await everything()).toEqual(NOTHING);
  });
});

describe('the sweep', () => {
  it('takes the samples and pictures of a run that was removed, but no picture that another run shows', async () => {
    const shot = (picture: string, seq: number) =>
      entryOf({ kind: 'picture', at: header.plugInAt, picture, target: ink[0]?.id ?? '' }, seq);
    const other = { header: exampleHeader({ id: 'half' }), entries: [...ink, shot('shared', 3)] };
    const shots: StoredRow<Blob>[] = ['p1', 'shared'].map((id) => [id, new Blob([id])]);
    await importAll([{ ...run, entries: [...ink, shot('p1', 3), shot('shared', 4)] }, other], { pictures: shots });
    await remove(header.id);
    expect(await storedKeys(undefined, SAMPLES)).toHaveLength(2);
    await sweepRemoved();
    expect(await storedKeys(undefined, SAMPLES)).toEqual([]);
    expect(await storedKeys(undefined, PICTURES)).toEqual(['shared']);
    expect(await storedKeys('unnamed')).toEqual([]);
  });

  it('leaves a picture that is just being taken, and takes one whose ink was never written', async () => {
    await plant('p1', new Blob(['x']), PICTURES);
    await plant('unnamed/picture/p1', { pictures: ['p1'] });
    await sharing(TAKING, sweep);
    expect(await storedKeys(undefined, PICTURES)).toEqual(['p1']);
    await sweep();
    expect(await storedKeys(undefined, PICTURES)).toEqual([]);
  });

  it('leaves what another tab is importing', async () => {
    await plant('run/x', {});
    await plant('unnamed/import/x', { runs: ['x'] });
    await exclusively(IMPORTING, sweep);
    expect(await stored('run/x')).toEqual({});
    await sweep();
    expect(await stored('run/x')).toBeUndefined();
  });

  it('no longer takes a picture once its ink is written', async () => {
    await start([{ header, entries: ink }]);
    await plant('p1', new Blob(['x']), PICTURES);
    await plant('unnamed/picture/p1', { pictures: ['p1'] });
    await write([
      { runId: header.id, entry: entryOf({ kind: 'picture', at: header.plugInAt, picture: 'p1', target: ink[0]?.id ?? '' }, 3) },
    ]);
    await sweep();
    expect(await storedKeys(undefined, PICTURES)).toEqual(['p1']);
  });
});

it('waits for an amendment that is under way, and loses neither', async () => {
  await importAll([{ header, entries: ink }]);
  const more = entryOf({ kind: 'note', at: header.plugInAt, text: 'from a file' }, 9);
  await Promise.all([
    writeNext([{ runId: header.id, draft: { kind: 'strike', at: header.plugInAt, target: ink[1]?.id ?? '', reason: 'wrong row' } }]),
    importAll([{ header, entries: [...ink, more] }]),
  ]);
  const { entries } = await filedRun(header.id);
  expect(entries.map(({ kind }) => kind).sort()).toEqual(['note', 'reading', 'reading', 'strike']);
});
