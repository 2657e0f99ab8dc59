<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { ref } from 'vue';
import { printScreen } from './printing';

/** Actions of a page beside its main one: in a row where there is room, else behind one button. `isFolded`: always behind it. */
defineProps<{ isFolded?: boolean }>();
const open = ref(false);
const isNarrow = useMediaQuery('(max-width: 56.25em)');

/** Leaving it closes it. */
function leave({ relatedTarget, currentTarget }: FocusEvent): void {
  if (!(currentTarget instanceof HTMLElement && relatedTarget instanceof Node && currentTarget.contains(relatedTarget))) open.value = false;
}
</script>

<template>
  <div class="more" :class="{ folded: isFolded || isNarrow }" @focusout="leave" @keydown.esc="open = false">
    <v-btn class="toggle" variant="text" :aria-expanded="open" @click="open = !open">More</v-btn>
    <div class="rest" :class="{ open }" @click="open = false"><slot /><v-btn variant="text" @click="printScreen">Print</v-btn></div>
  </div>
</template>

<style scoped>
.more {
  position: relative;
}

.rest {
  display: flex;
  gap: 0.5rem;
}

.more:not(.folded) > .toggle {
  display: none;
}

.folded > .rest {
  position: absolute;
  z-index: 5;
  inset-block-start: 100%;
  inset-inline-end: 0;
  display: none;
  min-width: 11rem;
  padding: 0.35rem;
  background: rgb(var(--v-theme-paper));
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 3px;
  box-shadow: 0 6px 18px rgb(27 35 48 / 18%);
}

.folded > .rest.open {
  display: grid;
}

.folded > .rest > :deep(.v-btn) {
  justify-content: start;
  border-color: transparent;
}
</style>
