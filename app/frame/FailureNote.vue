<script setup lang="ts">
import { failure } from '../kit/failures';
import SaveLogbook from './SaveLogbook.vue';

/** Says what failed while the page it failed on still stands. */
</script>

<template>
  <div v-if="failure" class="failure" role="alert">
    <p>Something failed: {{ failure.says }} What was shown as logged is stored.</p>
    <SaveLogbook />
    <v-btn @click="failure = undefined">All right</v-btn>
  </div>
</template>

<style scoped>
.failure {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
  padding: 0.5rem 1.5rem;
  color: rgb(var(--v-theme-due));
}

p {
  flex: 1 1 20rem;
  overflow-wrap: anywhere;
}
</style>
