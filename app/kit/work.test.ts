import { expect, it, vi } from 'vitest';
import { seldom } from './work';

it('tells of a long work now and then, and always of its end', () => {
  vi.useFakeTimers({ toFake: ['performance'] });
  const told: number[] = [];
  const tell = seldom((done) => told.push(done));
  for (let done = 1; done <= 1000; done += 1) {
    vi.advanceTimersByTime(1);
    tell(done, 1000);
  }
  expect(told).toHaveLength(11);
  expect([told[0], told.at(-1)]).toEqual([1, 1000]);
  vi.useRealTimers();
});
