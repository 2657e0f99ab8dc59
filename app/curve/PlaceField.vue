<script setup lang="ts">
import { computed, ref } from 'vue';
import { readPlace } from '@core/ink';

/** Where a log begins, typed as minutes and seconds from plug-in: `2:30`, or `-2:30` before it. */
const emit = defineEmits<{ place: [seconds: number | undefined] }>();
const typed = ref('');
const error = computed(() =>
  typed.value.trim() === '' || readPlace(typed.value) !== undefined ? '' : 'Write minutes and seconds, as 2:30, or -2:30 before plug-in.',
);

function write(text: string): void {
  typed.value = text;
  emit('place', readPlace(text));
}
</script>

<template>
  <v-text-field
    :model-value="typed"
    label="Begins, from plug-in"
    placeholder="2:30, or -2:30 before it"
    density="compact"
    :error-messages="error"
    @update:model-value="write"
  />
</template>
