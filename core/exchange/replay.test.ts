import { expect, it } from 'vitest';
import { replay } from './replay';

const line = (at: number, book: string, key?: string, value?: unknown) => JSON.stringify({ at, book, key, value });
const told = (...lines: string[]) => Object.fromEntries([...replay(lines)].map(([book, rows]) => [book, Object.fromEntries(rows)]));

it('comes to what stood after the last line, whatever the order of the files', () => {
  expect(told(line(3, 'live', 'a', 2), line(1, 'live', 'a', 1), line(2, 'live', 'b', 1), line(4, 'live', 'b'))).toEqual({ live: { a: 2 } });
});

it('drops a whole database, and takes up what came after', () => {
  expect(told(line(1, 'ink', '1', 'x'), line(2, 'ink'), line(3, 'ink', '2', 'y'))).toEqual({ ink: { 2: 'y' } });
});

it('leaves out lines that were cut off or are none', () => {
  expect(told('{"at":1,"book":"li', 'null', '[]', '', line(1, 'shelf', 'k', { name: 'x' }))).toEqual({ shelf: { k: { name: 'x' } } });
});

it('keeps the order of lines of one moment', () => {
  expect(told(line(1, 'live', 'a', 1), line(1, 'live', 'a', 2))).toEqual({ live: { a: 2 } });
});
