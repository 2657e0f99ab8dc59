import { defineStore } from 'pinia';
import { computed } from 'vue';
import { SHELVES, type Gear, type GearOn, type Kept, type Shelf } from '@core/bench';
import { byName, keptList, type Item } from '../ledger/keptList';

const itemOf = ({ shelf, gear }: Kept) => ({ kind: shelf, thing: gear }) as Item<Shelf>;
const byShelf = (one: Kept, other: Kept) => SHELVES.indexOf(one.shelf) - SHELVES.indexOf(other.shelf) || byName(one.gear, other.gear);

/** The gear a person has. Runs carry copies, so nothing here rewrites history; what is retired is kept and no longer offered. */
export const useShelf = defineStore('shelf', () => {
  const { kept: items, unread, load, put: keep, remove, changed } = keptList(SHELVES);
  const kept = computed(() => items.value.map(({ kind, thing }) => ({ shelf: kind, gear: thing }) as Kept));
  const put = (...gear: Kept[]) => keep(...gear.map(itemOf));
  const all = computed(() => [...kept.value].sort(byShelf));
  const offered = computed(() => kept.value.filter(({ gear }) => !gear.retired));
  const inUse = <On extends Shelf>(shelf: On) =>
    computed(() => offered.value.flatMap((each) => (each.shelf === shelf ? [each.gear as GearOn[On]] : [])).sort(byName));
  /** How much gear is in use. */
  const count = computed(() => offered.value.length);
  /** Whether there is something to charge, and something to charge it from. */
  const isStocked = computed(() => (['device', 'charger'] as const).every((shelf) => offered.value.some((each) => each.shelf === shelf)));

  /** All gear by its shelf, retired too, as a logbook lists it. */
  function everything() {
    const on = <On extends Shelf>(shelf: On) => all.value.filter((each) => each.shelf === shelf).map(({ gear }) => gear as GearOn[On]);
    return { devices: on('device'), chargers: on('charger'), cables: on('cable'), meters: on('meter') };
  }

  /** Takes gear out of use, or back into it. @throws {StorageTrouble} */
  function retire({ shelf, gear }: { shelf: Shelf; gear: Gear }, retired = true): Promise<void> {
    return put({ shelf, gear: { ...gear, retired: retired || undefined } } as Kept);
  }

  return {
    all,
    count,
    isStocked,
    everything,
    devices: inUse('device'),
    chargers: inUse('charger'),
    cables: inUse('cable'),
    meters: inUse('meter'),
    unread,
    load,
    put,
    changed,
    retire,
    /** Throws away gear that no run has used. */
    remove: ({ shelf, gear }: { shelf: Shelf; gear: { id: string } }) => remove(shelf, gear.id),
  };
});
