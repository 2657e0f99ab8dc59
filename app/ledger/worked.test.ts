// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant, stored, uproot } from './testBrowser';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { inkOf } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { remove, writeNext } from './acts';
import { eachFiled } from './filed';
import { importAll } from './importing';
import { incomingOf } from './incoming';
import { sampleRows, SAMPLES } from './samples';
import { sweepRemoved } from './sweep';
import { WORKED, workedOut } from './worked';

beforeEach(async () => {
  await emptyBrowser();
  vi.useFakeTimers({ toFake: ['setTimeout'] });
});
afterEach(() => vi.useRealTimers());

async function fileAway(id: string, levels: readonly number[]): Promise<void> {
  const header = exampleHeader({ id });
  const entries = inkOf(
    header,
    levels.map((percent, row) => ({ seconds: row * 300, percent })),
  );
  await importAll(incomingOf([{ header, entries }]));
}

/** How many entries and columns each run has: told of those of which nothing was kept. */
let asked: string[] = [];
async function count(ids: readonly string[]): Promise<(string | undefined)[]> {
  asked = [...ids];
  return eachFiled(ids, (run) => `${run.entries.length} entries, ${Object.keys(run.samples ?? {}).length} columns`);
}
async function counted(how: string | undefined, ...ids: string[]): Promise<(string | undefined)[]> {
  asked = [];
  const found = await workedOut('beside', ids, how, count);
  vi.runAllTimers();
  await vi.waitFor(async () => {
    for (const id of asked)
      if (how && found[ids.indexOf(id)]) expect(await stored(id, WORKED)).toMatchObject({ value: found[ids.indexOf(id)] });
  });
  return found;
}

it('is done once for a run that stays as it is, and by what it hangs on', async () => {
  await fileAway('a', [10, 20]);
  await fileAway('b', [10, 20, 30]);
  expect(await counted('so', 'a', 'none', 'b')).toEqual(['2 entries, 0 columns', undefined, '3 entries, 0 columns']);
  expect(asked).toEqual(['a', 'b']);
  expect(await counted('so', 'b', 'a')).toEqual(['3 entries, 0 columns', '2 entries, 0 columns']);
  expect(asked).toEqual([]);
  await counted('otherwise', 'a');
  expect(asked).toEqual(['a']);
  await counted(undefined, 'b');
  expect(asked).toEqual(['b']);
});

it('is done again for a run that has more ink or more columns since, or another under its id', async () => {
  await fileAway('a', [10, 20]);
  await fileAway('b', [10, 20]);
  await counted('so', 'a', 'b');
  await writeNext([{ runId: 'a', draft: { kind: 'note', at: 0, text: 'seen again' } }]);
  expect(await counted('so', 'a', 'b')).toEqual(['3 entries, 0 columns', '2 entries, 0 columns']);
  expect(asked).toEqual(['a']);
  for (const [key, value] of sampleRows('b', { watts: { seconds: Float64Array.of(0, 1), values: Float64Array.of(5, 5) } }))
    await plant(key, value, SAMPLES);
  expect(await counted('so', 'a', 'b')).toEqual(['3 entries, 0 columns', '2 entries, 1 columns']);
  expect(asked).toEqual(['b']);
  // Removed, and another of as many entries came in.
  await remove('b');
  await sweepRemoved();
  expect(await stored('b', WORKED)).toBeUndefined();
  expect(await counted('so', 'b')).toEqual([undefined]);
  await fileAway('b', [50, 60]);
  expect(await counted('so', 'b')).toEqual(['2 entries, 0 columns']);
  expect(asked).toEqual(['b']);
});

it('keeps what is drawn of a run apart from how it lies beside others, and forgets both with it', async () => {
  await fileAway('a', [10]);
  await counted('so', 'a');
  const drawn = () => workedOut('glimpse', ['a'], 'so', () => Promise.resolve(['drawn']));
  expect(await drawn()).toEqual(['drawn']);
  vi.runAllTimers();
  await vi.waitFor(async () => expect(await stored('a/glimpse', WORKED)).toMatchObject({ value: 'drawn' }));
  expect(await workedOut('glimpse', ['a'], 'so', () => Promise.reject(new Error('It is kept.')))).toEqual(['drawn']);
  expect(await counted('so', 'a')).toEqual(['1 entries, 0 columns']);
  expect(asked).toEqual([]);
  await remove('a');
  await sweepRemoved();
  expect(await stored('a', WORKED)).toBeUndefined();
  expect(await stored('a/glimpse', WORKED)).toBeUndefined();
});

it('is no worse than done again where what was kept is gone', async () => {
  await fileAway('a', [10]);
  await counted('so', 'a');
  await uproot('a', WORKED);
  expect(await counted('so', 'a')).toEqual(['1 entries, 0 columns']);
});
