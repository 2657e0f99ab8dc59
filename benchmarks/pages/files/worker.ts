import { expose } from 'comlink';
import Papa from 'papaparse';
import { changing, reading } from '../../../app/ledger/transactions';
import { LOGBOOK } from '../../../app/ledger/keys';
import { exportsBeside, heldOfMost } from './exported';

/** How much comes at once, in bytes: as a file is read. */
const PIECE = 64 * 1024;

async function pieces(file: Blob, take: (text: string) => void): Promise<void> {
  const reader = file
    .stream()
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array<ArrayBuffer>>)
    .getReader();
  for (let next = await reader.read(); !next.done; next = await reader.read()) take(next.value);
}

/** Each returns how long it took, in milliseconds. */
const files = {
  /** A text through Papa Parse alone, chunked, without a heading. */
  async papa(file: Blob): Promise<number> {
    const began = performance.now();
    let [rest, rows] = ['', 0];
    const parse = (isLast: boolean) => {
      const { data, meta } = Papa.parse<string[]>(isLast ? rest : rest.slice(0, rest.lastIndexOf('\n') + 1), { delimiter: ',' });
      rows += data.length;
      rest = isLast ? '' : rest.slice(meta.cursor);
    };
    await pieces(file, (text) => {
      rest += text;
      if (rest.length >= PIECE) parse(false);
    });
    parse(true);
    if (rows < 2) throw new Error('Nothing was parsed.');
    return performance.now() - began;
  },

  /** A logbook parsed whole, and its runs and their summaries put in one transaction. */
  async bringIn(file: Blob, summaries: readonly object[]): Promise<number> {
    const began = performance.now();
    const { runs } = JSON.parse(await file.text()) as { runs: object[] };
    await changing(LOGBOOK, (store) => {
      for (const [index, run] of runs.entries()) {
        void store.put(run, `run/${index}`);
        void store.put(summaries[index], `listed/${index}`);
      }
      return Promise.resolve();
    });
    return performance.now() - began;
  },

  /** The same runs read and put into words. */
  async takeOut(): Promise<number> {
    const began = performance.now();
    const all = await reading(LOGBOOK, (store) => store.getAll(IDBKeyRange.bound('run/', 'run0')));
    const file = new Blob([JSON.stringify({ runs: all })]);
    if (file.size < 1000) throw new Error('Nothing was read.');
    return performance.now() - began;
  },

  exportsBeside,
  heldOfMost,
};
export type Files = typeof files;

expose(files);
