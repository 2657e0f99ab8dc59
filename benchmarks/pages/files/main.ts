import { wrap } from 'comlink';
import type { Files } from './worker';

/** What the program does with files, done bare, for the benchmark to ask. */
const files = () => wrap<Files>(new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }));

Object.assign(window, {
  papa: async (rows: Blob) => files().papa(rows),
  bringIn: async (book: Blob, summaries: object[]) => files().bringIn(book, summaries),
  takeOut: async () => files().takeOut(),
  exportsBeside: async () => files().exportsBeside(),
  heldOfMost: async () => files().heldOfMost(),
});
