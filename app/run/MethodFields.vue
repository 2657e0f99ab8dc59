<script setup lang="ts">
import { format } from 'date-fns';
import { computed } from 'vue';
import { SCHOOLS, writeCadence } from '@core';
import { useLogbook } from '../curve/logbook';
import CadenceFields from './CadenceFields.vue';
import type { MethodChoice } from './methodChoice';

/** The method of a run: a school of the trade with a line on why, or the times of an earlier run; its cadence can be adjusted. */
defineProps<{ error: string }>();
const choice = defineModel<MethodChoice>({ required: true });

const logbook = useLogbook();
const AS_EARLIER = 'as-earlier';
const methods = [
  ...SCHOOLS.map(({ id, name }) => ({ value: id, title: name })),
  { value: AS_EARLIER, title: 'The check times of an earlier run' },
];
const school = computed(() => SCHOOLS.find(({ id }) => id === choice.value.school));
const earlierRuns = computed(() =>
  logbook.summaries.map(({ id, device, charger, plugInAt }) => ({
    value: id,
    title: `${device} on ${charger}, ${format(plugInAt, 'd MMM HH:mm')}`,
  })),
);

function take(id: string): void {
  const chosen = SCHOOLS.find((each) => each.id === id);
  choice.value = { school: chosen?.id, timing: writeCadence(chosen?.cadence ?? { kind: 'marks', at: [300] }) };
}

/** Takes over when the earlier run was read, so that the two can be laid side by side. */
async function takeTimes(id: string): Promise<void> {
  const { readings } = await logbook.open(id);
  const at = [...new Set(readings.map(({ seconds }) => Math.round(seconds)).filter((seconds) => seconds >= 30))];
  choice.value = { earlier: id, timing: writeCadence({ kind: 'marks', at }) };
}
</script>

<template>
  <v-select
    :model-value="choice.school ?? AS_EARLIER"
    :items="methods"
    label="Method"
    :menu-props="{ maxHeight: 600 }"
    @update:model-value="take"
  />
  <p v-if="school" class="soft">
    Good for {{ school.goodFor }}. Weak at: {{ school.weakAt }}. Start at {{ school.start }}; write down {{ school.records }}; stop
    {{ school.stops }}.
  </p>
  <v-autocomplete
    v-else
    :model-value="choice.earlier"
    :items="earlierRuns"
    label="As the run"
    auto-select-first
    no-data-text="No finished runs yet."
    @update:model-value="takeTimes"
  />
  <CadenceFields :model-value="choice.timing" :error="error" @update:model-value="(timing) => (choice = { ...choice, timing })" />
</template>

<style scoped>
p {
  font-size: 0.9rem;
}
</style>
