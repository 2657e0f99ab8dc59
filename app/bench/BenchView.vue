<script setup lang="ts">
import { computed, ref } from 'vue';
import { nanoid } from 'nanoid';
import { batteryOf, fixed, type Charger, type Device } from '@core';
import GearForm from './GearForm.vue';
import { useShelf, type GearDraft, type Shelf } from './shelf';

/** The shelf: what is charged, and what it is charged from. */
const shelf = useShelf();
const editing = ref<{ shelf: Shelf; gear: GearDraft }>();
const removed = ref<{ shelf: Shelf; gear: Device | Charger }>();

const deviceRows = computed(() =>
  shelf.devices.map((gear) => ({
    gear,
    facts: [gear.kind, batteryText(gear), gear.inputLimit === undefined ? 'input limit unknown' : `takes up to ${gear.inputLimit} W`],
  })),
);
const chargerRows = computed(() =>
  shelf.chargers.map((gear) => ({
    gear,
    facts: [gear.kind, `${gear.watts} W`, gear.label, gear.price === undefined ? undefined : `costs ${gear.price}`],
  })),
);
const columns = computed(() => [
  {
    shelf: 'device' as const,
    title: 'Devices',
    add: 'Add a device',
    none: 'Nothing to charge yet. Write down a phone, tablet, laptop or camera with its battery.',
    rows: deviceRows.value,
  },
  {
    shelf: 'charger' as const,
    title: 'Chargers',
    add: 'Add a charger',
    none: 'Nothing to charge from yet. Any source counts: adapter, dock, socket, bank, pad.',
    rows: chargerRows.value,
  },
]);

function batteryText(device: Device): string {
  const energy = batteryOf(device);
  if (energy === undefined) return 'battery unknown';
  const charge = device.milliampHours === undefined ? '' : `${device.milliampHours} mAh · `;
  return `${charge}${fixed(energy, 1)} Wh`;
}

async function remove(item: { shelf: Shelf; gear: Device | Charger }): Promise<void> {
  await shelf.remove(item as Parameters<typeof shelf.remove>[0]);
  removed.value = item;
}

async function undo(): Promise<void> {
  if (removed.value) await shelf.put(removed.value as Parameters<typeof shelf.put>[0]);
  removed.value = undefined;
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Bench</h1>
      <p class="soft">what you charge, and what you charge it from</p>
    </header>
    <div class="body shelves">
      <section v-for="column in columns" :key="column.shelf" :aria-label="column.title">
        <div class="title">
          <h2>{{ column.title }}</h2>
          <v-btn size="small" @click="editing = { shelf: column.shelf, gear: { id: nanoid(10) } }">{{ column.add }}</v-btn>
        </div>
        <p v-if="column.rows.length === 0" class="soft none">{{ column.none }}</p>
        <ul v-else>
          <li v-for="{ gear, facts } in column.rows" :key="gear.id">
            <button type="button" class="gear" @click="editing = { shelf: column.shelf, gear }">
              <strong>{{ gear.name }}</strong>
              <span class="soft">{{ facts.filter(Boolean).join(' · ') }}</span>
            </button>
            <v-btn
              variant="text"
              size="small"
              :aria-label="`Take ${gear.name} off the shelf`"
              @click="remove({ shelf: column.shelf, gear })"
              >Take off</v-btn
            >
          </li>
        </ul>
      </section>
      <p v-if="removed" class="removed" role="status">
        {{ removed.gear.name }} is off the shelf; runs keep their own copy of it. <v-btn size="small" @click="undo">Put it back</v-btn>
      </p>
    </div>
    <GearForm v-if="editing" :key="editing.gear.id" :shelf="editing.shelf" :gear="editing.gear" @done="editing = undefined" />
  </section>
</template>

<style scoped>
.shelves {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 24rem), 1fr));
  gap: 2rem 3rem;
}

.title {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding-bottom: 0.6rem;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

ul {
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

.gear {
  flex: 1;
  display: grid;
  min-width: 0;
  padding: 0.65rem 0.25rem;
  text-align: start;
  background: none;
  border: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
  overflow-wrap: anywhere;
}

.gear:hover strong {
  text-decoration: underline;
}

.gear .soft {
  font-size: 0.88rem;
}

.none {
  padding: 1rem 0;
}

.removed {
  grid-column: 1 / -1;
}
</style>
