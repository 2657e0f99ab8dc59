import { defineStore } from 'pinia';
import { computed } from 'vue';
import { type Study } from '@core/plan';
import { byName, keptList } from '../ledger/keptList';
import { useLanes } from './lanes';
import { useLogbook } from './runs';

/** The studies of this logbook, and what was run of each. */
export const useStudies = defineStore('studies', () => {
  const logbook = useLogbook();
  const lanes = useLanes();
  const { kept, unread, load, put, remove, changed } = keptList(['study']);
  const all = computed(() => kept.value.map(({ thing }) => thing).sort(byName));

  /** The runs of a study, filed and live, each with the cell that it fills, in the order in which they were plugged in. */
  function runsOf(id: string): { id: string; cell: string }[] {
    const known = [...logbook.summaries, ...lanes.records.map(({ header }) => header)];
    return known
      .flatMap(({ id: run, study, plugInAt }) => (study?.id === id ? [{ id: run, cell: study.cell, plugInAt }] : []))
      .sort((one, other) => one.plugInAt - other.plugInAt);
  }

  /** Cells of a study that runs have filled, one for each run. */
  const made = (id: string): string[] => runsOf(id).map(({ cell }) => cell);

  return {
    all,
    load: async () => {
      await logbook.arrived();
      await load();
    },
    put: (...studies: Study[]) => put(...studies.map((thing) => ({ kind: 'study' as const, thing }))),
    remove: (id: string) => remove('study', id),
    changed,
    unread,
    made,
    runsOf,
  };
});
