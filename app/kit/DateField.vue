<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { readDate, typedDate, typedPattern, type DatePart } from './dates';
import { useSettings } from './settings';

/** A date, a time, or both: the browser’s own field, unless a person chose how dates are written; then one that is typed that way. */
const props = defineProps<{ type: DatePart }>();
const value = defineModel<string>({ required: true });

const settings = useSettings();
const isOwn = computed(() => settings.dates !== 'browser' || settings.hours !== 'browser');
const text = ref('');
const error = ref('');
const pattern = computed(() => typedPattern(props.type));
watch([value, pattern], () => (text.value = typedDate(value.value, props.type)), { immediate: true });

function read(): void {
  const found = readDate(text.value, props.type);
  error.value = found === undefined ? `Write it as ${example.value}.` : '';
  if (found !== undefined) value.value = found;
}
const example = computed(() =>
  typedDate({ date: '2026-11-26', 'datetime-local': '2026-11-26T14:05', time: '14:05' }[props.type], props.type),
);
</script>

<template>
  <v-text-field
    v-if="isOwn"
    v-model="text"
    inputmode="numeric"
    :placeholder="`e.g. ${example}`"
    v-bind="error ? { errorMessages: error } : {}"
    @change="read"
  >
    <template v-if="$slots.label" #label><slot name="label" /></template>
  </v-text-field>
  <v-text-field v-else v-model="value" :type="type">
    <template v-if="$slots.label" #label><slot name="label" /></template>
  </v-text-field>
</template>
