<script setup lang="ts">
/** Whether a charge is drawn by time, or by what the battery holds. */
const isByLevel = defineModel<boolean>({ required: true });
</script>

<template>
  <div role="group" aria-label="Drawn by">
    <button type="button" :aria-pressed="!isByLevel" @click="isByLevel = false">By time</button>
    <button type="button" :aria-pressed="isByLevel" @click="isByLevel = true">By level</button>
  </div>
</template>
