// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant, stored, storedKeys } from './testBrowser';
import { beforeEach, expect, it } from 'vitest';
import type { Samples } from '@core/samples';
import { dropSamples, sampleKeysOf, sampleRows, sampleRoot, SAMPLES, spanOfRun, spanOfStream, streamsOf } from './samples';

beforeEach(emptyBrowser);

const column = (rows: number, of: (at: number) => number) => {
  const seconds = Float64Array.from({ length: rows }, (_, row) => row / 10);
  return { seconds, values: seconds.map(of) };
};
const samples: Samples = {
  percent: column(50, (at) => Math.floor(at)),
  // The same moments, counted by another; and a thermometer with moments of its own.
  watts: column(50, (at) => 18 - at / 1000),
  celsius: { seconds: Float64Array.of(0, 60, 120), values: Float64Array.of(21, 24, 27) },
};
async function keep(id: string, kept: Samples, log?: string): Promise<void> {
  for (const [key, value] of sampleRows(sampleRoot(id, log), kept)) await plant(key, value, SAMPLES);
}

it('keeps the times of a meter once, and gives every column its own back', async () => {
  await keep('a', samples);
  await keep('a', samples, 'later');
  const { samples: found, logs } = await streamsOf('a');
  expect(found).toEqual(samples);
  expect(logs).toEqual({ later: samples });
  expect(found?.watts?.seconds).toBe(found?.percent?.seconds);
  expect(await stored('a/watts/000000', SAMPLES)).not.toHaveProperty('seconds');
});

it('joins what is too long for one value', async () => {
  const rows = 140_000;
  await keep('a', { watts: column(rows, (at) => at * 2) });
  expect(await storedKeys(undefined, SAMPLES)).toEqual(['a/seconds/000000', 'a/seconds/000001', 'a/watts/000000', 'a/watts/000001']);
  const { seconds, values } = (await streamsOf('a')).samples?.watts ?? {};
  expect([seconds?.length, values?.length]).toEqual([rows, rows]);
  for (const row of [0, 131_071, 131_072, rows - 1]) expect([seconds?.[row], values?.[row]]).toEqual([row / 10, (row / 10) * 2]);
});

it('reads a column alone, whether its times are shared or its own', async () => {
  await keep('a', samples);
  expect((await streamsOf('a', ['watts'])).samples).toEqual({ watts: samples.watts });
  expect((await streamsOf('a', ['celsius'])).samples).toEqual({ celsius: samples.celsius });
  expect((await streamsOf('a', ['volts'])).samples).toEqual({});
});

it('reads what was stored before times were shared', async () => {
  for (const quantity of ['percent', 'watts'] as const)
    await plant(`old/${quantity}/000000`, { seconds: Float64Array.of(0, 1), values: Float64Array.of(2, 3) }, SAMPLES);
  const { samples: found } = await streamsOf('old');
  expect(found?.watts).toEqual({ seconds: Float64Array.of(0, 1), values: Float64Array.of(2, 3) });
  expect(found?.watts?.seconds).toBe(found?.percent?.seconds);
});

it('finds the columns of many runs with one question, whatever they are called', async () => {
  const ids = ['a', 'a-1', 'a_', 'A', 'b', ...Array.from({ length: 30 }, (_, index) => `r${index}`)];
  for (const id of ['a', 'a-1', 'b', 'r7', 'other', 'a0']) await keep(id, { watts: column(3, () => 9) }, id === 'b' ? 'log' : undefined);
  const each = await Promise.all(ids.map(async (id) => (await sampleKeysOf([id]))[0] ?? []));
  expect(await sampleKeysOf(ids)).toEqual(each);
  expect(each.filter((keys) => keys.length > 0)).toHaveLength(4);
});

it('takes away the columns of an import, of one log, or all of a run', async () => {
  await keep('a', samples);
  await keep('a', samples, 'later');
  await keep('a', samples, 'other');
  await keep('ab', samples);
  await dropSamples(spanOfStream('a', 'later'));
  await dropSamples(spanOfStream('a'));
  expect(await streamsOf('a')).toEqual({ logs: { other: samples } });
  await dropSamples(spanOfRun('a'));
  expect(await streamsOf('a')).toEqual({});
  expect((await streamsOf('ab')).samples).toEqual(samples);
});
