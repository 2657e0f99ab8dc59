import { defineStore } from 'pinia';
import { computed } from 'vue';
import { migrate } from '@core/exchange';
import { type Study } from '@core/plan';
import { byName, keptList } from '../ledger/keptList';
import { keyOf } from '../ledger/keys';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

/** The studies of this logbook, and what was run of each. */
export const useStudies = defineStore('studies', () => {
  const logbook = useLogbook();
  const lanes = useLanes();
  const { kept, unread, load, put, remove, rowOf, changed } = keptList<Study>({
    kinds: ['study'],
    about: 'studies',
    keyOf: ({ id }) => keyOf('study', id),
    read: (stored) => migrate(stored, 'A study') as unknown as Study,
    write: (study) => study,
  });
  const all = computed(() => [...kept.value].sort(byName));

  /** The runs of a study, filed and live, each with the cell that it fills. */
  function runsOf(id: string): { id: string; cell: string }[] {
    const known = [...logbook.summaries, ...lanes.records.map(({ header }) => header)];
    return known.flatMap((run) => (run.study?.id === id ? [{ id: run.id, cell: run.study.cell }] : []));
  }

  /** Cells of a study that runs have filled, one for each run. */
  const made = (id: string): string[] => runsOf(id).map(({ cell }) => cell);

  return {
    all,
    load: async () => {
      await logbook.arrived();
      await load();
    },
    put,
    remove: (id: string) => remove(keyOf('study', id)),
    rowOf,
    changed,
    unread,
    made,
    runsOf,
  };
});
