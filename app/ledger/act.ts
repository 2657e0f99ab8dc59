import { keyOf, LOGBOOK } from './keys';
import { isKeyCopied } from './kinds';
import { nextNumber } from './order';
import { isWithoutCopy, PAGE, writeLine, type LineOfAct } from './secondCopy';
import { StorageTrouble } from './storageTrouble';
import { changingBare, promising, type StoredRow } from './transactions';

/**
 * An act is one transaction of the logbook and one line of its second copy, both at once: all of it or nothing. It is done when both stand.
 */

/** What was changed under a key, and what had stood there; `undefined` is nothing. */
interface Change {
  key: string;
  before: unknown;
  after: unknown;
}

/** Puts back what an act changed, as an act of its own. @throws {StorageTrouble} where something was changed since */
export type Undo = () => Promise<unknown>;

/** What an act may do within its transaction. Nothing but these may be awaited in it. */
export class Changes {
  readonly made: Change[] = [];
  private isEnded = false;

  constructor(
    private readonly bare: IDBObjectStore,
    private readonly line: LineOfAct,
  ) {}

  get = <Value>(key: string): Promise<Value | undefined> => promising(this.bare).get(key) as Promise<Value | undefined>;
  keys = (range: IDBKeyRange): Promise<string[]> => promising(this.bare).getAllKeys(range) as Promise<string[]>;
  values = <Value>(range: IDBKeyRange): Promise<Value[]> => promising(this.bare).getAll(range) as Promise<Value[]>;
  /** Bare, for every entry asks. */
  has = (key: string): Promise<boolean> =>
    new Promise((resolve, reject) => {
      const asked = this.bare.getKey(key);
      asked.onsuccess = () => {
        resolve(asked.result !== undefined);
      };
      asked.onerror = () => {
        reject(asked.error ?? new DOMException('It could not be read.', 'UnknownError'));
      };
    });

  /** Stores a value under a key that is free. */
  add(key: string, value: unknown): void {
    this.change({ key, before: undefined, after: value });
  }

  /** Stores a value, whatever stands there; that is asked for first, so that the act can be undone. */
  put(key: string, value: unknown): void {
    const change: Change = { key, before: undefined, after: value };
    const before = this.bare.get(key);
    before.onsuccess = () => {
      change.before = before.result as unknown;
    };
    this.change(change);
  }

  /** Takes a value away. @param before what stands there, where it is known */
  remove(key: string, before?: unknown): void {
    if (before === undefined) this.put(key, undefined);
    else this.change({ key, before, after: undefined });
  }

  /** Takes away all of what the second copy does not have. */
  forget(range: IDBKeyRange): void {
    this.bare.delete(range);
  }

  /** Nothing more is changed, and nothing can be asked any more: what was asked is answered while it is stored. */
  end(): void {
    if (this.isEnded) return;
    this.isEnded = true;
    const copied = this.made.filter(({ key }) => isKeyCopied(key));
    const n = copied.length > 0 ? nextNumber() : 0;
    if (n > 0 && !isNumbered(copied)) this.stores(keyOf('page', PAGE), n);
    this.bare.transaction.commit();
    // The line is written meanwhile.
    if (n > 0)
      this.line.write({
        n,
        put: copied.flatMap(({ key, after }): StoredRow[] => (after === undefined ? [] : [[key, after]])),
        gone: copied.flatMap(({ key, after }) => (after === undefined ? [key] : [])),
      });
  }

  private change(change: Change): void {
    this.made.push(change);
    this.stores(change.key, change.after);
  }

  /** Nobody waits for it: should it fail, the transaction does. */
  private stores(key: string, value: unknown): void {
    if (value === undefined) this.bare.delete(key);
    else this.bare.put(value, key);
  }
}

/** Whether this page has stored a number of its own. */
let hasNumber = false;

/**
 * One entry of ink tells by itself whether it stands: it needs no number beside it, which would cost as much again as the entry. Any other act has
 * one, and so has the first of a page.
 */
function isNumbered(copied: readonly Change[]): boolean {
  const [one, ...more] = copied;
  const isInk = more.length === 0 && one?.after !== undefined && one.key.startsWith('ink/');
  if (isInk && hasNumber && !isWithoutCopy.value) return true;
  hasNumber = true;
  return false;
}

/** Lines are awaited unless the program made the act by itself, and nobody was told of it. */
export interface Ways {
  isAnsweredEarly?: boolean;
}

/**
 * Does an act. Resolves when all of it stands in the logbook and in its second copy.
 *
 * @throws {StorageTrouble} when nothing of it stands in either
 */
export async function act<Result>(
  work: (changes: Changes) => Promise<Result>,
  { isAnsweredEarly = false }: Ways = {},
): Promise<{ result: Result; undo: Undo }> {
  const line = await writeLine(isAnsweredEarly);
  let made: readonly Change[] = [];
  const result = await changingBare(LOGBOOK, async (bare) => {
    const changes = new Changes(bare, line);
    const done = await work(changes);
    changes.end();
    made = changes.made;
    return done;
  }).catch(async (trouble: unknown) => {
    await line.undo();
    throw trouble;
  });
  if (!isAnsweredEarly) await line.stands();
  return { result, undo: () => revert(made) };
}

/** Puts back what stood, unless something else was stored there meanwhile. */
function revert(made: readonly Change[]): Promise<unknown> {
  return act(async (changes) => {
    for (const { key, before, after } of made) {
      const now = await changes.get(key);
      if (JSON.stringify(now) !== JSON.stringify(after))
        throw new StorageTrouble('It was changed since, here or in another tab: it stays as it is now.', 'Nothing was undone.');
      if (before === undefined) changes.remove(key, now);
      else changes.put(key, before);
    }
  });
}
