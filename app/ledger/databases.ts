import localforage from 'localforage';
import { copyDown } from './secondCopy';
import { troubleFrom } from './storageTrouble';

/** IndexedDB or nothing: a silent fallback would hold less and lose more. */
const STORE = 'kept';

function database(name: string): LocalForage {
  return localforage.createInstance({ name, storeName: STORE, driver: localforage.INDEXEDDB });
}

const INK = 'inkpath-ink-';

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
const nameOf = (book: LocalForage): string => book.config().name ?? '';

/** The database of a name, of those that are copied. */
export function bookCalled(name: string): LocalForage | undefined {
  return name.startsWith(INK) ? inkOfRun(name.slice(INK.length)) : COPIED.find((book) => nameOf(book) === name);
}

/** Every database that is copied, by its name. */
export async function copiedBooks(): Promise<[name: string, book: LocalForage][]> {
  const ink = (await runsWithInk()).map((runId) => inkOfRun(runId));
  return [...COPIED, ...ink].map((book) => [nameOf(book), book]);
}

/** Opens what every start reads all at once, for opening one after another is what takes long. Trouble shows when they are used. */
export function warmUp(): void {
  for (const book of [shelfBook, liveBook, catalogueBook]) book.ready().catch(() => undefined);
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
  copyDown({ book: INK + runId });
  return localforage.dropInstance({ name: INK + runId });
}

/** Stores a value and resolves once it is stored; its second copy is then under way. @throws {StorageTrouble} */
export async function store(book: LocalForage, key: string, value: unknown): Promise<void> {
  try {
    const isCopied = COPIED.includes(book) || nameOf(book).startsWith(INK);
    await book.setItem(key, value);
    if (isCopied) copyDown({ book: nameOf(book), key, value });
  } catch (cause) {
    throw troubleFrom(cause);
  }
}

/**
 * The whole ink of a run, in the order of its keys, asked for at once: thousands of entries one after another are what a start would wait for.
 *
 * @throws {StorageTrouble}
 */
export function allInk<Value>(runId: string): Promise<Value[]> {
  return new Promise((resolve, reject) => {
    const fail = (request: { error: DOMException | null }) => () => {
      reject(troubleFrom(request.error));
    };
    const opening = indexedDB.open(INK + runId);
    opening.onerror = fail(opening);
    opening.onsuccess = () => {
      const { result: open } = opening;
      if (!open.objectStoreNames.contains(STORE)) {
        open.close();
        resolve([]);
        return;
      }
      const asked = open.transaction(STORE).objectStore(STORE).getAll();
      asked.onerror = fail(asked);
      asked.onsuccess = () => {
        open.close();
        resolve(asked.result as Value[]);
      };
    };
  });
}

/** Takes a value away, and from the second copy. */
export async function takeAway(book: LocalForage, key: string): Promise<void> {
  await book.removeItem(key);
  copyDown({ book: nameOf(book), key });
}

/** Every value of a database, in the order of its keys. @throws {StorageTrouble} */
export async function allOf<Value>(book: LocalForage): Promise<Value[]> {
  const values: Value[] = [];
  try {
    await book.iterate<Value, unknown>((value) => {
      values.push(value);
    });
  } catch (cause) {
    throw troubleFrom(cause);
  }
  return values;
}
