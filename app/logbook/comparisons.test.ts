// First: it puts the database in place that the others look for as they load.
import { emptyBrowser, newTab, storedKeys } from '../ledger/testBrowser';
import { beforeEach, expect, it } from 'vitest';
import { useComparisons } from './comparisons';

beforeEach(async () => {
  await emptyBrowser();
});

it('saves a comparison by its name, over one of that name alone, and finds it by its runs in any order', async () => {
  const comparisons = useComparisons();
  const { id } = await comparisons.save({ name: 'Vans', runs: ['a', 'b'], level: '80' });
  const edits = [{ need: 'to-80', text: 'Take A.', made: 'A\nSurely slower: B.' }];
  await comparisons.save({ name: 'Vans ', runs: ['b', 'a'], edits });
  await comparisons.save({ name: 'Boat', runs: ['a', 'c'] });
  newTab();
  const again = useComparisons();
  await again.load();
  expect(again.all).toHaveLength(2);
  expect(again.of(['a', 'b'])).toMatchObject({ id, name: 'Vans', edits });
  expect(again.of(['a'])).toBeUndefined();
  expect(again.freeName('Boat')).toBe('Boat (2)');
  expect(again.freeName('Barn')).toBe('Barn');
  await again.remove(id);
  expect(again.all.map(({ name }) => name)).toEqual(['Boat']);
});

it('refuses one without a name, or of one run, and stores nothing', async () => {
  const comparisons = useComparisons();
  await expect(comparisons.save({ name: ' ', runs: ['a', 'b'] })).rejects.toThrow('Give it a name.');
  await expect(comparisons.save({ name: 'One', runs: ['a'] })).rejects.toThrow('two runs');
  expect(await storedKeys('comparison')).toEqual([]);
});
