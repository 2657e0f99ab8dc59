// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, plant } from '../ledger/testBrowser';
import { expect, it } from 'vitest';
import { figuresOf } from '@core/curve';
import { foldRun, inkOf, SCHEMA } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { eachFiled } from '../ledger/filed';
import { besideStored, openedOf } from './opened';

it('holds a run of half a million samples as values, with no column in it', () => {
  const seconds = Float64Array.from({ length: 500_000 }, (_, index) => index / 10);
  const watts = { seconds, values: seconds.map((second) => (second === 1234.5 ? 31 : 18)) };
  const record = foldRun(exampleHeader(), [], { watts });
  const opened = openedOf(record);
  expect(opened.figures).toEqual(figuresOf(record));
  expect(opened.run).not.toHaveProperty('tracks');
  expect(opened.sketch.tracks.watts.values.length).toBeLessThanOrEqual(1500);
  expect(Array.from(opened.sketch.tracks.watts.values)).toContain(31);
  expect(JSON.stringify(opened).length).toBeLessThan(200_000);
});

it('lays runs beside each other in their order, without those that are not here or cannot be read', async () => {
  await emptyBrowser();
  const header = exampleHeader({ id: 'one' });
  const entries = inkOf(header, [
    { seconds: 0, percent: 10 },
    { seconds: 300, percent: 20 },
  ]);
  await plant('run/one', { schema: SCHEMA, header, entries });
  await plant('run/newer', { schema: SCHEMA + 1, header: { ...header, id: 'newer' }, entries });
  await plant('run/damaged', { schema: SCHEMA, header: { ...header, id: 'damaged' } });
  const found = await eachFiled(['newer', 'one', 'none', 'damaged'], (run) => besideStored(run, 400));
  expect(found.map((each) => each?.run.header.id)).toEqual([undefined, 'one', undefined, undefined]);
  expect(found[1]?.figures.startLevel).toBe(10);
});
