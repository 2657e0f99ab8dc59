import { expose } from 'comlink';
import { lineText, linesIn, replayLines, type Line } from '@core/exchange';
import { idIn, keyOf, keysOf, LOGBOOK, SETTLED } from './keys';
import { isKeyCopied } from './kinds';
import { exclusively } from './locks';
import { countFrom, nextNumber, type Settled } from './order';
import { changing, reading, rowsWithin, type Readable, type StoredRow } from './transactions';

/**
 * The second copy of the logbook: lines appended to files in the origin's private file system, which is kept apart from the databases. A page's
 * lines go to a file of its own, for a file has one writer; a page that is open holds a lock by its name.
 */

/** Past so many bytes the second copy is written anew, without what has been overwritten since, where half of it has. */
const RENEW = 8_000_000;
/** What is written or stored at once comes to no more than this, in characters, unless one value does. */
const CHARACTERS_AT_ONCE = 1_000_000;
/** How much of a file's end is read at first, in bytes: a line nearly always lies in it. */
const TAIL = 16_384;
/** Files of past pages, beyond which it is written anew. */
const MOST_FILES = 30;
/** Files that were written anew begin so. */
const BASE = 'base-';
const ENDS = '.ndjson';
const pageLock = (page: string) => `inkpath/page/${page}`;

const encoder = new TextEncoder();
let me = '';
let mine: Promise<FileSystemSyncAccessHandle> | undefined;
let written = 0;

/** Its folder goes by the name that the worker was given. */
const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle(self.name, { create: true });

const begin = async (page: string): Promise<FileSystemSyncAccessHandle> =>
  (await (await folder()).getFileHandle(page + ENDS, { create: true })).createSyncAccessHandle();

async function append(text: string): Promise<void> {
  mine ??= begin(me);
  const file = await mine;
  file.write(encoder.encode(text), { at: file.getSize() });
}

/** The files of pages that are no longer open. */
async function filesLeft(open: ReadonlySet<string>): Promise<Map<string, File>> {
  const files = new Map<string, File>();
  for await (const [name, file] of (await folder()).entries())
    if (file.kind === 'file' && !open.has(name.slice(0, -ENDS.length))) files.set(name.slice(0, -ENDS.length), await file.getFile());
  return files;
}

/** What a file holds. One of a page that is open may be written to while it is read: then once more. */
async function textOf(file: File): Promise<string> {
  for (let tries = 0; ; tries += 1) {
    try {
      return await (await (await (await folder()).getFileHandle(file.name)).getFile()).text();
    } catch (error) {
      if (tries === 20) throw error;
    }
  }
}

const openPages = async (): Promise<Set<string>> => {
  const { held = [] } = await navigator.locks.query();
  return new Set(held.flatMap(({ name = '' }) => (name.startsWith(pageLock('')) ? [name.slice(pageLock('').length)] : [])));
};

/** Whether no other page is open. */
const isAlone = (open: ReadonlySet<string>): boolean => ![...open].some((page) => page !== me);

/** The lines at the end of a file. */
async function tailOf(file: File): Promise<Line[]> {
  for (let size = TAIL; ; size *= 4) {
    const text = await file.slice(Math.max(0, file.size - size)).text();
    const isAll = size >= file.size;
    const lines = linesIn(isAll ? text : text.slice(text.indexOf('\n') + 1));
    if (lines.length > 0 || isAll) return lines;
  }
}

interface Stands {
  settled: Settled | undefined;
  /** The last act of each page that has one. */
  by: Map<string, number>;
}
const standsIn = async (store: Readable): Promise<Stands> => {
  const [settled, rows] = await Promise.all([
    store.get(SETTLED) as Promise<Settled | undefined>,
    rowsWithin<number>(store, keysOf('page')),
  ]);
  return { settled, by: new Map(rows.map(([key, n]) => [idIn(key), n])) };
};

/**
 * Looks whether the logbook and its second copy agree, by the last act of each page that is no longer open, and makes good what is missing in either.
 *
 * @returns whether anything was brought back into the logbook
 */
async function compare(): Promise<boolean> {
  const open = await openPages();
  const [{ settled, by }, files] = [await reading(LOGBOOK, standsIn), await filesLeft(open)];
  const upTo = (page: string) => by.get(page) ?? settled?.settled ?? 0;
  const tails = new Map<string, Line[]>();
  for (const [page, file] of files) tails.set(page, await tailOf(file));
  const lastOf = (page: string) => tails.get(page)?.at(-1)?.n ?? 0;
  let isAhead = false;
  for (const [page, lines] of tails) isAhead ||= lastOf(page) > upTo(page) && !(await stands(lines.at(-1)));
  const isBehind = [...by].some(([page, n]) => !open.has(page) && lastOf(page) < n) || (await lacksInk([...tails.values()], open));
  let isMended = false;
  if (isAhead || isBehind) {
    const pages = new Map<string, Line[]>();
    for (const [page, file] of await filesLeft(new Set([me]))) pages.set(page, linesIn(await textOf(file)));
    const said = replayLines(pages);
    const lost = [...said].filter(([, { page, n }]) => !open.has(page) && n > upTo(page));
    if (lost.length > 0)
      isMended = await bringBack(
        lost.map(([key, { value }]) => [key, value]),
        isAlone(open),
      );
    if (isBehind) await catchUp(new Map([...said].map(([key, { value }]) => [key, value])));
  }
  await settle(open, Math.max(0, ...[...tails.keys()].map(lastOf)));
  return isMended;
}

/** Whether what a line says was stored is there. */
const stands = async (line: Line | undefined): Promise<boolean> =>
  line !== undefined &&
  line.gone.length === 0 &&
  (await reading(LOGBOOK, (store) => Promise.all(line.put.map(([key]) => store.getKey(key))))).every((key) => key !== undefined);

/**
 * Whether live ink of late stands in no file: an entry has no number beside it (act.ts), and its page may have been killed before its line was
 * written.
 */
async function lacksInk(tails: readonly Line[][], open: ReadonlySet<string>): Promise<boolean> {
  const since = Math.max(0, ...tails.map(([first]) => first?.n ?? 0));
  const told = new Set(tails.flat().flatMap(({ put }) => put.map(([key]) => key)));
  // Another page that is open writes its own.
  if (!isAlone(open)) return false;
  return reading(LOGBOOK, async (store) => {
    for (const live of await store.getAllKeys(keysOf('live'))) {
      let cursor = await store.openCursor(keysOf('ink', idIn(live as string)), 'prev');
      // The number of a line is never less than the clock of its entry.
      for (; cursor && (cursor.value as { written: number }).written > since; cursor = await cursor.continue())
        if (!told.has(cursor.key as string)) return true;
    }
    return false;
  });
}

/** In handfuls: what is logged meanwhile in another tab never waits for long. */
function* handfuls(rows: readonly StoredRow[]): Generator<StoredRow[]> {
  let [handful, size]: [StoredRow[], number] = [[], 0];
  for (const row of rows) {
    const length = JSON.stringify(row[1] ?? null).length;
    if (handful.length > 0 && size + length > CHARACTERS_AT_ONCE) {
      yield handful;
      [handful, size] = [[], 0];
    }
    handful.push(row);
    size += length;
  }
  if (handful.length > 0) yield handful;
}

/**
 * Stores what the lines say and the logbook lacks.
 *
 * @param alone whether no other page is open: else what stands may be newer, and is left
 * @returns whether anything was other than it stood
 */
async function bringBack(rows: readonly StoredRow[], alone: boolean): Promise<boolean> {
  let isOther = false;
  for (const handful of handfuls(rows))
    await changing(LOGBOOK, async (store) => {
      const stood = await Promise.all(handful.map(([key]) => store.get(key)));
      for (const [index, [key, value]] of handful.entries()) {
        if (JSON.stringify(stood[index]) === JSON.stringify(value) || (!alone && stood[index] !== undefined)) continue;
        isOther = true;
        await (value === undefined ? store.delete(key) : store.put(value, key));
      }
    });
  return isOther;
}

/** Writes down what stands in the logbook and not in the second copy. */
async function catchUp(said: ReadonlyMap<string, unknown>): Promise<void> {
  const stored = new Map((await reading(LOGBOOK, (store) => rowsWithin(store))).filter(([key]) => isKeyCopied(key)));
  const news = [...stored].filter(([key, value]) => JSON.stringify(said.get(key)) !== JSON.stringify(value));
  const gone = [...said].flatMap(([key, value]) => (value !== undefined && !stored.has(key) ? [key] : []));
  for (const handful of handfuls([...news, ...gone.map((key): StoredRow => [key, undefined])])) {
    // What another tab has changed since is its own to write down.
    const fresh: StoredRow[] = [];
    const n = nextNumber();
    await changing(LOGBOOK, async (store) => {
      for (const [key] of handful) {
        const value: unknown = await store.get(key);
        if (JSON.stringify(value) === JSON.stringify(stored.get(key))) fresh.push([key, value]);
      }
      await store.put(n, keyOf('page', me));
    });
    await append(
      lineText(-(written += 1), {
        n,
        put: fresh.filter(([, value]) => value !== undefined),
        gone: fresh.flatMap(([key, value]) => (value === undefined ? [key] : [])),
      }),
    );
  }
}

/** Counts on from the last act there is, and forgets pages whose lines stand. */
const settle = (open: ReadonlySet<string>, last: number): Promise<void> =>
  changing(LOGBOOK, async (store) => {
    const { settled, by } = await standsIn(store);
    const n = Math.max(settled?.settled ?? 0, last, ...by.values());
    for (const page of by.keys()) if (!open.has(page)) await store.delete(keyOf('page', page));
    await store.put({ createdAt: settled?.createdAt ?? Date.now(), settled: n } satisfies Settled, SETTLED);
    countFrom(n);
  });

/** Keeps the second copy short: where it has grown long, or lies in many files, it is written anew from the logbook, while no other page is open. */
async function renew(): Promise<void> {
  const open = await openPages();
  const files = await filesLeft(open);
  const sizeOf = (some: Iterable<readonly [string, File]>) => [...some].reduce((sum, [, { size }]) => sum + size, 0);
  const past = [...files].filter(([page]) => !page.startsWith(BASE));
  const isLong = sizeOf(files) >= RENEW && 2 * sizeOf(past) >= sizeOf(files);
  if (!isAlone(open) || (!isLong && past.length <= MOST_FILES)) return;
  const [{ settled }, rows] = await reading(LOGBOOK, (store) => Promise.all([standsIn(store), rowsWithin(store)] as const));
  // What this page has written since is in its own file.
  const n = settled?.settled ?? 0;
  const file = await begin(BASE + me);
  try {
    let place = 0;
    for (const put of handfuls(rows.filter(([key]) => isKeyCopied(key))))
      file.write(encoder.encode(lineText((place += 1), { n, put, gone: [] })), { at: file.getSize() });
    file.flush();
  } finally {
    file.close();
  }
  for (const page of files.keys()) await (await folder()).removeEntry(page + ENDS).catch(() => undefined);
}

const copyWorker = {
  /**
   * Begins the copy of a page.
   *
   * @returns whether anything was brought back, and the number of an act that is followed by those of the page
   */
  async begin(page: string): Promise<{ isMended: boolean; last: number }> {
    me = page;
    await new Promise<void>((resolve) => {
      void navigator.locks.request(pageLock(page), () => {
        resolve();
        return new Promise(() => undefined);
      });
    });
    const isMended = await exclusively('mend', compare);
    return { isMended, last: nextNumber() };
  },

  renew: (): Promise<void> => exclusively('mend', renew),
};
export type CopyWorker = typeof copyWorker;

/**
 * What is asked of the copy comes by the port that is given first. Lines come to the worker itself, for one is waited for at every entry, and a port
 * takes longer; each is answered by its place once it is written. It is with the system then, and outlives a killed browser.
 */
onmessage = ({ data: port }: MessageEvent<MessagePort>) => {
  expose(copyWorker, port);
  onmessage = ({ data: [i, text] }: MessageEvent<[i: number, text: string]>) => {
    append(text).then(
      () => {
        postMessage(i);
      },
      (error: unknown) => {
        postMessage([i, String(error)]);
      },
    );
  };
};
