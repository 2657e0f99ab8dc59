<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import type { Device } from '@core/bench';
import type { Header, Source } from '@core/ink';
import { readDecimal } from '@core/quantity';
import { vFocus } from '../kit/vFocus';
import FigureField from '../kit/FigureField.vue';
import BetweenFields from '../logbook/BetweenFields.vue';
import GearField from '../logbook/GearField.vue';
import { useShelf } from '../logbook/shelf';

/** Adds a source to the list of a spot check: a charger with its port, cable, what feeds it, or held to one voltage. */
const props = defineProps<{ device: Device; isKnown: (source: Source) => boolean }>();
const emit = defineEmits<{ add: [source: Source]; close: [] }>();

const shelf = useShelf();
const charger = ref<string>();
const between = shallowRef<Pick<Header, 'port' | 'cable' | 'meter' | 'feed'>>({});
const held = ref('');
const error = ref('');
const chosen = computed(() => shelf.chargers.find(({ id }) => id === charger.value));

function add(): void {
  const volts = held.value.trim() === '' ? undefined : readDecimal(held.value);
  error.value = '';
  if (!chosen.value) error.value = 'Choose a charger.';
  else if (volts !== undefined && !(volts > 0 && volts <= 60)) error.value = 'Write volts up to 60, or leave it empty.';
  if (error.value || !chosen.value) return;
  const { port, cable, feed } = between.value;
  const source: Source = {
    charger: chosen.value,
    ...(port !== undefined && { port }),
    ...(cable && { cable }),
    ...(feed && { feed }),
    ...(volts !== undefined && { held: volts }),
  };
  if (props.isKnown(source)) error.value = 'That stands in the list already: vary its port, cable, feed or voltage.';
  else emit('add', source);
}
</script>

<template>
  <form class="add" aria-label="Add a source" @submit.prevent="add">
    <GearField v-model="charger" v-focus of="charger" label="Charger to add" />
    <BetweenFields v-if="chosen" :key="chosen.id" v-model="between" :device="device" :charger="chosen" without-meter />
    <FigureField v-model="held" name="Held to" unit="V" hint="where it is let give one voltage only" persistent-hint />
    <p v-if="error" class="due" role="alert">{{ error }}</p>
    <div class="buttons">
      <v-btn type="submit" variant="flat" color="primary">Add it</v-btn>
      <v-btn @click="emit('close')">Cancel</v-btn>
    </div>
  </form>
</template>

<style scoped>
.add {
  display: grid;
  gap: 0.7rem;
  padding-top: 0.8rem;
}
</style>
