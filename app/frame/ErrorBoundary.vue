<script setup lang="ts">
import { onErrorCaptured, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { failureFrom, report, type Failure } from '../kit/failures';
import SaveLogbook from './SaveLogbook.vue';

/** Stands around whatever is routed to: an exception in it takes its place, with a way on, and nothing else of the frame. */
const route = useRoute();
const found = shallowRef<Failure>();

/** Where Vue was when it failed; in a built program a number at the end of an address. What a person did to a page that stands leaves it standing. */
const DOING = /native event handler|component event handler|watcher callback|#runtime-[356]$/;

onErrorCaptured((error, _instance, info) => {
  if (DOING.test(info)) report(error);
  else {
    console.error(error);
    found.value = failureFrom(error);
  }
  return false;
});
const again = () => (found.value = undefined);
watch(() => route.fullPath, again);
</script>

<template>
  <section v-if="found" class="sheet first-step" role="alert">
    <h1>This page failed</h1>
    <p>What you logged is stored and untouched; the line at the foot goes on taking readings.</p>
    <p>It said: {{ found.says }}</p>
    <p>
      <v-btn variant="flat" color="primary" @click="again">Try again</v-btn>
      <v-btn to="/live">Go to the board</v-btn>
      <SaveLogbook />
    </p>
    <details>
      <summary>For whoever mends it</summary>
      <pre>{{ found.details }}</pre>
    </details>
  </section>
  <slot v-else />
</template>

<style scoped>
.first-step p {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  overflow-wrap: anywhere;
}

pre {
  overflow: auto;
  font-size: 0.8rem;
}
</style>
