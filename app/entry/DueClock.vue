<script setup lang="ts">
import { computed } from 'vue';
import { countdown } from '@core/quantity';
import { useDueLine } from './dueLine';

/** The countdown of the due line; it moves with every second, by itself. */
const line = useDueLine();
const wait = computed(() => line.due?.wait);
</script>

<template>
  <template v-if="wait !== undefined">
    <span v-if="wait <= 0" class="word">due</span>{{ countdown(wait) }}
    <span class="unseen-text">{{ wait <= 0 ? 'since the reading fell due' : 'until the next reading' }}</span>
  </template>
  <template v-else>–:––</template>
</template>

<style scoped>
.word {
  display: block;
  font: 600 0.8rem var(--words);
}
</style>
