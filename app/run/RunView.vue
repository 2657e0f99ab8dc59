<script setup lang="ts">
import { computed } from 'vue';
import { useShelf } from '../bench/shelf';
import { useLogbook } from '../curve/logbook';
import { logbookKind } from '../frame/openLogbook';
import { useLanes } from './lanes';
import LiveLane from './LiveLane.vue';

/** The board: every live run in a lane of its own. */
const lanes = useLanes();
const shelf = useShelf();
const logbook = useLogbook();
const isReady = computed(() => shelf.devices.length > 0 && shelf.chargers.length > 0);
const isDemo = logbookKind() === 'demo';
</script>

<template>
  <section class="sheet board">
    <header>
      <h1>{{ lanes.records.length > 0 ? 'Charging now' : 'Run' }}</h1>
      <p v-if="lanes.records.length > 0" class="soft">{{ lanes.records.length === 1 ? 'one lane' : `${lanes.records.length} lanes` }}</p>
      <div class="actions"><v-btn v-if="isReady" to="/run/new">Start a run</v-btn></div>
    </header>
    <LiveLane
      v-for="run in lanes.records"
      :key="run.header.id"
      :run="run"
      :letter="lanes.letterOf(run.header.id)"
      :is-slim="lanes.records.length > 4"
    />
    <div v-if="lanes.records.length === 0" class="first-step">
      <template v-if="isReady">
        <h2>Nothing is charging</h2>
        <p>Start a run, press one key as you plug in, and read the display when the due line calls.</p>
        <v-btn to="/run/new" variant="flat" color="primary">Start a run</v-btn>
        <RouterLink v-if="logbook.summaries.length > 0" to="/curve">See the {{ logbook.summaries.length }} finished runs</RouterLink>
      </template>
      <template v-else>
        <h2>First, put a device and a charger on the shelf</h2>
        <p>A run needs to know what is charging and from what. Both take a minute to write down.</p>
        <v-btn to="/bench" variant="flat" color="primary">Go to the bench</v-btn>
        <p v-if="!isDemo" class="soft">
          To look round first, run <code class="figures">npm run demo</code>: a made-up logbook at its own address.
        </p>
      </template>
    </div>
  </section>
</template>

<style scoped>
.board {
  display: flex;
  flex-direction: column;
  height: 100%;
}
</style>
