import { expose } from 'comlink';
import Papa from 'papaparse';
import { CsvReader } from '@core/exchange';
import { sampleRows, SAMPLES } from '../../../app/ledger/samples';
import { storeMissing } from '../../../app/ledger/transactions';

/** How much comes at once, in bytes: as a file is read. */
const PIECE = 64 * 1024;

async function pieces(file: Blob, take: (text: string) => void): Promise<void> {
  const reader = file
    .stream()
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array<ArrayBuffer>>)
    .getReader();
  for (let next = await reader.read(); !next.done; next = await reader.read()) take(next.value);
}

const importer = {
  /** A log to typed columns, stored. @returns seconds */
  async mine(file: Blob): Promise<number> {
    const began = performance.now();
    const reader = new CsvReader('log.csv');
    await pieces(file, (text) => {
      reader.push(text);
    });
    const { samples } = reader.end();
    for (const row of sampleRows(`run-${began}`, samples)) await storeMissing(SAMPLES, [row]);
    return (performance.now() - began) / 1000;
  },
  /** The same text through Papa Parse alone, chunked, without a heading. @returns seconds */
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
    return (performance.now() - began) / 1000;
  },
};
export type Importer = typeof importer;

expose(importer);
