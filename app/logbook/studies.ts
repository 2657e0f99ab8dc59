import { defineStore } from 'pinia';
import { computed } from 'vue';
import { migrate } from '@core/exchange';
import { type Study } from '@core/plan';
import { studyBook } from '../ledger/databases';
import { byName, keptList } from '../ledger/keptList';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

/** The studies of this logbook, and what was run of each. */
export const useStudies = defineStore('studies', () => {
  const logbook = useLogbook();
  const lanes = useLanes();
  const { kept, unread, load, put, remove, arriving, changed } = keptList<Study>({
    book: studyBook,
    about: 'studies',
    keyOf: ({ id }) => id,
    read: (stored) => migrate(stored, 'A study') as unknown as Study,
    write: (study) => study,
  });
  const all = computed(() => [...kept.value].sort(byName));

  /** Cells of a study that runs have filled, filed and live, one for each run. */
  function made(id: string): string[] {
    const studies = [...logbook.summaries.map(({ study }) => study), ...lanes.records.map(({ header }) => header.study)];
    return studies.flatMap((study) => (study?.id === id ? [study.cell] : []));
  }

  return {
    all,
    load: async () => {
      await logbook.arrived();
      await load();
    },
    put,
    remove,
    arriving,
    changed,
    unread,
    made,
  };
});
