<script setup lang="ts">
import { SHORTCUTS } from '../kit/shortcuts';

/** Every key and what it does. Settings turn single keys off. */
</script>

<template>
  <dl>
    <template v-for="(shortcut, name) in SHORTCUTS" :key="name">
      <dt>
        <kbd>{{ shortcut.shown }}</kbd>
      </dt>
      <dd>{{ shortcut.does }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.4rem 1rem;
}
</style>
