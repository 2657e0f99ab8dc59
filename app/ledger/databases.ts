import localforage from 'localforage';
import { copyDown } from './secondCopy';
import { troubleFrom } from './storageTrouble';
import { answersTo, INK, rowsIn, STORE, within, type Row } from './transactions';

/** IndexedDB or nothing: a silent fallback would hold less and lose more. */
function database(name: string): LocalForage {
  return localforage.createInstance({ name, storeName: STORE, driver: localforage.INDEXEDDB });
}

/** Each kind of value has a database of its own, opened when first used. */
export const shelfBook = database('inkpath-shelf');
export const liveBook = database('inkpath-live');
export const runBook = database('inkpath-runs');
export const catalogueBook = database('inkpath-catalogue');
export const studyBook = database('inkpath-studies');
export const methodBook = database('inkpath-methods');
export const comparisonBook = database('inkpath-comparisons');
export const pictureBook = database('inkpath-pictures');
export const sampleBook = database('inkpath-samples');
/** What can be worked out again (worked.ts). */
export const workedBook = database('inkpath-worked');

/** Those of which there is a second copy: not what is large and can be had again from where it came. */
const COPIED = [shelfBook, liveBook, runBook, catalogueBook, studyBook, methodBook, comparisonBook];
export const nameOf = (book: LocalForage): string => book.config().name ?? '';

/** The names of those that are copied whatever is live. */
export const COPIED_NAMES: readonly string[] = COPIED.map(nameOf);

/** Whether a database is copied. */
export const isCopiedBook = (name: string): boolean => name.startsWith(INK) || COPIED_NAMES.includes(name);

const inkBooks = new Map<string, LocalForage>();

/** The ink of one run while it is live, or while an amendment to it is being filed. */
export function inkOfRun(runId: string): LocalForage {
  const known = inkBooks.get(runId) ?? database(INK + runId);
  inkBooks.set(runId, known);
  return known;
}

/** What an import is put together in (arrivals.ts): there is such a database while one is under way, or was left behind. */
export const ARRIVING = 'inkpath-arriving';

export const isArriving = async (): Promise<boolean> =>
  'databases' in indexedDB && (await indexedDB.databases()).some(({ name }) => name === ARRIVING);

/** Runs whose ink still has a database of its own. Empty where the browser cannot tell. */
export async function runsWithInk(): Promise<string[]> {
  const all = 'databases' in indexedDB ? await indexedDB.databases() : [];
  return all.flatMap(({ name }) => (name?.startsWith(INK) ? [name.slice(INK.length)] : []));
}

/** Drops the database of a run's ink, after it has been filed. */
export function dropInk(runId: string): Promise<void> {
  inkBooks.delete(runId);
  copyDown({ book: INK + runId });
  return localforage.dropInstance({ name: INK + runId });
}

/** Stores a value and resolves once it is stored; its second copy is then under way. @throws {StorageTrouble} */
export async function store(book: LocalForage, key: string, value: unknown): Promise<void> {
  try {
    await book.setItem(key, value);
    if (isCopiedBook(nameOf(book))) copyDown({ book: nameOf(book), key, value });
  } catch (cause) {
    throw troubleFrom(cause);
  }
}

/**
 * Stores those of several values whose key is free, and leaves what stands: for what is brought back or imported.
 *
 * @returns how many were stored
 * @throws {StorageTrouble}
 */
export async function storeMissing(name: string, rows: readonly Row[]): Promise<number> {
  const added: Row[] = [];
  await within<undefined>(
    name,
    'readwrite',
    undefined,
    (values, settle) => {
      for (const [key, value] of rows) {
        const request = values.add(value, key);
        request.onsuccess = () => added.push([key, value]);
        request.onerror = (event) => {
          // What stands, stands; anything else undoes all of it.
          if (request.error?.name !== 'ConstraintError') return;
          event.preventDefault();
          event.stopPropagation();
        };
      }
      values.transaction.oncomplete = () => {
        settle(undefined);
      };
    },
    true,
  );
  if (isCopiedBook(name)) for (const [key, value] of added) copyDown({ book: name, key, value });
  return added.length;
}

/** Stores several values in one go: all of them or none. Resolves once they are stored. @throws {StorageTrouble} */
export async function storeAll(book: LocalForage, rows: readonly (readonly [key: string, value: unknown])[]): Promise<void> {
  const put = (values: IDBObjectStore, settle: (done: undefined) => void) => {
    for (const [key, value] of rows) values.put(value, key);
    values.transaction.oncomplete = () => {
      settle(undefined);
    };
  };
  await within<undefined>(nameOf(book), 'readwrite', undefined, put, true);
  if (isCopiedBook(nameOf(book))) for (const [key, value] of rows) copyDown({ book: nameOf(book), key, value });
}

/** Takes a value away, and from the second copy. */
export async function removeValue(book: LocalForage, key: string): Promise<void> {
  await book.removeItem(key);
  if (isCopiedBook(nameOf(book))) copyDown({ book: nameOf(book), key });
}

/** All that a database holds, in the order of its keys as it is stored now. @throws {StorageTrouble} */
export const rowsOf = <Value>(book: LocalForage): Promise<Row<Value>[]> => rowsIn<Value>(nameOf(book), true);

/** The values under some keys, in their order, read at once; `undefined` where there is none. @throws {StorageTrouble} */
export const valuesOf = <Value>(book: LocalForage, keys: readonly string[]): Promise<(Value | undefined)[]> =>
  answersTo<string, Value | undefined>(nameOf(book), keys, (store, key) => store.get(key) as IDBRequest<Value | undefined>, undefined);

/** Every value of a database. @throws {StorageTrouble} */
export const allOf = async <Value>(book: LocalForage, rows = rowsOf<Value>(book)): Promise<Value[]> =>
  (await rows).map(([, value]) => value);
