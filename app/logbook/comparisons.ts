import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { comparisonSchema, isOf, type Comparison } from '@core/compare';
import { SCHEMA } from '@core/ink';
import { keptList } from '../ledger/keptList';
import { firstFree } from './firstFree';

/** Comparisons that were saved by name, with what was written of them. */
export const useComparisons = defineStore('comparisons', () => {
  const { kept, unread, load, put, remove, changed } = keptList(['comparison']);
  /** The latest first. */
  const all = computed(() => kept.value.map(({ thing }) => thing).sort((one, other) => other.at - one.at));
  /** The one of these runs that was saved last. */
  const of = (runs: readonly string[]) => all.value.find((each) => isOf(each, runs));

  /** Saves a comparison under its name: one of the same name is written over, and keeps its id. @throws {ValidationError | StorageTrouble} */
  async function save(made: Omit<Comparison, 'id' | 'at' | 'schema'>): Promise<Comparison> {
    const id = all.value.find(({ name }) => name === made.name.trim())?.id ?? nanoid(12);
    const checked = comparisonSchema.validateSync({ ...JSON.parse(JSON.stringify(made)), id, at: Date.now(), schema: SCHEMA });
    await put({ kind: 'comparison', thing: checked });
    return checked;
  }

  /** A name that no comparison has yet. */
  const freeName = (wanted: string): string => firstFree(wanted, all.value);

  return { all, of, freeName, load, save, remove: (id: string) => remove('comparison', id), changed, unread };
});
