<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { CAUTIONS } from '@core/advise';
import { usualFeed } from '@core/bench';
import { LANE_LETTERS } from '@core/run';
import { wallNow } from '../kit/clock';
import GearField from '../logbook/GearField.vue';
import { newHeader } from '../logbook/headers';
import { useLanes } from '../logbook/lanes';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';

/** The start of a spot check: one device, and the chargers it is tried on, one by one. */
const router = useRouter();
const shelf = useShelf();
const lanes = useLanes();
const device = ref<string | undefined>(shelf.devices.length === 1 ? shelf.devices[0]?.id : undefined);
const chosen = ref<string[]>(shelf.chargers.map(({ id }) => id));
const errors = ref<{ device?: string; chargers?: string; trouble?: string }>({});
const going = computed(() => lanes.records.filter(({ header }) => header.list));

async function begin(): Promise<void> {
  const chosenDevice = shelf.devices.find(({ id }) => id === device.value);
  const list = shelf.chargers.filter(({ id }) => chosen.value.includes(id));
  const [first] = list;
  const clash = lanes.records.find(({ header }) => header.device.id === chosenDevice?.id);
  errors.value = {
    ...(!chosenDevice && { device: 'Choose the device that is tried.' }),
    ...(clash && {
      device: `${clash.header.device.name} is charging already, on lane ${lanes.letterOf(clash.header.id)}: stop that run first.`,
    }),
    ...(!first && { chargers: 'Choose at least one charger.' }),
    ...(lanes.records.length >= LANE_LETTERS.length && { device: 'Twelve lanes are the most: stop one first.' }),
  };
  if (!chosenDevice || !first || Object.keys(errors.value).length > 0) return;
  try {
    const header = newHeader({
      device: chosenDevice,
      charger: first,
      plugInAt: wallNow(),
      method: 'spot-check',
      list: list.map((each) => each.id),
    });
    const sources = list.map((charger) => {
      const feed = usualFeed(charger, shelf.chargers, shelf.cables);
      return { charger, ...(feed && { feed }) };
    });
    await lanes.start(header, [{ kind: 'list', at: header.plugInAt, sources }]);
    await router.push(`/run/spot/${header.id}`);
  } catch (error) {
    errors.value = { trouble: troubleOf(error, 'The spot check was not started.') };
  }
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Spot check</h1>
      <p class="soft">one device, many chargers, a minute each: which of them work at all</p>
    </header>
    <div v-if="!shelf.isStocked" class="first-step">
      <h2>The shelf is not ready</h2>
      <p>A spot check needs a device and the chargers to try. Put them on the shelf first.</p>
      <v-btn to="/bench" variant="flat" color="primary">Go to the bench</v-btn>
    </div>
    <form v-else class="body stacked" novalidate @submit.prevent="begin">
      <p v-for="{ header } in going" :key="header.id">
        <RouterLink :to="`/run/spot/${header.id}`">Go on with the spot check of {{ header.device.name }}</RouterLink>
      </p>
      <GearField v-model="device" of="device" label="Device" :error-messages="errors.device" />
      <fieldset>
        <legend>Chargers, in the order they are tried</legend>
        <v-checkbox
          v-for="each in shelf.chargers"
          :key="each.id"
          v-model="chosen"
          :value="each.id"
          :label="each.name"
          density="compact"
          hide-details
        />
        <p v-if="errors.chargers" class="due" role="alert">{{ errors.chargers }}</p>
      </fieldset>
      <TroubleNote v-if="errors.trouble" :trouble="errors.trouble" />
      <v-btn type="submit" variant="flat" color="primary" size="large">Try {{ chosen.length }} chargers</v-btn>
      <ul class="soft">
        <li v-for="caution in CAUTIONS.start" :key="caution">{{ caution }}</li>
      </ul>
    </form>
  </section>
</template>

<style scoped>
fieldset {
  columns: 2;
  width: 100%;
  padding: 0.5rem 0.75rem;
  border: 1px solid rgb(var(--v-theme-line));
}

ul {
  padding-inline-start: 1.1rem;
  font-size: 0.9rem;
}
</style>
