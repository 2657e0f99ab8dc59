import { defineStore } from 'pinia';
import { computed } from 'vue';
import { SHELVES, type Gear, type GearOn, type Kept, type Shelf } from '@core/bench';
import { migrate } from '@core/exchange';
import { SCHEMA } from '@core/ink';
import { byName, keptList } from '../ledger/keptList';
import { keyOf } from '../ledger/keys';

const gearKey = ({ shelf, gear }: { shelf: Shelf; gear: { id: string } }) => keyOf(shelf, gear.id);
const byShelf = (one: Kept, other: Kept) => SHELVES.indexOf(one.shelf) - SHELVES.indexOf(other.shelf) || byName(one.gear, other.gear);

/** The gear a person has. Runs carry copies, so nothing here rewrites history; what is retired is kept and no longer offered. */
export const useShelf = defineStore('shelf', () => {
  const { kept, unread, load, put, remove, rowOf, changed } = keptList<Kept>({
    kinds: SHELVES,
    about: 'shelf',
    keyOf: gearKey,
    // Gear of the first schema was stored without saying so.
    read: (stored) => migrate({ schema: 1, ...(stored as object) }, 'Gear on the shelf') as unknown as Kept,
    write: (each) => ({ ...each, schema: SCHEMA }),
  });
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
    rowOf,
    changed,
    retire,
    /** Throws away gear that no run has used. */
    remove: (item: { shelf: Shelf; gear: { id: string } }) => remove(gearKey(item)),
  };
});
