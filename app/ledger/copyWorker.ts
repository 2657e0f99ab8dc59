import { expose } from 'comlink';
import { replay, type Line } from '@core/exchange';
import { isSnapshot } from './snapshotKeys';
import { INK, rowsIn, type Row } from './transactions';

/**
 * The second copy of the logbook: lines appended to files in the origin's private file system, which is kept apart from the databases. A page's
 * lines go to a file of its own, for a file has one writer.
 */

/** What a comparison came to: rows that the databases have lost, by database, and how many lines the copy lacked. */
export interface Compared {
  lost: [book: string, rows: Row[]][];
  written: number;
}

/** Past so many bytes the second copy is written anew, without what has been overwritten since, where half of it has. */
const RENEW = 8_000_000;
/** Ink is only ever added to: what of it is missing was lost, and nothing removed it. */
const RUNS = 'inkpath-runs';
const LIVE = 'inkpath-live';

/** Its folder goes by the name that the worker was given. */
const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle(self.name, { create: true });

let writing: Promise<FileSystemSyncAccessHandle> | undefined;
/** The last place given to a line, of those seen here. */
let newest = 0;
/** What the page wrote while a comparison was under way: it is newer than what was compared. */
let touched: Set<string> | undefined;
const encoder = new TextEncoder();
/** A line begins with its place. */
const AT = /^\{"at":(\d+)/;
const placeOf = (book: string, key = '') => `${book}\n${key}`;

async function begin(): Promise<FileSystemSyncAccessHandle> {
  const file = await (await folder()).getFileHandle(`${Date.now()}-${crypto.randomUUID()}.ndjson`, { create: true });
  return file.createSyncAccessHandle();
}

async function files(): Promise<File[]> {
  const found: File[] = [];
  for await (const file of (await folder()).values()) if (file.kind === 'file') found.push(await file.getFile());
  return found;
}

async function write(lines: readonly string[]): Promise<void> {
  writing ??= begin();
  const file = await writing;
  file.write(encoder.encode(lines.map((line) => `${line}\n`).join('')), { at: file.getSize() });
}

/** Every line of every file. */
async function read(): Promise<string[]> {
  const all: string[][] = [];
  // A last line that was cut off in the middle has no end.
  for (const file of await files()) all.push((await file.text()).split('\n').slice(0, -1));
  return all.flat();
}

function parsed(line: string): Partial<Line> {
  try {
    return (JSON.parse(line) ?? {}) as Partial<Line>;
  } catch {
    return {};
  }
}

/** Writes everything anew as one file, then takes away those it stands for; one that another page is writing to stays. */
async function renew(lines: readonly string[]): Promise<void> {
  const all = await folder();
  const old: string[] = [];
  for await (const name of all.keys()) old.push(name);
  const mine = await begin();
  mine.write(encoder.encode(lines.map((line) => `${line}\n`).join('')));
  mine.flush();
  const before = writing;
  writing = Promise.resolve(mine);
  (await before)?.close();
  for (const name of old) await all.removeEntry(name).catch(() => undefined);
}

/** Whether a value is the one that was copied. A filed run only ever gains entries, so that their number tells. */
function isSame(book: string, value: unknown, said: unknown): boolean {
  const count = (each: unknown) => (each as { entries?: unknown[] } | undefined)?.entries?.length;
  if (book === RUNS && count(value) !== undefined) return count(value) === count(said);
  return JSON.stringify(value) === JSON.stringify(said);
}

async function compare(names: readonly string[]): Promise<Compared> {
  touched = new Set();
  try {
    const lines = await read();
    const said = replay(lines);
    const there = new Set((await indexedDB.databases()).map(({ name = '' }) => name));
    const rowsOf = async (book: string) => (there.has(book) ? await rowsIn(book) : []);
    const ends: Readonly<Record<string, Row[]>> = { [LIVE]: await rowsOf(LIVE), [RUNS]: await rowsOf(RUNS) };
    const keysOf = (book: string) => new Set((ends[book] ?? []).map(([key]) => key));
    const [live, filed] = [keysOf(LIVE), keysOf(RUNS)];
    /** A run whose ink lies here, and of which nothing else does: its header was lost. */
    const isHeaderLost = (book: string, key: string) => book === LIVE && there.has(INK + key) && !filed.has(key);
    const books = new Set([...names, ...[...there, ...said.keys()].filter((name) => name.startsWith(INK))]);
    const lost: Compared['lost'] = [];
    const news: Omit<Line, 'at'>[] = [];
    const whole: Omit<Line, 'at'>[] = [];
    for (const book of books) {
      const copy = said.get(book) ?? new Map<string, unknown>();
      const isInk = book.startsWith(INK);
      const isGone = !there.has(book);
      // Ink whose run is no longer live was filed, and its database dropped.
      const isLive = (run: string) => live.has(run) || (live.size === 0 && said.get(LIVE)?.has(run) && !filed.has(run));
      if (isGone && isInk && !isLive(book.slice(INK.length))) {
        if (copy.size > 0) news.push({ book });
        continue;
      }
      const stored = new Map((ends[book] ?? (await rowsOf(book))).filter(([key]) => !isSnapshot(key)));
      for (const [key, value] of stored) {
        whole.push({ book, key, value });
        if (!copy.has(key) || !isSame(book, value, copy.get(key))) news.push({ book, key, value });
      }
      const missing = [...copy].filter(([key]) => !stored.has(key));
      if (missing.length === 0) continue;
      // One that holds nothing at all was thrown away and made anew; of the others what is missing was removed, and only the copy does not know.
      const isLost = ([key]: Row) => isGone || isInk || book === RUNS || stored.size === 0 || isHeaderLost(book, key);
      const back = missing.filter(isLost);
      if (back.length > 0) lost.push([book, back]);
      whole.push(...back.map(([key, value]) => ({ book, key, value })));
      news.push(...missing.filter((row) => !isLost(row)).map(([key]) => ({ book, key })));
    }
    newest = lines.reduce((most, line) => Math.max(most, Number(AT.exec(line)?.[1] ?? 0)), newest);
    const isFresh = ({ book, key }: Omit<Line, 'at'>) => !touched?.has(placeOf(book, key)) && !touched?.has(placeOf(book));
    const numbered = (some: readonly Omit<Line, 'at'>[]) => some.filter(isFresh).map((line) => JSON.stringify({ at: newest, ...line }));
    const size = lines.reduce((sum, line) => sum + line.length, 0);
    const anew = size > RENEW ? numbered(whole) : [];
    if (size > RENEW && touched.size === 0 && anew.reduce((sum, line) => sum + line.length, 0) < size / 2) await renew(anew);
    else if (news.length > 0) await write(numbered(news));
    const kept = lost.map(([book, rows]): Compared['lost'][number] => [book, rows.filter(([key]) => isFresh({ book, key }))]);
    return { lost: kept.filter(([, rows]) => rows.length > 0), written: news.length };
  } finally {
    touched = undefined;
  }
}

const secondCopy = {
  /** Appends lines; they are with the system once this resolves, and outlive a killed browser. */
  async append(lines: readonly string[]): Promise<void> {
    for (const line of lines) {
      const { at = 0, book = '', key } = parsed(line);
      newest = Math.max(newest, at);
      touched?.add(placeOf(book, key));
    }
    await write(lines);
  },

  read,

  /** The last place that any line has: the clock may have gone back since. */
  async newest(): Promise<number> {
    const TAIL = 65_536;
    for (const file of await files()) {
      const lines = (await file.slice(Math.max(0, file.size - TAIL)).text()).split('\n');
      newest = lines.reduce((most, line) => Math.max(most, Number(AT.exec(line)?.[1] ?? 0)), newest);
    }
    return newest;
  },

  compare,
};
export type SecondCopy = typeof secondCopy;

expose(secondCopy);
