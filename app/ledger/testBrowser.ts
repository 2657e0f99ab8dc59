import 'fake-indexeddb/auto';
import { createPinia, setActivePinia, type Pinia } from 'pinia';
import { vi } from 'vitest';
import { catalogueBook, liveBook, runBook, shelfBook } from './databases';

// Tabs in a test share one page, which hears nothing of its own: what they tell each other is tested in the browser.
vi.stubGlobal(
  'BroadcastChannel',
  class {
    postMessage = () => undefined;
    addEventListener = () => undefined;
  },
);

/** Locks as browsers keep them: one holder a name; `ifAvailable` and `steal` as the standard has them. */
function lockManager() {
  const held = new Map<string, (reason: Error) => void>();
  return {
    request(name: string, ...rest: [unknown, unknown?]): Promise<unknown> {
      const options = (rest.length > 1 ? rest[0] : {}) as { ifAvailable?: boolean; steal?: boolean };
      const work = rest.at(-1) as (lock: object | null) => unknown;
      if (options.ifAvailable && held.has(name)) return Promise.resolve(work(null));
      held.get(name)?.(new DOMException('stolen', 'AbortError'));
      return new Promise((resolve, reject) => {
        held.set(name, reject);
        void Promise.resolve(work({ name })).then((result) => {
          if (held.get(name) === reject) held.delete(name);
          resolve(result);
        }, reject);
      });
    },
  };
}

/** What of a browser the stores need, in a test: storage, locks, a clock worker that stands still, and an empty logbook. */
export async function emptyBrowser(): Promise<Pinia> {
  vi.stubGlobal('navigator', { locks: lockManager() });
  vi.stubGlobal(
    'Worker',
    class {
      terminate = () => undefined;
    },
  );
  await Promise.all([shelfBook, liveBook, runBook, catalogueBook].map((book) => book.clear()));
  return newTab();
}

/** Stores of their own over the same storage: a reload, or another tab. */
export function newTab(): Pinia {
  const pinia = createPinia();
  setActivePinia(pinia);
  return pinia;
}
