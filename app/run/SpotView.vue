<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { CAUTIONS } from '@core/advise';
import { usualFeed } from '@core/bench';
import { LANE_LETTERS } from '@core/run';
import { useSitting } from '../entry/sitting';
import { wallNow } from '../kit/clock';
import PickMany from '../kit/PickMany.vue';
import GearField from '../logbook/GearField.vue';
import { newHeader } from '../logbook/headers';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';

/** The start of a spot check: one device, and the chargers it is tried on, one by one. */
const router = useRouter();
const route = useRoute();
const logbook = useLogbook();
const sitting = useSitting();
const shelf = useShelf();
const lanes = useLanes();
const device = ref<string | undefined>(shelf.devices.length === 1 ? shelf.devices[0]?.id : undefined);
/** Those of the list of an earlier spot check, where one is taken again; else none: what is tried is chosen. */
const chosen = ref<string[]>([]);
onMounted(async () => {
  const { again } = route.query;
  if (typeof again !== 'string') return;
  const { sketch } = await logbook.open(again);
  device.value = shelf.devices.find(({ id }) => id === sketch.header.device.id)?.id;
  chosen.value = sitting.listOf(sketch).flatMap(({ charger }) => shelf.chargers.find(({ id }) => id === charger.id)?.id ?? []);
});
const errors = ref<{ device?: string; chargers?: string; trouble?: string }>({});
const going = computed(() => lanes.records.filter(({ header }) => header.list));

/** A charger that was typed joins those that are tried. */
function addToList(id: string | undefined): void {
  if (id !== undefined && !chosen.value.includes(id)) chosen.value = [...chosen.value, id];
}

async function begin(): Promise<void> {
  const chosenDevice = shelf.devices.find(({ id }) => id === device.value);
  const list = chosen.value.flatMap((id) => shelf.chargers.find((each) => each.id === id) ?? []);
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
    await router.push(`/live/spot/${header.id}`);
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
    <form class="body stacked" novalidate @submit.prevent="begin">
      <p v-for="{ header } in going" :key="header.id">
        <RouterLink :to="`/live/spot/${header.id}`">Go on with the spot check of {{ header.device.name }}</RouterLink>
      </p>
      <GearField v-model="device" of="device" label="Device" :error-messages="errors.device" />
      <PickMany
        v-model="chosen"
        name="Chargers"
        hint="tried in the order in which they are picked"
        :items="shelf.chargers"
        :error-messages="errors.chargers"
      />
      <GearField :model-value="undefined" of="charger" label="Another charger, by its name" @update:model-value="addToList" />
      <TroubleNote v-if="errors.trouble" :trouble="errors.trouble" />
      <v-btn type="submit" variant="flat" color="primary" size="large"
        >Try {{ chosen.length === 1 ? 'one charger' : `${chosen.length} chargers` }}</v-btn
      >
      <ul class="soft">
        <li v-for="caution in CAUTIONS.start" :key="caution">{{ caution }}</li>
      </ul>
    </form>
  </section>
</template>

<style scoped>
ul {
  padding-inline-start: 1.1rem;
  font-size: 0.9rem;
}
</style>
