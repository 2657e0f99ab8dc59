<script setup lang="ts">
import { computed } from 'vue';
import { useShelf } from './shelf';

/** Chooses a device or a charger off the shelf, by its id. */
const props = defineProps<{ of: 'device' | 'charger' }>();
const chosen = defineModel<string | undefined>({ required: true });

const shelf = useShelf();
const offered = computed(() => (props.of === 'device' ? shelf.devices : shelf.chargers));
</script>

<template>
  <v-autocomplete v-model="chosen" :items="offered" item-title="name" item-value="id" auto-select-first />
</template>
