import { expose, transfer } from 'comlink';
import {
  CsvReader,
  LogbookReader,
  logbookParts,
  peek,
  runMisfit,
  type CsvOptions,
  type CsvRun,
  type Logbook,
  settingsFit,
  type Peek,
  type Rest,
  type StoredRun,
} from '@core/exchange';

/** What a file turned out to be. */
export type ReadFile = { kind: 'logbook'; logbook: Logbook } | { kind: 'csv'; csv: CsvRun };

/** How much of a file tells its encoding and its columns, in bytes. */
const HEAD = 131_072;

/**
 * The encoding of a text: by its byte order mark; UTF-16 without one by the zeros between its letters; what is no UTF-8 is taken for Windows-1252,
 * which holds all of Latin-1.
 */
async function encodingOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.slice(0, HEAD).arrayBuffer());
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const zeros = (from: number) => bytes.subarray(0, 400).filter((byte, index) => index % 2 === from && byte === 0).length;
  const half = Math.min(200, Math.floor(bytes.length / 2));
  if (half > 4 && zeros(1) > 0.8 * half) return 'utf-16le';
  if (half > 4 && zeros(0) > 0.8 * half) return 'utf-16be';
  try {
    // The last letter may be cut through.
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true });
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

async function textOf(file: Blob): Promise<ReadableStreamDefaultReader<string>> {
  const label = await encodingOf(file);
  return file
    .stream()
    .pipeThrough(new TextDecoderStream(label) as ReadableWritablePair<string, Uint8Array<ArrayBuffer>>)
    .getReader();
}

/** Reads a text to its end, and says now and then how far it is. */
async function readThrough(file: Blob, reader: { push: (text: string) => void }, progress: (share: number) => void): Promise<void> {
  const text = await textOf(file);
  let [read, told] = [0, 0];
  for (let next = await text.read(); !next.done; next = await text.read()) {
    reader.push(next.value);
    read += next.value.length;
    if (read - told < file.size / 100) continue;
    told = read;
    progress(Math.min(1, read / file.size));
  }
}

/** What a logbook is written from: each asked for when it is its turn, `undefined` when there are no more. */
export interface Sources {
  run: () => Promise<StoredRun | undefined>;
  picture: () => Promise<[id: string, address: string] | undefined>;
  /** Asked for when all of these have gone by. */
  rest: () => Promise<Rest>;
}

async function* each<Item>(next: () => Promise<Item | undefined>): AsyncGenerator<Item> {
  for (let item = await next(); item !== undefined; item = await next()) yield item;
}

/** Parts are handed to the browser, which keeps them out of the way, when they come to so many characters. */
const HANDFUL = 4_000_000;

/** The room that the columns of a log take: it is handed over, not copied. */
const columnsIn = (csv: CsvRun): Transferable[] => [
  ...new Set(
    [csv, ...csv.beside].flatMap(({ samples }) => Object.values(samples).flatMap(({ seconds, values }) => [seconds.buffer, values.buffer])),
  ),
];

/** Files are read and written here, so that a large one never stops the clock. A worker is ended when its work is called off. */
const exchange = {
  /** Looks at the head of a log: its first rows, and what its columns seem to hold. */
  async peek(file: Blob): Promise<Peek> {
    const text = new TextDecoder(await encodingOf(file)).decode(await file.slice(0, HEAD).arrayBuffer());
    const whole = file.size > HEAD ? text.slice(0, text.lastIndexOf('\n')) : text;
    return peek(whole);
  },

  /** Reads a file: JSON as a logbook, anything else as CSV. Stores nothing. @throws {ImportError} saying what, where and the way out */
  async read(file: Blob, name: string, options: CsvOptions, progress: (share: number) => void): Promise<ReadFile> {
    const begins = await file.slice(0, 4096).text();
    if (/\.json$/i.test(name) || /^\s*[{[]/.test(begins)) {
      const reader = new LogbookReader(name);
      await readThrough(file, reader, progress);
      return { kind: 'logbook', logbook: reader.end() };
    }
    const reader = new CsvReader(name, options);
    await readThrough(file, reader, progress);
    const csv = reader.end();
    return transfer({ kind: 'csv', csv }, columnsIn(csv));
  },

  /**
   * Writes a logbook, and reads it back before it is called written.
   *
   * @returns the file, and the runs that would not have read back: they are left out
   * @throws {ImportError} when it does not read back as it was written
   */
  async write({ run, picture, rest }: Sources): Promise<{ file: Blob; unfit: [id: string, why: string][] }> {
    const unfit: [string, string][] = [];
    let entries = 0;
    async function* fitting() {
      for await (const one of each(run)) {
        const found = runMisfit(one);
        if (found) unfit.push([one.header.id, `At ${found.path} it ${found.says}.`]);
        else {
          entries += one.entries.length;
          yield one;
        }
      }
    }
    const parts: Blob[] = [];
    let [text, length]: [string[], number] = [[], 0];
    for await (const part of logbookParts(fitting(), each(picture), async () => settingsFit(await rest()))) {
      text.push(part);
      length += part.length;
      if (length < HANDFUL) continue;
      parts.push(new Blob(text));
      [text, length] = [[], 0];
    }
    const file = new Blob([...parts, ...text], { type: 'application/json' });
    let back = 0;
    const reader = new LogbookReader('The file', (one) => {
      back += one.entries.length;
      return undefined;
    });
    await readThrough(file, reader, () => undefined);
    reader.end();
    if (back !== entries) throw new Error(`The file holds ${back} entries of ink and not ${entries}: it was not saved. Try again.`);
    return { file, unfit };
  },
};
export type Exchange = typeof exchange;

expose(exchange);
