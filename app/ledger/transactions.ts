import { troubleFrom } from './storageTrouble';

/** Transactions of databases that localForage keeps, in handfuls of values, which it cannot do itself. A worker uses them too. */

/** The one object store of every database. */
export const STORE = 'kept';
/** What the databases of live ink are called before the id of their run. */
export const INK = 'inkpath-ink-';

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
  const open = await opened(name, makes).catch((cause: unknown) => {
    throw troubleFrom(cause);
  });
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

/**
 * What a database answers to several questions, in their order, within one transaction.
 *
 * @param none what each is answered with where there is no such database
 * @throws {StorageTrouble}
 */
export const answersTo = <Item, Result>(
  name: string,
  items: readonly Item[],
  ask: (store: IDBObjectStore, item: Item) => IDBRequest<Result>,
  none: Result,
): Promise<Result[]> =>
  within<Result[]>(
    name,
    'readonly',
    items.map(() => none),
    (store, settle) => {
      const requests = items.map((item) => ask(store, item));
      store.transaction.oncomplete = () => {
        settle(requests.map(({ result }) => result));
      };
    },
  );

export type Row<Value = unknown> = [key: string, value: Value];

/**
 * All that a database holds, in the order of its keys.
 *
 * @param makes whether it is made where there is none
 * @throws {StorageTrouble}
 */
export function rowsIn<Value>(name: string, makes = false): Promise<Row<Value>[]> {
  const pair = (store: IDBObjectStore, settle: (rows: Row<Value>[]) => void) => {
    answer(store.getAllKeys(), (keys) => {
      answer(store.getAll(), (values: Value[]) => {
        settle(values.map((value, index) => [(keys as string[])[index] ?? '', value]));
      });
    });
  };
  return within<Row<Value>[]>(name, 'readonly', [], pair, makes);
}
