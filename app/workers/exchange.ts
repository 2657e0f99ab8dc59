import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import { align, type Alignment } from '@core/curve';
import {
  CsvReader,
  foldStored,
  ImportError,
  LogbookReader,
  peek,
  requireUnpacked,
  restOf,
  runFromCsv,
  type CsvOptions,
  type CsvRun,
  type Logbook,
  type Peek,
  type Rest,
} from '@core/exchange';
import type { Header } from '@core/ink';
import { seldom, type Progress } from '../kit/work';
import { filedRun } from '../ledger/filed';
import { conflictsHere, incomingOf, laidInto, type Incoming, type Laying, type RunConflicts, type Settlement } from '../ledger/incoming';
import { picturesOf } from '../ledger/pictures';
import { StorageTrouble, whyOf } from '../ledger/storageTrouble';

/** What was read of a device's log: its columns and its entries stay where they were read. */
export type LogSeen = Omit<CsvRun, 'samples' | 'entries' | 'beside'>;

/** What a file turned out to be. Its runs stay where they were read, until they are stored. */
export type ReadFile =
  | { kind: 'logbook'; runs: string[]; rest: Rest }
  /** One for each device that it is of. */
  | { kind: 'csv'; logs: LogSeen[] };

/** Which of the logs that were read becomes which run. */
export interface Taken {
  log: number;
  header: Header;
}

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
async function readThrough(file: Blob, reader: { push: (text: string) => void }, progress: Progress): Promise<void> {
  const text = await textOf(file);
  const tell = seldom(progress);
  let read = 0;
  for (let next = await text.read(); !next.done; next = await text.read()) {
    reader.push(next.value);
    read += next.value.length;
    tell(Math.min(read, file.size), file.size);
  }
}

function seen(log: CsvRun): LogSeen {
  const { device, plugInAt, timeOfDay, length, either, rows, skipped, understood, ignored } = log;
  return { device, plugInAt, timeOfDay, length, either, rows, skipped, understood, ignored };
}

/** What was read last, and how it comes in. */
let [book, logs, incoming]: [Logbook | undefined, CsvRun[], Incoming] = [undefined, [], incomingOf([])];

const logAt = (index: number): CsvRun => logs[index] ?? impossible();

function impossible(): never {
  throw new ImportError('The file is no longer at hand. Choose it again.');
}

/** Trouble is told on the other side by what stood in the way alone: what did not happen is known there. */
async function plainly<Result>(work: Promise<Result>): Promise<Result> {
  try {
    return await work;
  } catch (error) {
    throw error instanceof StorageTrouble ? new StorageTrouble(whyOf(error)) : error;
  }
}

/** Files are read here, and what is large of them is stored, so that a large one never stops the clock. A worker is ended when its work is called off. */
const exchange = {
  /** Looks at the head of a log: its first rows, and what its columns seem to hold. */
  async peek(file: Blob): Promise<Peek> {
    const text = new TextDecoder(await encodingOf(file)).decode(await file.slice(0, HEAD).arrayBuffer());
    const whole = file.size > HEAD ? text.slice(0, text.lastIndexOf('\n')) : text;
    return peek(whole);
  },

  /**
   * Reads a file: JSON as a logbook, anything else as CSV. Stores nothing, and keeps what was read at hand.
   *
   * @throws {ImportError} saying what, where and the way out
   */
  async read(file: Blob, name: string, options: CsvOptions, progress: Progress): Promise<ReadFile> {
    requireUnpacked(new Uint8Array(await file.slice(0, 8).arrayBuffer()), name);
    const begins = await file.slice(0, 4096).text();
    if (/\.json$/i.test(name) || /^\s*[{[]/.test(begins)) {
      const reader = new LogbookReader(name);
      await readThrough(file, reader, progress);
      book = reader.end();
      return { kind: 'logbook', runs: book.runs.map(({ header }) => header.id), rest: restOf(book) };
    }
    const reader = new CsvReader(name, options);
    await readThrough(file, reader, progress);
    const csv = reader.end();
    logs = [csv, ...csv.beside];
    return { kind: 'csv', logs: logs.map(seen) };
  },

  /** Where the log that was read lies in a run; `undefined` where nothing of both rises and falls. */
  align: async (id: string): Promise<Alignment | undefined> => align(foldStored(await filedRun(id)), logAt(0).samples),

  /**
   * Adds the samples of a backup that lie in a folder beside it, a file a run.
   *
   * @returns how many runs they were added to
   * @throws {ImportError} saying which file cannot be read
   */
  async addSamples(folder: FileSystemDirectoryHandle, newest: Readonly<Record<string, string>>): Promise<number> {
    const { runs } = book ?? impossible();
    let added = 0;
    for (const run of runs) {
      const name = newest[run.header.id];
      if (name === undefined) continue;
      const reader = new LogbookReader(name);
      await readThrough(await (await folder.getFileHandle(name)).getFile(), reader, () => undefined);
      const found = reader.end().runs.find(({ header }) => header.id === run.header.id);
      if (!found) throw new ImportError(`${name} holds no samples of its run. Choose another backup, or take that file out of the folder.`);
      Object.assign(run, { samples: found.samples, logs: found.logs });
      added += 1;
    }
    return added;
  },

  /** Where the logbook that was read contradicts what is here. @throws {StorageTrouble} */
  conflicts: (): Promise<RunConflicts[]> => plainly(conflictsHere((book ?? impossible()).runs)),

  /** What comes in: the logbook that was read, … */
  takeBook(settled?: Settlement, owner = ''): void {
    const { runs, pictures = {} } = book ?? impossible();
    // Whose a run is stays with it, through however many hands it goes.
    const owned = owner ? runs.map((run) => ({ ...run, header: { ...run.header, owner: run.header.owner ?? owner } })) : runs;
    incoming = incomingOf(owned, { pictures: picturesOf(pictures), isChecked: true, ...(settled && { settled }) });
  },
  /** … runs made of logs, … */
  takeRuns(taken: readonly Taken[]): void {
    incoming = incomingOf(taken.map(({ log, header }) => runFromCsv(logAt(log), header, () => nanoid(12), Date.now())));
  },
  /** … or a log that is laid into a run. @throws {StorageTrouble} where there is none */
  async takeLog(id: string, laying: Laying): Promise<void> {
    incoming = incomingOf([await plainly(laidInto(id, logAt(0), laying))]);
  },
  look: () => plainly(incoming.look()),
  storeApart: (step: () => void) => plainly(incoming.storeApart(step)),
  next: () => plainly(incoming.next()),
  join: (id: string) => plainly(incoming.join(id)),
};
export type Exchange = typeof exchange;

expose(exchange);
