import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { migrate, SCHEMA, SHELVES, type Gear, type GearOn, type Kept, type Shelf } from '@core';
import { onTabs, tellTabs } from '../ledger/channel';
import { allOf, shelfBook, store, takeAway } from '../ledger/databases';

/** Gear as it is stored. */
type Stored = Kept & { schema: typeof SCHEMA };

const keyOf = ({ shelf, gear }: { shelf: Shelf; gear: { id: string } }) => `${shelf}/${gear.id}`;
const byName = (one: Kept, other: Kept) =>
  SHELVES.indexOf(one.shelf) - SHELVES.indexOf(other.shelf) || one.gear.name.localeCompare(other.gear.name, undefined, { numeric: true });

/** The gear a person has. Runs carry copies, so nothing here rewrites history; what is retired is kept and no longer offered. */
export const useShelf = defineStore('shelf', () => {
  const kept = shallowRef<Kept[]>([]);
  const all = computed(() => [...kept.value].sort(byName));
  const inUse = <On extends Shelf>(shelf: On) =>
    computed(() => all.value.filter((each) => each.shelf === shelf && !each.gear.retired).map(({ gear }) => gear as GearOn[On]));

  /** All gear by its shelf, retired too, as a logbook lists it. */
  function everything() {
    const on = <On extends Shelf>(shelf: On) => all.value.filter((each) => each.shelf === shelf).map(({ gear }) => gear as GearOn[On]);
    return { devices: on('device'), chargers: on('charger'), cables: on('cable'), meters: on('meter') };
  }

  async function load(): Promise<void> {
    const values = await allOf<Partial<Stored>>(shelfBook);
    // Gear of the first schema was stored without saying so.
    kept.value = values
      .filter(({ shelf }) => shelf !== undefined)
      .map((each) => migrate({ schema: 1, ...each }, 'Gear on the shelf') as unknown as Stored);
  }

  /** Puts gear on the shelf, or writes over the one of the same id. @throws {StorageTrouble} */
  async function put(...items: Kept[]): Promise<void> {
    const plain = items.map((item) => JSON.parse(JSON.stringify({ ...item, schema: SCHEMA })) as Stored);
    await Promise.all(plain.map((item) => store(shelfBook, keyOf(item), item)));
    const keys = new Set(plain.map(keyOf));
    kept.value = [...kept.value.filter((each) => !keys.has(keyOf(each))), ...plain];
    tellTabs({ about: 'shelf' });
  }

  /** Takes gear out of use, or back into it. @throws {StorageTrouble} */
  function retire({ shelf, gear }: { shelf: Shelf; gear: Gear }, retired = true): Promise<void> {
    return put({ shelf, gear: { ...gear, retired: retired || undefined } } as Kept);
  }

  /** Throws away gear that no run has used. */
  async function remove(item: { shelf: Shelf; gear: { id: string } }): Promise<void> {
    await takeAway(shelfBook, keyOf(item));
    kept.value = kept.value.filter((each) => keyOf(each) !== keyOf(item));
    tellTabs({ about: 'shelf' });
  }

  onTabs(({ about }) => {
    if (about === 'shelf') void load();
  });

  return {
    all,
    everything,
    devices: inUse('device'),
    chargers: inUse('charger'),
    cables: inUse('cable'),
    meters: inUse('meter'),
    load,
    put,
    retire,
    remove,
  };
});
