import { openDB, unwrap, wrap, type IDBPDatabase, type IDBPObjectStore } from 'idb';
import { troubleFrom } from './storageTrouble';

/** Transactions of the databases, for pages and workers alike. */

/** The one object store of every database. */
export const STORE = 'kept';

export type StoredRow<Value = unknown> = [key: string, value: Value];
export type Readable = IDBPObjectStore<unknown, [typeof STORE], typeof STORE, 'readonly' | 'readwrite'>;
export type Writable = IDBPObjectStore<unknown, [typeof STORE], typeof STORE, 'readwrite'>;

const connections = new Map<string, Promise<IDBPDatabase>>();

/** The connection to a database, which is made where there is none. It is closed as soon as somebody wants to drop or change the database. */
function connection(name: string): Promise<IDBPDatabase> {
  const known = connections.get(name);
  if (known) return known;
  const opening = opened(name);
  connections.set(name, opening);
  opening.catch(() => forget(name, opening));
  return opening;
}

function forget(name: string, opening: Promise<IDBPDatabase> | undefined): void {
  if (connections.get(name) === opening) connections.delete(name);
}

/** Opens a database at whatever version it has: localForage raises it where it makes one. */
async function opened(name: string, version?: number): Promise<IDBPDatabase> {
  const close = () => {
    const opening = connections.get(name);
    forget(name, opening);
    void opening?.then((open) => {
      open.close();
    });
  };
  const open = await openDB(name, version, {
    upgrade: (made) => {
      if (!made.objectStoreNames.contains(STORE)) made.createObjectStore(STORE);
    },
    blocking: close,
    terminated: close,
  });
  if (open.objectStoreNames.contains(STORE)) return open;
  open.close();
  return opened(name, open.version + 1);
}

/** Begins a transaction; where the connection was just closed, over another. Bare, for it is what every entry waits for. */
async function begun(name: string, mode: 'readonly' | 'readwrite'): Promise<IDBTransaction> {
  try {
    return unwrap(await connection(name)).transaction(STORE, mode);
  } catch (cause) {
    if (!(cause instanceof DOMException) || cause.name !== 'InvalidStateError') throw cause;
    connections.delete(name);
    return unwrap(await connection(name)).transaction(STORE, mode);
  }
}

/** The store whose requests are promises. */
export const promising = (bare: IDBObjectStore): Writable => wrap(bare) as unknown as Writable;

/** Reads within one transaction. Nothing but requests of it may be awaited in the work. @throws {StorageTrouble} */
export async function reading<Result>(name: string, work: (store: Readable) => Promise<Result>): Promise<Result> {
  try {
    return await work(promising((await begun(name, 'readonly')).objectStore(STORE)));
  } catch (cause) {
    throw troubleFrom(cause);
  }
}

/**
 * Changes what is stored within one transaction: all of it or, where anything fails, nothing. Nothing but requests of it may be awaited in the work.
 *
 * @returns what the work makes, once the transaction has completed
 * @throws {StorageTrouble} once it is certain that nothing was changed
 */
export const changing = <Result>(name: string, work: (store: Writable) => Promise<Result>): Promise<Result> =>
  changingBare(name, (bare) => work(promising(bare)));

/** The same with the bare store: an entry is logged a twentieth sooner by it. */
export async function changingBare<Result>(name: string, work: (bare: IDBObjectStore) => Promise<Result>): Promise<Result> {
  const transaction = await begun(name, 'readwrite').catch((cause: unknown) => {
    throw troubleFrom(cause);
  });
  const done = new Promise<boolean>((resolve) => {
    transaction.oncomplete = () => {
      resolve(true);
    };
    transaction.onabort = () => {
      resolve(false);
    };
  });
  // Whatever failed first says why.
  let failed: unknown;
  const made = work(transaction.objectStore(STORE)).catch((cause: unknown) => {
    failed = cause;
    try {
      transaction.abort();
    } catch {
      // It has aborted by itself.
    }
    return undefined as Result;
  });
  if (!(await done)) failed ??= transaction.error ?? new DOMException('It was called off.', 'AbortError');
  const result = await made;
  if (failed === undefined) return result;
  // What the work itself refuses is told as it is; the rest is what the browser said.
  throw failed instanceof Error && !(failed instanceof DOMException) ? failed : troubleFrom(failed);
}

/** All that lies in a range, in the order of the keys. */
export async function rowsWithin<Value>(store: Readable, range?: IDBKeyRange): Promise<StoredRow<Value>[]> {
  const [keys, values] = await Promise.all([store.getAllKeys(range), store.getAll(range) as Promise<Value[]>]);
  return values.map((value, index) => [keys[index] as string, value]);
}

/** Stores those of several values whose key is free, and leaves what stands: for what is imported. @throws {StorageTrouble} */
export const storeMissing = (name: string, rows: readonly StoredRow[]): Promise<void> =>
  changing(name, async (store) => {
    const taken = await Promise.all(rows.map(([key]) => store.getKey(key)));
    for (const [index, [key, value]] of rows.entries()) if (taken[index] === undefined) void store.put(value, key).catch(() => undefined);
  });

/** The values under some keys, in their order, read at once; `undefined` where there is none. @throws {StorageTrouble} */
export const valuesIn = <Value>(name: string, keys: readonly string[]): Promise<(Value | undefined)[]> =>
  reading(name, (store) => Promise.all(keys.map((key) => store.get(key) as Promise<Value | undefined>)));

/** The names of the databases of this address; none where the browser cannot tell. */
export const databaseNames = async (): Promise<string[]> =>
  'databases' in indexedDB ? (await indexedDB.databases()).map(({ name = '' }) => name) : [];
