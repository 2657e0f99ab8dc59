<script setup lang="ts">
import { useSettings } from '../kit/settings';
import { SHORTCUTS } from '../kit/shortcuts';

/** Every key and what it does, and the switch that turns single keys off. */
const settings = useSettings();
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
  <v-checkbox v-model="settings.singleKeys" label="Listen to single keys (Enter and Esc always work)" />
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.4rem 1rem;
}
</style>
