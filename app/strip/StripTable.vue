<script setup lang="ts">
import { computed } from 'vue';
import { spell } from '@core';
import type { Trace } from './trace';

/** The table twin of a strip, for those who hear it rather than see it. A long run is thinned, and says so. */
const props = defineProps<{ traces: Trace[]; caption: string }>();

const MOST_ROWS = 60;

const tables = computed(() =>
  props.traces.map(({ id, name, dots }) => {
    const step = Math.max(1, Math.ceil(dots.percent.length / MOST_ROWS));
    const watts = new Map(dots.watts);
    const celsius = new Map(dots.celsius);
    const rows = dots.percent
      .filter((_, index) => index % step === 0 || index === dots.percent.length - 1)
      .map(([seconds, percent]) => ({ time: spell(seconds, 1), percent, watts: watts.get(seconds), celsius: celsius.get(seconds) }));
    return { id, caption: step > 1 ? `${name}, every ${step}th of its readings` : name, rows };
  }),
);
const figure = (value: number | undefined, unit: string) => (value === undefined ? 'not read' : `${Number(value.toFixed(1))} ${unit}`);
</script>

<template>
  <div class="unseen-text">
    <table v-for="table in tables" :key="table.id">
      <caption>
        {{
          caption
        }}:
        {{
          table.caption
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col">seen at</th>
          <th scope="col">level</th>
          <th scope="col">power</th>
          <th scope="col">temperature</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in table.rows" :key="row.time">
          <th scope="row">{{ row.time }}</th>
          <td>{{ row.percent }} %</td>
          <td>{{ figure(row.watts, 'W') }}</td>
          <td>{{ figure(row.celsius, '°C') }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
