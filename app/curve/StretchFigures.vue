<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue';
import { spanOf, type SpanFigures } from '@core/curve';
import type { RunRecord } from '@core/ink';
import { quantityOf, shownIn, shownUnit, spell, trimmed } from '@core/quantity';
import type { Span } from '@core/samples';
import CopyButton from '../kit/CopyButton.vue';
import { troubleOf } from '../logbook/trouble';

/** Least, mean and most of all that was read within the stretch that is looked at. */
const props = defineProps<{ run: RunRecord; stretch: Span }>();

const rows = shallowRef<SpanFigures[]>([]);
const trouble = ref('');
let waiting: ReturnType<typeof setTimeout> | undefined;
watch(
  [() => props.stretch, () => props.run],
  ([stretch, run]) => {
    clearTimeout(waiting);
    waiting = setTimeout(async () => {
      trouble.value = '';
      try {
        // What a meter streamed lies with the worker that read it.
        const found = run.sampled.size === 0 ? spanOf(run, stretch.from, stretch.to) : await streamed(stretch);
        if (props.stretch === stretch) rows.value = found;
      } catch (error) {
        trouble.value = troubleOf(error);
      }
    }, 150);
  },
  { immediate: true },
);
async function streamed({ from, to }: Span): Promise<SpanFigures[]> {
  const { spanWithin } = await import('../workers/openRun');
  return spanWithin(props.run.header.id, from, to);
}
const figure = ({ quantity }: SpanFigures, value: number | undefined) => {
  const { unit } = quantityOf(quantity);
  return value === undefined ? '' : trimmed(shownIn(unit, value), unit === 'V' || unit === 'A' || unit === 'Wh' ? 2 : 1);
};
const nameOf = (quantity: SpanFigures['quantity']) => {
  const { place, unit, track } = quantityOf(quantity);
  return track?.on ? `${track.short}, ${shownUnit(unit)}` : place ? `${place} ${unit}` : shownUnit(unit);
};
</script>

<template>
  <section class="stretch" aria-label="The stretch that is looked at" data-copied>
    <h2>From {{ spell(stretch.from, 1) }} to {{ spell(stretch.to, 1) }}</h2>
    <CopyButton name="the figures of the stretch" is-row />
    <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
    <table v-else class="plain-table">
      <thead>
        <tr>
          <th scope="col"><span class="unseen-text">Quantity</span></th>
          <th scope="col">Least</th>
          <th scope="col">Mean</th>
          <th scope="col">Most</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.quantity" class="figures">
          <th scope="row">{{ nameOf(row.quantity) }}</th>
          <td>{{ figure(row, row.min) }}</td>
          <td>{{ figure(row, row.mean) }}</td>
          <td>{{ figure(row, row.max) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length === 0 && !trouble" class="soft">Nothing was read in it.</p>
  </section>
</template>

<style scoped>
.stretch {
  padding-bottom: 0.9rem;
}

h2 {
  padding-bottom: 0.2rem;
  font-size: 0.85rem;
}

td {
  text-align: end;
}
</style>
