<script setup lang="ts">
import ShortcutList from './ShortcutList.vue';

/** Every key and what it does. */
const open = defineModel<boolean>({ required: true });
</script>

<template>
  <v-dialog v-model="open" max-width="520" aria-labelledby="shortcuts-title">
    <v-card>
      <h2 id="shortcuts-title">Keys</h2>
      <p class="soft">A whole run can be logged without the mouse. Capitals go to a place, small letters act.</p>
      <ShortcutList />
      <v-btn @click="open = false">Close</v-btn>
    </v-card>
  </v-dialog>
</template>
