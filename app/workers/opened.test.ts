import { expect, it } from 'vitest';
import { figuresOf } from '@core/curve';
import { foldRun } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { openedOf } from './opened';

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
