<script setup lang="ts">
/** What setups are set against, and by which figure. */
defineProps<{
  baseline: string | undefined;
  baselines: { id: string; name: string }[];
  yardstick: string;
  yardsticks: { id: string; title: string }[];
}>();
defineEmits<{ ask: [some: { base?: string; level?: string }] }>();
</script>

<template>
  <v-select
    :model-value="baseline"
    :items="baselines"
    item-title="name"
    item-value="id"
    label="Set against"
    density="compact"
    @update:model-value="(id: string) => $emit('ask', { base: id })"
  />
  <v-select
    :model-value="yardstick"
    :items="yardsticks"
    item-value="id"
    label="By"
    density="compact"
    @update:model-value="(id: string) => $emit('ask', { level: id })"
  />
</template>
