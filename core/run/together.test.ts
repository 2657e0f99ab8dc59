import { expect, it } from 'vitest';
import { finerFrom } from '../curve/finer';
import { checksOf } from '../curve/notices';
import { inkOf, type Jotted } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { newsOf } from './together';

const cadence = { kind: 'coarse then fine', every: 600, level: 90, then: 300 } as const;
const lane = (id: string, jotted: Jotted[], changes = {}) => {
  const header = exampleHeader({ id, group: 'set', cadence, ...changes });
  return foldRun(header, inkOf(header, jotted));
};

// Common practice, no source: every 10 min, then every 5 min once the first of the set reaches 90 %.
it('makes every lane of a set fine from the moment at which the first of them shows the level', () => {
  const first = lane('a', [
    { seconds: 0, percent: 60 },
    { seconds: 1190, percent: 91 },
  ]);
  const slow = lane('b', [
    { seconds: 0, percent: 5 },
    { seconds: 1200, percent: 40 },
  ]);
  const news = newsOf([slow, first]);
  expect(news).toMatchObject([
    { runId: 'b', draft: { event: 'fine', remark: 'Sedge 5 showed 90 %', at: slow.header.plugInAt + 1_190_000 } },
  ]);
  const told = foldRun(slow.header, [...slow.entries, ...news.map(({ draft }) => ({ ...draft, seq: 9, id: 'n', written: draft.at }))]);
  expect(finerFrom(told)).toBe(1190);
  expect(checksOf(told, 2200).map(({ due, last }) => [due, last])).toEqual([
    [600, 600],
    [1200, 1200],
    [1500, 1800],
    [2100, 2100],
  ]);
  expect(checksOf(slow, 2200).map(({ due }) => due)).toEqual([600, 1200, 1800]);
  // Told once, it is not told again.
  expect(newsOf([told, first])).toEqual([]);
});

it('leaves alone what is of no set, of another, or read otherwise', () => {
  const first = lane('a', [{ seconds: 0, percent: 95 }]);
  const low: Jotted[] = [{ seconds: 0, percent: 5 }];
  const others = [
    lane('b', low, { group: undefined }),
    lane('c', low, { group: 'another' }),
    lane('d', low, { cadence: { kind: 'fixed', every: 300 } }),
  ];
  expect(newsOf([first, ...others])).toEqual([]);
});
