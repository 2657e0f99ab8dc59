import localforage from 'localforage';
import { copyDown } from './secondCopy';
import { troubleFrom } from './storageTrouble';

/** IndexedDB or nothing: a silent fallback would hold less and lose more. */
const STORE = 'kept';

function database(name: string): LocalForage {
  return localforage.createInstance({ name, storeName: STORE, driver: localforage.INDEXEDDB });
}

export const INK = 'inkpath-ink-';

/** Each kind of value has a database of its own, opened when first used. */
export const shelfBook = database('inkpath-shelf');
export const liveBook = database('inkpath-live');
export const runBook = database('inkpath-runs');
export const catalogueBook = database('inkpath-catalogue');
export const studyBook = database('inkpath-studies');
export const methodBook = database('inkpath-methods');
export const pictureBook = database('inkpath-pictures');
export const sampleBook = database('inkpath-samples');

/** Those of which there is a second copy: not what is large and can be had again from where it came. */
const COPIED = [shelfBook, liveBook, runBook, catalogueBook, studyBook, methodBook];
export const nameOf = (book: LocalForage): string => book.config().name ?? '';

/** The database of a name, of those that are copied. */
export function bookCalled(name: string): LocalForage | undefined {
  return name.startsWith(INK) ? inkOfRun(name.slice(INK.length)) : COPIED.find((book) => nameOf(book) === name);
}

/** Every database that is copied, by its name. */
export async function copiedBooks(): Promise<[name: string, book: LocalForage][]> {
  const ink = (await runsWithInk()).map((runId) => inkOfRun(runId));
  return [...COPIED, ...ink].map((book) => [nameOf(book), book]);
}

const inkBooks = new Map<string, LocalForage>();

/** The ink of one run while it is live, or while an amendment to it is being filed. */
export function inkOfRun(runId: string): LocalForage {
  const known = inkBooks.get(runId) ?? database(INK + runId);
  inkBooks.set(runId, known);
  return known;
}

/** Runs whose ink still has a database of its own. Empty where the browser cannot tell. */
export async function runsWithInk(): Promise<string[]> {
  const all = 'databases' in indexedDB ? await indexedDB.databases() : [];
  return all.flatMap(({ name }) => (name?.startsWith(INK) ? [name.slice(INK.length)] : []));
}

/** Drops the database of a run's ink, after it has been filed. */
export function dropInk(runId: string): Promise<void> {
  inkBooks.delete(runId);
  forgetAhead();
  copyDown({ book: INK + runId });
  return localforage.dropInstance({ name: INK + runId });
}

/** Stores a value and resolves once it is stored; its second copy is then under way. @throws {StorageTrouble} */
export async function store(book: LocalForage, key: string, value: unknown): Promise<void> {
  forgetAhead();
  try {
    const isCopied = COPIED.includes(book) || nameOf(book).startsWith(INK);
    await book.setItem(key, value);
    if (isCopied) copyDown({ book: nameOf(book), key, value });
  } catch (cause) {
    throw troubleFrom(cause);
  }
}

/** Stores several values in one go: all of them or none. Resolves once they are stored. @throws {StorageTrouble} */
export async function storeAll(book: LocalForage, rows: readonly (readonly [key: string, value: unknown])[]): Promise<void> {
  forgetAhead();
  const put = (values: IDBObjectStore, settle: (done: undefined) => void) => {
    for (const [key, value] of rows) values.put(value, key);
    values.transaction.oncomplete = () => {
      settle(undefined);
    };
  };
  await within<undefined>(nameOf(book), 'readwrite', undefined, put, true);
  for (const [key, value] of rows) copyDown({ book: nameOf(book), key, value });
}

/** Does something with what a request brings. */
export function answer<Result>(request: IDBRequest<Result>, work: (result: Result) => void): void {
  request.onsuccess = () => {
    work(request.result);
  };
}

/** Opens a database as localForage would. @returns `undefined` where there is none and none is to be made */
function opened(name: string, makes: boolean, version?: number): Promise<IDBDatabase | undefined> {
  return new Promise((resolve, reject) => {
    const opening = indexedDB.open(name, version);
    opening.onupgradeneeded = () => {
      if (makes) opening.result.createObjectStore(STORE);
      else opening.transaction?.abort();
    };
    opening.onerror = () => {
      if (!makes && opening.error?.name === 'AbortError') resolve(undefined);
      else reject(troubleFrom(opening.error));
    };
    answer(opening, (open) => {
      if (open.objectStoreNames.contains(STORE)) {
        resolve(open);
        return;
      }
      open.close();
      resolve(makes ? opened(name, makes, open.version + 1) : undefined);
    });
  });
}

/**
 * Works within one transaction of a database, in handfuls of values, which is what localForage cannot: thousands of values one after another
 * are what a start would wait for.
 *
 * @param none  what comes of it where there is no such database
 * @param makes whether to make one then, and work in it
 * @throws {StorageTrouble}
 */
export async function within<Result>(
  name: string,
  mode: IDBTransactionMode,
  none: Result,
  work: (store: IDBObjectStore, settle: (result: Result) => void) => void,
  makes = false,
): Promise<Result> {
  const open = await opened(name, makes);
  if (!open) return none;
  return new Promise((resolve, reject) => {
    const transaction = open.transaction(STORE, mode);
    transaction.onabort = () => {
      reject(troubleFrom(transaction.error));
    };
    try {
      work(transaction.objectStore(STORE), resolve);
    } catch (cause) {
      reject(troubleFrom(cause));
      transaction.abort();
    }
    // It closes once the transaction is done.
    open.close();
  });
}

/** What a start reads, asked for while the program is still being fetched. Each is taken once, and none after anything was written. */
const ahead = new Map<string, Promise<unknown[]>>();

/** Keeps what is on its way for whoever will want it; trouble shows to them. */
export function askAhead(name: string, asked: Promise<unknown[]>): void {
  asked.catch(() => undefined);
  ahead.set(name, asked);
}

/** Whatever was read ahead may no longer be what is stored. */
export const forgetAhead = (): void => {
  ahead.clear();
};

export function takeAhead<Value>(name: string): Promise<Value[]> | undefined {
  const asked = ahead.get(name);
  ahead.delete(name);
  return asked as Promise<Value[]> | undefined;
}

/** Takes a value away, and from the second copy. */
export async function takeAway(book: LocalForage, key: string): Promise<void> {
  forgetAhead();
  await book.removeItem(key);
  copyDown({ book: nameOf(book), key });
}

type Row<Value = unknown> = [key: string, value: Value];

/** All that a database holds, in the order of its keys as it is stored now. @throws {StorageTrouble} */
export function rowsOf<Value>(book: LocalForage): Promise<Row<Value>[]> {
  const pair = (store: IDBObjectStore, settle: (rows: Row<Value>[]) => void) => {
    answer(store.getAllKeys(), (keys) => {
      answer(store.getAll(), (values: Value[]) => {
        settle(values.map((value, index) => [(keys as string[])[index] ?? '', value]));
      });
    });
  };
  return within<Row<Value>[]>(nameOf(book), 'readonly', [], pair, true);
}

/** Every value of a database, read ahead of the program if nothing was written since. @throws {StorageTrouble} */
export async function allOf<Value>(book: LocalForage): Promise<Value[]> {
  const rows = await (takeAhead<Row<Value>>(nameOf(book)) ?? rowsOf<Value>(book));
  return rows.map(([, value]) => value);
}

const rowsAhead = async <Value>(book: LocalForage) => (await ahead.get(nameOf(book))) as Row<Value>[] | undefined;

/** The keys of a database, and one value of it: for a start, which does not wait for them where they were read ahead. @throws {StorageTrouble} */
export async function keysAtStart(book: LocalForage): Promise<string[]> {
  return (await rowsAhead(book))?.map(([key]) => key) ?? book.keys();
}

export async function valueAtStart<Value>(book: LocalForage, key: string): Promise<Value | null> {
  const rows = await rowsAhead<Value>(book);
  return rows ? (rows.find(([each]) => each === key)?.[1] ?? null) : book.getItem<Value>(key);
}
