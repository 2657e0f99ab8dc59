// First: it puts the database in place that the others look for as they load.
import { emptyBrowser } from './testBrowser';
import { beforeEach, expect, it, vi } from 'vitest';
import { runBook, shelfBook, storeMissing } from './databases';
import { compareCopy, mend } from './restoreFromCopy';

const line = (at: number, book: string, key: string, value: unknown) => JSON.stringify({ at, book, key, value });
const copy = vi.hoisted(() => ({ lines: [] as string[], lost: [] as [string, [string, unknown][]][] }));
vi.mock('./secondCopy', () => ({
  copyDown: () => undefined,
  isCopied: () => Promise.resolve(true),
  copied: () => Promise.resolve(copy.lines),
  compared: () => Promise.resolve({ lost: copy.lost, written: 0 }),
}));

beforeEach(emptyBrowser);

it('brings back what is missing, and writes over nothing that stands', async () => {
  await shelfBook.setItem('charger/a', 'as it is now');
  copy.lines = [
    line(1, 'inkpath-shelf', 'charger/a', 'as it was'),
    line(2, 'inkpath-shelf', 'charger/b', 'lost'),
    line(3, 'somebody else’s', 'x', 1),
  ];
  expect(await mend()).toBe(true);
  expect(await shelfBook.getItem('charger/a')).toBe('as it is now');
  expect(await shelfBook.getItem('charger/b')).toBe('lost');
  expect((await indexedDB.databases()).map(({ name }) => name)).not.toContain('somebody else’s');
});

it('gives back ink that the databases have lost and the copy still has', async () => {
  copy.lost = [['inkpath-runs', [['run-1', { entries: [] }]]]];
  expect(await compareCopy()).toBe(true);
  expect(await runBook.getItem('run-1')).toEqual({ entries: [] });
  expect(await compareCopy()).toBe(false);
});

it('stores all of what is missing or, where one cannot be stored, none', async () => {
  await expect(
    storeMissing('inkpath-shelf', [
      ['a', 1],
      ['b', () => undefined],
    ]),
  ).rejects.toThrow();
  expect(await shelfBook.getItem('a')).toBeNull();
});
