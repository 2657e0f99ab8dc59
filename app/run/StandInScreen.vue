<script setup lang="ts">
import { computed } from 'vue';
import { fixed, temperature } from '@core/quantity';
import type { Actor } from '@core/run';

/** The display of a made-up device and the meter in its line, as they would be read. */
const props = defineProps<{ name: string; sight: ReturnType<Actor['sight']> }>();

const rows = computed(() => [
  { name: 'volts', shows: `${fixed(props.sight.volts, 2)} V` },
  { name: 'amps', shows: `${fixed(props.sight.amps, 2)} A` },
  { name: 'watts', shows: `${fixed(props.sight.watts, 1)} W` },
  { name: 'surface', shows: temperature(props.sight.celsius) },
]);
</script>

<template>
  <figure>
    <figcaption>{{ name }}</figcaption>
    <div class="glass">
      <p class="figures level">{{ sight.percent }}<small>%</small></p>
      <div class="bar"><span :style="{ width: `${sight.percent}%` }" /></div>
    </div>
    <table class="figures">
      <tbody>
        <tr v-for="row in rows" :key="row.shows + row.name">
          <th scope="row">{{ row.name }}</th>
          <td>{{ row.shows }}</td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  grid-template-columns: 8rem auto;
  gap: 0.25rem 0.75rem;
  margin: 0;
}

figcaption {
  grid-column: 1 / -1;
  font-size: 0.85rem;
}

.glass {
  padding: 0.4rem 0.75rem 0.75rem;
  color: rgb(var(--v-theme-barText));
  background: rgb(var(--v-theme-bar));
  border-radius: 10px;
}

.level {
  font-size: 2.4rem;
  font-weight: 700;
}

.level small {
  font-size: 1rem;
}

.bar {
  height: 5px;
  background: rgb(var(--v-theme-barField));
  border-radius: 3px;
}

.bar span {
  display: block;
  height: 100%;
  background: rgb(var(--v-theme-barText));
  border-radius: 3px;
}

th {
  padding-inline-end: 0.6rem;
  font: 400 0.8rem var(--words);
  color: rgb(var(--v-theme-soft));
}

td {
  text-align: end;
}
</style>
