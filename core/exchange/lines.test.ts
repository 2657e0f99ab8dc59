import { expect, it } from 'vitest';
import { lineText, linesIn, replayLines, voidText } from './lines';

const put = (i: number, n: number, ...put: [string, unknown][]) => lineText(i, { n, put, gone: [] });
const gone = (i: number, n: number, ...gone: string[]) => lineText(i, { n, put: [], gone });
const told = (...pages: string[]) =>
  Object.fromEntries(
    [...replayLines(new Map(pages.map((text, page) => [String(page), linesIn(text)])))].map(([key, { value }]) => [key, value]),
  );

it('comes to what stood after the last act, whichever page it was of', () => {
  expect(told(put(1, 1, ['live/a', 1]) + gone(2, 4, 'live/b'), put(1, 2, ['live/b', 1]) + put(2, 3, ['live/a', 2]))).toEqual({
    'live/a': 2,
    'live/b': undefined,
  });
});

it('says nothing of an act that was not done, nor of the one after it that had its number', () => {
  const text = put(1, 7, ['ink/a', 'not done'], ['ink/b', 'not done']) + put(2, 7, ['ink/a', 'done']) + voidText(1);
  expect(told(text)).toEqual({ 'ink/a': 'done' });
});

it('leaves out a line that was cut off, and whatever is none', () => {
  expect(told(`null\n[]\n\n{"n":1\n${put(3, 1, ['device/x', { name: 'x' }])}{"n":2,"i":4,"put":[["device/x",`)).toEqual({
    'device/x': { name: 'x' },
  });
});
