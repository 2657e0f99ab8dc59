<script setup lang="ts">
import { ref } from 'vue';
import { useSettings } from '../kit/settings';
import { endTour } from './toured';

/** What the demo says once: what the program is for, and the offer of a tour. */
const settings = useSettings();
const isOff = ref(false);
async function tour(): Promise<void> {
  isOff.value = true;
  const { takeTour } = await import('./tour');
  takeTour(settings.theme, endTour);
}
</script>

<template>
  <p v-if="!isOff" class="welcome" role="status" data-acts>
    Inkpath Log times how devices charge, and says which differences the readings can tell. These runs are made up: change what you like.
    <v-btn variant="flat" color="primary" size="small" @click="tour">Take the tour</v-btn>
    <v-btn variant="text" size="small" @click="endTour">Close</v-btn>
  </p>
</template>

<style scoped>
.welcome {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  align-items: center;
  padding: 0.5rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
  background: rgb(var(--v-theme-desk));
  font-size: 0.9rem;
}
</style>
