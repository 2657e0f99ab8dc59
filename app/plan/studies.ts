import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { migrate, type Study } from '@core';
import { useLogbook } from '../curve/logbook';
import { onTabs, tellTabs } from '../ledger/channel';
import { allOf, store, studyBook, takeAway } from '../ledger/databases';
import { useLanes } from '../run/lanes';

/** The studies of this logbook, and what was run of each. */
export const useStudies = defineStore('studies', () => {
  const kept = shallowRef<Study[]>([]);
  const logbook = useLogbook();
  const lanes = useLanes();
  const all = computed(() => [...kept.value].sort((one, other) => one.name.localeCompare(other.name, undefined, { numeric: true })));

  async function load(): Promise<void> {
    await logbook.arrived();
    kept.value = (await allOf<Study>(studyBook)).map((each) => migrate(each, 'A study') as unknown as Study);
  }

  /** Keeps a study, or writes over the one of the same id. @throws {StorageTrouble} */
  async function put(...studies: Study[]): Promise<void> {
    const plain = JSON.parse(JSON.stringify(studies)) as Study[];
    await Promise.all(plain.map((study) => store(studyBook, study.id, study)));
    const ids = new Set(plain.map(({ id }) => id));
    kept.value = [...kept.value.filter(({ id }) => !ids.has(id)), ...plain];
    tellTabs({ about: 'studies' });
  }

  async function remove(id: string): Promise<void> {
    await takeAway(studyBook, id);
    kept.value = kept.value.filter((study) => study.id !== id);
    tellTabs({ about: 'studies' });
  }

  /** Cells of a study that runs have filled, filed and live, one for each run. */
  function made(id: string): string[] {
    const studies = [...logbook.summaries.map(({ study }) => study), ...lanes.records.map(({ header }) => header.study)];
    return studies.flatMap((study) => (study?.id === id ? [study.cell] : []));
  }

  onTabs(({ about }) => {
    if (about === 'studies') void load();
  });

  return { all, load, put, remove, made };
});
