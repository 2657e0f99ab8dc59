<script setup lang="ts">
import { SHORTCUTS } from './shortcuts';
import { useSettings } from './settings';

/** Every key and what it does. */
const open = defineModel<boolean>({ required: true });
const settings = useSettings();
</script>

<template>
  <v-dialog v-model="open" max-width="520" aria-labelledby="shortcuts-title">
    <v-card>
      <h2 id="shortcuts-title">Keys</h2>
      <p class="soft">A whole run can be logged without the mouse. Capitals go to a place, small letters act.</p>
      <dl>
        <template v-for="(shortcut, name) in SHORTCUTS" :key="name">
          <dt>
            <kbd>{{ shortcut.shown }}</kbd>
          </dt>
          <dd>{{ shortcut.does }}</dd>
        </template>
      </dl>
      <v-checkbox v-model="settings.singleKeys" label="Listen to single keys (Enter and Esc always work)" />
      <v-btn @click="open = false">Close</v-btn>
    </v-card>
  </v-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.45rem 1rem;
  margin: 1rem 0;
}
</style>
