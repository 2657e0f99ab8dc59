import { defineStore } from 'pinia';
import { computed } from 'vue';
import { migrate } from '@core/exchange';
import { SCHEMA } from '@core/ink';
import { SCHOOLS, withRule, type OwnMethod, type School } from '@core/method';
import { byName, keptList } from '../ledger/keptList';
import { keyOf } from '../ledger/keys';

/** A method as it is stored. */
interface Stored {
  schema: number;
  method: OwnMethod;
}

/** The methods there are: the schools of the trade, and the reviewer’s own. Runs and studies keep their own cadence, so one may be thrown away. */
export const useMethods = defineStore('methods', () => {
  const { kept, unread, load, put, remove, rowOf, changed } = keptList<OwnMethod>({
    kinds: ['method'],
    about: 'methods',
    keyOf: ({ id }) => keyOf('method', id),
    read: (stored) => withRule((migrate(stored, 'A method of your own') as unknown as Stored).method),
    write: (method) => ({ schema: SCHEMA, method }) satisfies Stored,
  });
  const all = computed<School[]>(() => [...SCHOOLS, ...[...kept.value].sort(byName)]);
  const byId = (id: string | undefined) => all.value.find((method) => method.id === id);
  const isOwn = (id: string | undefined) => kept.value.some((method) => method.id === id);

  return {
    all,
    own: kept,
    byId,
    isOwn,
    load,
    put: (...methods: OwnMethod[]) => put(...methods.map(withRule)),
    remove: (id: string) => remove(keyOf('method', id)),
    rowOf,
    changed,
    unread,
  };
});
