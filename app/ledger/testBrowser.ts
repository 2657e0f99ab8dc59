import 'fake-indexeddb/auto';
import { createPinia, setActivePinia, type Pinia } from 'pinia';
import { vi } from 'vitest';
import { openDoor } from './ledger';
import { catalogueBook, dropInk, liveBook, runBook, runsWithInk, sampleBook, shelfBook, workedBook } from './databases';

// Tabs in a test share one page, which hears nothing of its own: what they tell each other is tested in the browser.
vi.stubGlobal(
  'BroadcastChannel',
  class {
    postMessage = () => undefined;
    addEventListener = () => undefined;
  },
);

interface Request {
  work: (lock: object | null) => unknown;
  resolve: (result: unknown) => void;
  reject: (reason: unknown) => void;
}

/** Locks as browsers keep them: one holder a name, the others in a queue; `ifAvailable`, `steal` and `signal` as the standard has them. */
function lockManager() {
  const held = new Map<string, Request>();
  const queues = new Map<string, Request[]>();

  function grant(name: string, request: Request): void {
    held.set(name, request);
    const isHeld = () => held.get(name) === request;
    const next = () => {
      if (!isHeld()) return;
      held.delete(name);
      const waiting = queues.get(name)?.shift();
      if (waiting) grant(name, waiting);
    };
    void Promise.resolve(request.work({ name })).then(
      (result) => {
        next();
        request.resolve(result);
      },
      (reason: unknown) => {
        next();
        request.reject(reason);
      },
    );
  }

  return {
    request: (name: string, ...rest: [unknown, unknown?]): Promise<unknown> =>
      new Promise((resolve, reject) => {
        const options = (rest.length > 1 ? rest[0] : {}) as { ifAvailable?: boolean; steal?: boolean; signal?: AbortSignal };
        const request: Request = { work: rest.at(-1) as Request['work'], resolve, reject };
        const holder = held.get(name);
        if (!holder) grant(name, request);
        else if (options.ifAvailable) resolve(request.work(null));
        else if (options.steal) {
          holder.reject(new DOMException('stolen', 'AbortError'));
          grant(name, request);
        } else {
          const queue = queues.get(name) ?? [];
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
  await Promise.all([shelfBook, liveBook, runBook, catalogueBook, sampleBook, workedBook].map((book) => book.clear()));
  await Promise.all((await runsWithInk()).map(dropInk));
  // What ink is checked by is loaded before the first of it.
  await openDoor();
  return newTab();
}

/** Stores of their own over the same storage: a reload, or another tab. */
export function newTab(): Pinia {
  const pinia = createPinia();
  setActivePinia(pinia);
  return pinia;
}
