import { defineStore } from 'pinia';
import { computed } from 'vue';
import { SCHOOLS, withRule, type OwnMethod, type School } from '@core/method';
import { byName, keptList } from '../ledger/keptList';

/** The methods there are: the schools of the trade, and the reviewer’s own. Runs and studies keep their own cadence, so one may be thrown away. */
export const useMethods = defineStore('methods', () => {
  const { kept, unread, load, put, remove, changed } = keptList(['method']);
  const own = computed(() => kept.value.map(({ thing }) => thing));
  const all = computed<School[]>(() => [...SCHOOLS, ...[...own.value].sort(byName)]);
  const byId = (id: string | undefined) => all.value.find((method) => method.id === id);
  const isOwn = (id: string | undefined) => own.value.some((method) => method.id === id);

  return {
    all,
    own,
    byId,
    isOwn,
    load,
    put: (...methods: OwnMethod[]) => put(...methods.map((thing) => ({ kind: 'method' as const, thing: withRule(thing) }))),
    remove: (id: string) => remove('method', id),
    changed,
    unread,
  };
});
