import { expect, it } from 'vitest';
import { EXPORTS } from './exports';
import { sizeSays, writeSize } from './size';

it('a size is told as a person reads it', () => {
  expect([0, 14_300, 999_999, 1_240_000, 31_400_000].map(writeSize)).toEqual(['1 kB', '14 kB', '1000 kB', '1.2 MB', '31 MB']);
});

it('what a file will come to is said where there are runs in it, more for more of them', () => {
  const [logbook] = EXPORTS;
  expect(sizeSays(logbook, { runs: 0, entries: 0, values: 0 })).toBe('');
  expect(sizeSays(logbook, { runs: 2, entries: 27, values: 0 })).toBe('about 11 kB');
  expect(sizeSays(logbook, { runs: 2, entries: 27, values: 1e6 })).toBe('about 12 MB');
});
