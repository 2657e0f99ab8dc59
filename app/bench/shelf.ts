import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { Charger, Device } from '@core';
import { tellTabs, onTabs } from '../ledger/channel';
import { allOf, shelfBook, store } from '../ledger/databases';

type Kept = { shelf: 'device'; gear: Device } | { shelf: 'charger'; gear: Charger };
export type Shelf = Kept['shelf'];
/** Gear while it is being written down: any field of either shelf. */
export type GearDraft = { id: string; kind?: Device['kind'] | Charger['kind'] } & Partial<Omit<Device & Charger, 'id' | 'kind'>>;

const keyOf = (kept: { shelf: Shelf; gear: { id: string } }) => `${kept.shelf}/${kept.gear.id}`;
const byName = (one: { name: string }, other: { name: string }) => one.name.localeCompare(other.name, undefined, { numeric: true });

/** The gear a person has. Runs carry copies, so nothing here rewrites history. */
export const useShelf = defineStore('shelf', () => {
  const kept = shallowRef<Kept[]>([]);
  const devices = computed(() => kept.value.flatMap((each) => (each.shelf === 'device' ? [each.gear] : [])).sort(byName));
  const chargers = computed(() => kept.value.flatMap((each) => (each.shelf === 'charger' ? [each.gear] : [])).sort(byName));

  async function load(): Promise<void> {
    kept.value = (await allOf<Kept | { shelf?: never }>(shelfBook)).filter((each): each is Kept => each.shelf !== undefined);
  }

  /** Puts gear on the shelf, or writes over the one of the same id. @throws {StorageTrouble} */
  async function put(...items: Kept[]): Promise<void> {
    await Promise.all(items.map((item) => store(shelfBook, keyOf(item), JSON.parse(JSON.stringify(item)))));
    const ids = new Set(items.map(keyOf));
    kept.value = [...kept.value.filter((each) => !ids.has(keyOf(each))), ...items];
    tellTabs({ about: 'shelf' });
  }

  async function remove(item: Kept): Promise<void> {
    await shelfBook.removeItem(keyOf(item));
    kept.value = kept.value.filter((each) => keyOf(each) !== keyOf(item));
    tellTabs({ about: 'shelf' });
  }

  onTabs(({ about }) => {
    if (about === 'shelf') void load();
  });

  return { devices, chargers, load, put, remove };
});
