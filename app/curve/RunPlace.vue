<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import type { Alignment } from '@core/curve';
import { clockSays, fromPlugIn } from '@core/ink';
import { quantityOf, spell } from '@core/quantity';
import { momentText } from '../kit/dates';
import { useLogbook } from '../logbook/runs';
import { troubleOf } from '../logbook/trouble';
import type { LogSeen } from '../workers/exchange';
import PlaceField from './PlaceField.vue';

/** Which run a log is added to, and where it lies in it: by what rises and falls in both, by its own dates, from plug-in on, or as it is typed. */
const props = defineProps<{ log: LogSeen; align: (id: string) => Promise<Alignment | undefined> }>();
const run = defineModel<string | undefined>('run', { required: true });
const place = defineModel<{ at: number; drift?: number } | undefined>('place', { required: true });

const logbook = useLogbook();
const runs = computed(() =>
  logbook.summaries.map(({ id, device, charger, plugInAt }) => ({
    value: id,
    title: `${device} on ${charger}, ${momentText(plugInAt, { year: true })}`,
  })),
);
const plugInAt = ref<number>();
const found = shallowRef<Alignment>();
const matching = ref(false);
const trouble = ref('');
const by = ref<'steps' | 'dates' | 'plug-in' | 'typed'>('plug-in');
/** Where it begins as it was typed, in seconds from plug-in. */
const typed = ref<number>();

const DAY = 24 * 3600 * 1000;
/** Its own dates, where they fall into the time of the run. */
const dated = computed(() => {
  const { plugInAt: began } = props.log;
  return began !== undefined && plugInAt.value !== undefined && Math.abs(began - plugInAt.value) < DAY ? began : undefined;
});
const matched = computed(() => {
  const { value: fit } = found;
  if (!fit) return 'nothing that rises and falls was read both there and here';
  const told = `its ${quantityOf(fit.by).named} tell ${Math.round(100 * fit.explained)} % of the ups and downs that were read`;
  return `begins ${fromPlugIn(fit.zero)} ± ${spell(fit.margin, 1)}${clockSays(fit.drift)}: ${told}${fit.doubt === undefined ? '' : `, but ${fit.doubt}`}`;
});

async function look(): Promise<void> {
  [found.value, plugInAt.value, trouble.value, by.value] = [undefined, undefined, '', 'plug-in'];
  typed.value = undefined;
  const { value: id } = run;
  if (!id) return;
  matching.value = true;
  try {
    const [opened, fit] = await Promise.all([logbook.open(id), props.align(id)]);
    if (run.value !== id) return;
    plugInAt.value = opened.run.header.plugInAt;
    found.value = fit;
    by.value = fit && fit.doubt === undefined ? 'steps' : dated.value === undefined ? 'plug-in' : 'dates';
  } catch (error) {
    trouble.value = troubleOf(error);
  } finally {
    matching.value = false;
  }
}
watch([run, () => props.log], look);
onMounted(look);

watch([by, found, plugInAt, typed], () => {
  const [{ value: fit }, { value: began }] = [found, plugInAt];
  if (began === undefined || (by.value === 'typed' && typed.value === undefined)) place.value = undefined;
  else if (by.value === 'typed') place.value = { at: began + Math.round((typed.value ?? 0) * 1000) };
  else if (by.value === 'steps' && fit)
    place.value = { at: began + Math.round(fit.zero * 1000), ...(fit.drift && { drift: Math.round(fit.drift) }) };
  else place.value = { at: by.value === 'dates' && dated.value !== undefined ? dated.value : began };
});
</script>

<template>
  <v-autocomplete v-model="run" :items="runs" label="Run that it is added to" auto-select-first no-data-text="No finished run yet" />
  <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
  <p v-else-if="matching" class="soft" role="status">Looking where it lies …</p>
  <v-radio-group v-else-if="plugInAt !== undefined" v-model="by" hide-details label="Where it lies">
    <v-radio value="steps" :disabled="!found" :label="`by its steps: ${matched}`" />
    <v-radio v-if="dated !== undefined" value="dates" :label="`by its own dates: begins ${fromPlugIn((dated - plugInAt) / 1000)}`" />
    <v-radio value="plug-in" label="from plug-in on" />
    <v-radio value="typed" label="where you say" />
  </v-radio-group>
  <PlaceField v-if="by === 'typed'" @place="(seconds) => (typed = seconds)" />
  <p class="soft">It can be moved later, on the strip of the run.</p>
</template>
