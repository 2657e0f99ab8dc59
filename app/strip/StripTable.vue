<script setup lang="ts">
import { computed } from 'vue';
import { inUnit, quantityOf, spell, TRACKED, type Quantity } from '@core/quantity';
import AfterPaint from '../kit/AfterPaint.vue';
import type { Trace } from './trace';

/** The table twin of a strip, for those who hear it rather than see it: it comes once the strip is there to be seen. A long run is thinned, and says so. */
const props = defineProps<{ traces: Trace[]; caption: string; isOfMany: boolean }>();

/** Rows over all runs, of one at least, and of one at most: of one strip among a dozen on the board fewer, for each is a page element more. */
const MOST_ROWS = 240;
const LEAST_ROWS = 12;
const mostOfOne = computed(() => (props.isOfMany ? 20 : 60));
const mostRows = computed(() => Math.max(LEAST_ROWS, Math.min(mostOfOne.value, Math.round(MOST_ROWS / Math.max(1, props.traces.length)))));
/** Tracks that have a column beside the level. */
const BESIDE = computed(() =>
  TRACKED.filter(
    (quantity) =>
      quantity !== 'percent' && props.traces.some(({ dots, worked }) => (dots[quantity] ?? []).length > 0 && !worked?.has(quantity)),
  ),
);

const tables = computed(() =>
  props.traces.map(({ id, name, dots }) => {
    const percent = (dots.percent ?? []).filter(([, level]) => level !== undefined);
    const step = Math.max(1, Math.ceil(percent.length / mostRows.value));
    const others = BESIDE.value.map((quantity) => new Map(dots[quantity]));
    const rows = percent
      .filter((_, index) => index % step === 0 || index === percent.length - 1)
      .map(([seconds, level]) => ({ time: spell(seconds, 1), level, values: others.map((track) => track.get(seconds)) }));
    return { id, caption: step > 1 ? `${name}, one in ${step} of its readings` : name, rows };
  }),
);
const figure = (value: number | undefined, quantity?: Quantity) =>
  value === undefined ? 'not read' : inUnit(value, quantity ? quantityOf(quantity).unit : '', 1);
</script>

<template>
  <div class="unseen-text apart">
    <AfterPaint>
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
            <th scope="col">Seen at</th>
            <th scope="col">Level</th>
            <th v-for="quantity in BESIDE" :key="quantity" scope="col">{{ quantityOf(quantity).track?.short }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in table.rows" :key="row.time">
            <th scope="row">{{ row.time }}</th>
            <td>{{ figure(row.level, 'percent') }}</td>
            <td v-for="(value, index) in row.values" :key="index">{{ figure(value, BESIDE[index]) }}</td>
          </tr>
        </tbody>
      </table>
    </AfterPaint>
  </div>
</template>

<style scoped>
/* Thousands of cells that nobody sees are not laid out with the page. */
.apart {
  contain: strict;
}
</style>
