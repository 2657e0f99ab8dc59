<script setup lang="ts">
import type { CadenceText } from '@core/method';
import FigureField from '../kit/FigureField.vue';

/** When readings fall due, as a person types it. Which fields there are hangs on the kind of cadence. */
defineProps<{ error: string }>();
const text = defineModel<CadenceText>({ required: true });

const LABELS: Readonly<Record<CadenceText['kind'], string>> = {
  fixed: 'Minutes between readings',
  'coarse then fine': 'Minutes between readings',
  marks: 'Read at, minutes',
  spot: 'Minutes to settle',
  sampled: 'Seconds between the meter’s samples',
};
const change = (part: Partial<CadenceText>) => (text.value = { ...text.value, ...part });
</script>

<template>
  <v-text-field
    v-if="text.kind !== 'marks'"
    :model-value="text.every"
    :label="LABELS[text.kind]"
    inputmode="decimal"
    :hint="text.kind === 'fixed' ? `Times will be known to within ${text.every || '…'} min.` : undefined"
    persistent-hint
    :error-messages="error"
    @update:model-value="(every: string) => change({ every })"
  />
  <v-text-field
    v-else
    :model-value="text.at"
    :label="LABELS.marks"
    hint="such as 5, 10, 15, 20, 30"
    persistent-hint
    :error-messages="error"
    @update:model-value="(at: string) => change({ at })"
  />
  <FigureField
    v-if="text.kind === 'coarse then fine'"
    :model-value="text.level"
    name="Until a display shows"
    unit="%"
    @update:model-value="(level: string) => change({ level })"
  />
  <v-text-field
    v-if="text.kind === 'coarse then fine' || text.kind === 'marks'"
    :model-value="text.then"
    label="Then minutes between readings"
    inputmode="decimal"
    :hint="text.kind === 'marks' ? 'Leave it empty to stop after the last.' : undefined"
    persistent-hint
    @update:model-value="(then: string) => change({ then })"
  />
</template>
