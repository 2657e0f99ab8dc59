<script setup lang="ts">
import { computed } from 'vue';

/** Shown instead of the program when the logbook cannot be opened: nothing could be kept, so nothing is offered. */
const props = defineProps<{ trouble: unknown }>();
const said = computed(() => (props.trouble instanceof Error ? props.trouble.message : String(props.trouble)));
const reload = () => {
  location.reload();
};
</script>

<template>
  <main class="first-step" role="alert">
    <h1>The logbook of this address cannot be opened</h1>
    <p>
      Nothing you logged would be kept, so logging is closed. This happens in private windows, when site data is blocked, or when the disk
      is full.
    </p>
    <p>Allow site data for this address or use an ordinary window, then try again. What was stored before is untouched.</p>
    <v-btn @click="reload">Try again</v-btn>
    <p class="soft">The browser said: {{ said }}</p>
  </main>
</template>
