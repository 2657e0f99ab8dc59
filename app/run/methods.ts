import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { migrate, SCHEMA, SCHOOLS, withRule, type OwnMethod, type School } from '@core';
import { onTabs, tellTabs } from '../ledger/channel';
import { allOf, methodBook, store, takeAway } from '../ledger/databases';

/** A method as it is stored. */
interface Stored {
  schema: number;
  method: OwnMethod;
}

/** The methods there are: the schools of the trade, and the reviewer’s own. */
export const useMethods = defineStore('methods', () => {
  const own = shallowRef<OwnMethod[]>([]);
  const all = computed<School[]>(() => [
    ...SCHOOLS,
    ...[...own.value].sort((one, other) => one.name.localeCompare(other.name, undefined, { numeric: true })),
  ]);
  const byId = (id: string | undefined) => all.value.find((method) => method.id === id);
  const isOwn = (id: string | undefined) => own.value.some((method) => method.id === id);

  async function load(): Promise<void> {
    const kept = await allOf<Stored>(methodBook);
    own.value = kept.map((each) => withRule((migrate({ ...each }, 'A method of your own') as unknown as Stored).method));
  }

  /** Keeps methods, or writes over those of the same id. @throws {StorageTrouble} */
  async function put(...methods: OwnMethod[]): Promise<void> {
    const plain = (JSON.parse(JSON.stringify(methods)) as OwnMethod[]).map(withRule);
    await Promise.all(plain.map((method) => store(methodBook, method.id, { schema: SCHEMA, method } satisfies Stored)));
    const ids = new Set(plain.map(({ id }) => id));
    own.value = [...own.value.filter(({ id }) => !ids.has(id)), ...plain];
    tellTabs({ about: 'methods' });
  }

  /** Throws a method away. Runs and studies keep their own cadence. */
  async function remove(id: string): Promise<void> {
    await takeAway(methodBook, id);
    own.value = own.value.filter((method) => method.id !== id);
    tellTabs({ about: 'methods' });
  }

  onTabs(({ about }) => {
    if (about === 'methods') void load();
  });

  return { all, own, byId, isOwn, load, put, remove };
});
