<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { usualFeed } from '@core/bench';
import { expectations, lessons } from '@core/power';
import { useShelf } from '../logbook/shelf';
import ExpectTable from './ExpectTable.vue';
import PencilPanel from './PencilPanel.vue';

/** What every device has to expect of every charger, before anything is plugged in; one pairing at a time in pencil. */
const bench = useShelf();
const route = useRoute();
const router = useRouter();

const ANY = 'any';
const cableId = ref(ANY);
const cables = computed(() => [
  { id: ANY, name: 'its own, or one of 3 A that fits' },
  ...bench.cables.map(({ id, name, marker }) => ({ id, name: marker === 'none' ? `${name} (not marked)` : `${name} (${marker})` })),
]);
const cable = computed(() => bench.cables.find(({ id }) => id === cableId.value));
const rows = computed(() =>
  expectations(bench.devices, bench.chargers, cable.value, (charger) => usualFeed(charger, bench.chargers, bench.cables)),
);
const taught = computed(() => rows.value.flatMap(lessons));

/** The pairing looked at stands in the address. */
const asked = computed(() => ({ device: String(route.query.device ?? ''), charger: String(route.query.charger ?? '') }));
const chosen = computed(() =>
  rows.value.flat().find(({ negotiated }) => negotiated.device.id === asked.value.device && negotiated.charger.id === asked.value.charger),
);
function choose(device: string, charger: string): void {
  void router.replace({ query: { ...route.query, device, charger } });
}
watch(
  rows,
  ([first]) => {
    const usual = first?.find(({ negotiated }) => negotiated.outcome === 'charges') ?? first?.[0];
    if (!chosen.value && usual) choose(usual.negotiated.device.id, usual.negotiated.charger.id);
  },
  { immediate: true },
);
</script>

<template>
  <section class="sheet">
    <header>
      <h1>What to expect</h1>
      <p class="soft">watts at the device, and what limits it</p>
      <div class="actions controls">
        <v-select
          v-model="cableId"
          :items="cables"
          item-title="name"
          item-value="id"
          label="Through the cable"
          density="compact"
          class="cable"
        />
        <v-btn to="/bench">Back to the shelf</v-btn>
      </div>
    </header>
    <div v-if="rows.length === 0 || bench.chargers.length === 0" class="first-step">
      <h2>Put a device and a charger on the shelf first</h2>
      <p>Then this page says what each pairing will give, and why no more.</p>
      <v-btn to="/bench" variant="flat" color="primary">Go to the bench</v-btn>
    </div>
    <div v-else class="spread">
      <div class="matrix">
        <ExpectTable :rows="rows" :chosen="asked" @choose="choose" />
        <section v-if="taught.length > 0" class="taught" aria-labelledby="taught-title">
          <h2 id="taught-title">The ratings already show</h2>
          <ul>
            <li v-for="sentence in taught" :key="sentence">{{ sentence }}</li>
          </ul>
        </section>
      </div>
      <PencilPanel v-if="chosen" :expectation="chosen" />
    </div>
  </section>
</template>

<style scoped>
.cable {
  min-width: 17rem;
}

.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 22.5rem;
  min-height: calc(100% - 3.5rem);
}

.matrix {
  min-width: 0;
}

.taught {
  padding: 1rem 1.5rem 2rem;
}

.taught ul {
  max-width: 46rem;
  padding: 0.4rem 0 0 1.1rem;
}

.taught li {
  padding-block: 0.12rem;
}

@media (max-width: 62.5em) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  .cable {
    min-width: 0;
    flex: 1 1 100%;
  }
}
</style>
