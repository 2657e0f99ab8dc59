<script setup lang="ts">
import { computed } from 'vue';
import { useDrawnTheme } from './drawnTheme';
import { penOf, type Nib } from './pens';

/** A pen as a legend shows it: a stretch of its line and its nib, or the nib alone. */
const props = defineProps<{ pen: number; line?: boolean }>();

const theme = useDrawnTheme();
const drawn = computed(() => penOf(props.pen, theme.value));
const SHAPES: Readonly<Record<Nib, string>> = {
  circle: 'M-4.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0-9 0z',
  diamond: 'M0-5.5L5.5 0L0 5.5L-5.5 0z',
  triangle: 'M0-5L5 4.5H-5z',
  square: 'M-4-4H4V4H-4z',
  down: 'M0 5L5-4.5H-5z',
  cross: 'M-5 0H5M0-5V5',
};
</script>

<template>
  <svg :width="line ? 42 : 14" height="14" :viewBox="line ? '-21 -7 42 14' : '-7 -7 14 14'" aria-hidden="true" class="nib">
    <path v-if="line" d="M-21 0H21" :stroke="drawn.colour" stroke-width="2.5" :stroke-dasharray="drawn.dash.join(' ')" />
    <path
      :d="SHAPES[drawn.nib]"
      :fill="drawn.hollow ? 'rgb(var(--v-theme-paper))' : drawn.colour"
      :stroke="drawn.colour"
      :stroke-width="drawn.nib === 'cross' ? 3 : 1.5"
    />
  </svg>
</template>

<style scoped>
.nib {
  flex: none;
}
</style>
