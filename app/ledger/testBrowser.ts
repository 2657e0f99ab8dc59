import 'fake-indexeddb/auto';
import { createPinia, setActivePinia, type Pinia } from 'pinia';
import { vi } from 'vitest';
import { loadEntryCheck } from './entries';
import { LOGBOOK, PICTURES } from './keys';
import { isKeyCopied, type Kind } from './kinds';
import { SAMPLES } from './samples';
import { changing, reading } from './transactions';
import { WORKED } from './worked';

// Tabs in a test share one page, which hears nothing of its own: what they tell each other is tested in the browser.
vi.stubGlobal(
  'BroadcastChannel',
  class {
    postMessage = () => undefined;
    addEventListener = () => undefined;
  },
);

/** Transactions that are under way. */
const underWay = new Set<IDBTransaction>();
const begin = Reflect.get(IDBDatabase.prototype, 'transaction') as (...args: unknown[]) => IDBTransaction;
Reflect.set(IDBDatabase.prototype, 'transaction', function (this: IDBDatabase, ...args: unknown[]) {
  const begun = begin.apply(this, args);
  underWay.add(begun);
  for (const end of ['complete', 'abort']) begun.addEventListener(end, () => underWay.delete(begun));
  return begun;
});

/** Resolves when nothing is read or stored any more, however busy the machine is. */
export async function quiet(): Promise<void> {
  for (let calm = 0; calm < 20; calm = underWay.size > 0 ? 0 : calm + 1) await new Promise((resolve) => setImmediate(resolve));
}

interface Request {
  name: string;
  isShared: boolean;
  work: (lock: object | null) => unknown;
  resolve: (result: unknown) => void;
  reject: (reason: unknown) => void;
}

/** Locks as browsers keep them: one holder a name or several that share it, the others in a queue; `ifAvailable`, `steal` and `signal` as the standard has them. */
function lockManager() {
  const held = new Map<string, Set<Request>>();
  const queues = new Map<string, Request[]>();
  const holders = (name: string) => held.get(name) ?? new Set<Request>();
  const isFree = ({ name, isShared }: Request) => [...holders(name)].every((each) => isShared && each.isShared);

  function grant(request: Request): void {
    const { name } = request;
    held.set(name, holders(name).add(request));
    const end = () => {
      if (!holders(name).delete(request)) return;
      for (let next = queues.get(name)?.[0]; next && isFree(next); next = queues.get(name)?.[0]) {
        queues.get(name)?.shift();
        grant(next);
      }
    };
    void Promise.resolve(request.work({ name })).then(
      (result) => {
        end();
        request.resolve(result);
      },
      (reason: unknown) => {
        end();
        request.reject(reason);
      },
    );
  }

  return {
    request: (name: string, ...rest: [unknown, unknown?]): Promise<unknown> =>
      new Promise((resolve, reject) => {
        const options = (rest.length > 1 ? rest[0] : {}) as LockOptions;
        const request: Request = { name, isShared: options.mode === 'shared', work: rest.at(-1) as Request['work'], resolve, reject };
        const queue = queues.get(name) ?? [];
        if (options.steal) {
          for (const holder of holders(name)) holder.reject(new DOMException('stolen', 'AbortError'));
          held.delete(name);
          grant(request);
        } else if (isFree(request) && queue.length === 0) grant(request);
        else if (options.ifAvailable) resolve(request.work(null));
        else {
          queues.set(name, [...queue, request]);
          options.signal?.addEventListener('abort', () => {
            queues.set(
              name,
              (queues.get(name) ?? []).filter((each) => each !== request),
            );
            reject(new DOMException('called off', 'AbortError'));
          });
        }
      }),
  };
}

/** What of a browser the stores need, in a test: storage, locks, a clock worker that stands still, and an empty logbook. */
export async function emptyBrowser(): Promise<Pinia> {
  vi.stubGlobal('navigator', { locks: lockManager() });
  vi.stubGlobal(
    'Worker',
    class {
      terminate = () => undefined;
      addEventListener = () => undefined;
    },
  );
  await Promise.all([LOGBOOK, SAMPLES, PICTURES, WORKED].map((name) => changing(name, (store) => store.clear())));
  // What ink is checked by is loaded before the first of it.
  await loadEntryCheck();
  return newTab();
}

/** The keys of what is stored of a kind, or in another database. */
export const storedKeys = async (kind: Kind | undefined, name = LOGBOOK): Promise<string[]> => {
  const keys = (await reading(name, (store) => store.getAllKeys())) as string[];
  return keys.filter((key) => (kind === undefined ? name !== LOGBOOK || isKeyCopied(key) : key.startsWith(`${kind}/`)));
};
/** What is stored under a key. */
export const stored = (key: string, name = LOGBOOK): Promise<unknown> => reading(name, (store) => store.get(key));
/** Stores a value as something else than the program might. */
export const plant = (key: string, value: unknown, name = LOGBOOK): Promise<unknown> => changing(name, (store) => store.put(value, key));
/** Takes a value away as something else than the program might. */
export const uproot = (key: string, name = LOGBOOK): Promise<void> => changing(name, (store) => store.delete(key));

/**
 * Has changes of what is stored refused from now on, as a full disk or a dying browser does.
 *
 * @param isRefused by how many there were before, from 1, and by the key
 * @returns makes room again
 */
export function refuse(isRefused: (nth: number, key: string) => boolean): () => void {
  let nth = 0;
  const refused = (['put', 'delete'] as const).map((way) => {
    const change = Reflect.get(IDBObjectStore.prototype, way) as (...args: unknown[]) => IDBRequest<IDBValidKey>;
    return vi.spyOn(IDBObjectStore.prototype, way as 'put').mockImplementation(function (this: IDBObjectStore, ...args: unknown[]) {
      nth += 1;
      if (isRefused(nth, String(args.at(-1)))) throw new DOMException('no room', 'QuotaExceededError');
      return change.apply(this, args);
    });
  });
  return () => {
    for (const each of refused) each.mockRestore();
  };
}

/** Stores of their own over the same storage: a reload, or another tab. */
export function newTab(): Pinia {
  const pinia = createPinia();
  setActivePinia(pinia);
  return pinia;
}
