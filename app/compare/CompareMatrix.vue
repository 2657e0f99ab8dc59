<script setup lang="ts">
import { computed, ref } from 'vue';
import CopyButton from '../kit/CopyButton.vue';
import type { PictureText } from '../strip/picture';
import PictureButton from '../strip/PictureButton.vue';
import RankMark from './RankMark.vue';
import type { Settling } from '@core/plan';
import { matrixOf, matrixTable, type Measure, type SetupRuns } from '@core/compare';

/** Devices down, chargers across, one figure: shaded from the worst of a device to its best; what was not run is open, and can be planned. */
const props = defineProps<{
  setups: SetupRuns[];
  measures: Measure[];
  /** What setups are set against each other by: the figure it begins with, unless that is a time. */
  yardstick: string;
  /** The title and caption around its picture. */
  text: PictureText;
}>();
const emit = defineEmits<{ plan: [wanted: Settling] }>();

const chosen = ref<string>();
const by = computed(
  () =>
    props.measures.find(({ id }) => id === chosen.value) ??
    props.measures.find(({ id }) => id === props.yardstick) ??
    props.measures.find(({ id }) => id === 'level-80') ??
    props.measures.find(({ better }) => better) ??
    props.measures[0],
);
const matrix = computed(() => by.value && matrixOf(props.setups, by.value));
const taken = () => ({ table: by.value && matrix.value ? matrixTable(matrix.value, by.value) : { caption: '', heads: [], rows: [] } });
const runsTo = (ids: readonly string[]) =>
  ids.length === 1 ? `/runs/${ids[0] ?? ''}` : { path: '/compare', query: { runs: ids.join('.') } };
</script>

<template>
  <div class="matrix">
    <v-select
      v-if="by"
      class="field"
      :model-value="by.id"
      :items="measures.map(({ id, title }) => ({ value: id, title }))"
      label="Figure"
      density="compact"
      @update:model-value="(id: string) => (chosen = id)"
    />
    <div v-if="matrix" class="scroll" tabindex="0" role="region" :aria-label="`${by?.title ?? ''}, devices by chargers`" data-copied>
      <CopyButton name="the matrix" is-row :take="taken"><PictureButton name="the matrix" :text="text" /></CopyButton>
      <table>
        <thead>
          <tr>
            <th scope="col">Device</th>
            <th v-for="source in matrix.sources" :key="source.key" scope="col">{{ source.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="device in matrix.devices" :key="device.id">
            <th scope="row">{{ device.name }}</th>
            <td
              v-for="(cell, at) in device.cells"
              :key="matrix.sources[at]?.key"
              :class="{ open: !cell }"
              :style="
                cell?.shade === undefined
                  ? undefined
                  : { '--shade': `${Math.round(6 + cell.shade * 26)}%`, '--mark': `${Math.round(1 + cell.shade * 9)}px` }
              "
            >
              <RouterLink v-if="cell" :to="runsTo(cell.runs)">
                <RankMark v-if="cell.cell.place" :place="cell.cell.place" />
                <strong :class="{ lead: cell.cell.isBest }">{{ cell.cell.value ?? '—' }}</strong>
                <small>{{ cell.cell.range.split(' · ')[0] }}</small>
              </RouterLink>
              <button
                v-else
                type="button"
                class="plan"
                data-acts
                :aria-label="`Plan ${device.name} on ${matrix.sources[at]?.name ?? ''}: it was not run`"
                @click="emit('plan', { device: device.id, charger: matrix.sources[at]?.charger ?? '', runs: 1 })"
              >
                plan
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft note">Each device is ranked and shaded by itself: the darker, the better.</p>
  </div>
</template>

<style scoped>
.matrix {
  padding: 0.9rem 1.5rem;
}

.field {
  max-width: 18rem;
}

table {
  border-collapse: separate;
  border-spacing: 3px;
  font-size: 0.9rem;
}

th {
  padding: 0.4rem 0.7rem;
  text-align: start;
  font-weight: 600;
}

thead th {
  font-size: 0.8rem;
  color: rgb(var(--v-theme-soft));
  text-align: end;
}

thead th:first-child {
  text-align: start;
}

td {
  min-width: 7rem;
  padding: 0;
  text-align: end;
  background: color-mix(in srgb, rgb(var(--v-theme-ink)) var(--shade, 0%), transparent);
}

td a {
  display: block;
  padding: 0.5rem 0.7rem;
  text-decoration: none;
  color: inherit;
}

td a:hover {
  outline: 2px solid rgb(var(--v-theme-due));
}

/* On shading a rank is as dark as its figure. */
td :deep(.rank) {
  color: inherit;
}

/* Where the system chooses all colours there is no shading: a bar at the edge is as wide as it would be dark. */
@media (forced-colors: active) {
  td:not(.open) {
    border-inline-start: var(--mark, 0) solid CanvasText;
  }
}

.open {
  background: none;
  outline: 1px dashed rgb(var(--v-theme-line));
}

.plan {
  width: 100%;
  padding: 0.5rem 0.7rem;
  background: none;
  border: 0;
  font: inherit;
  text-align: end;
  cursor: pointer;
  color: rgb(var(--v-theme-soft));
}

.lead {
  border-bottom: 2px solid currentcolor;
}

small {
  display: block;
  font-size: 0.76rem;
}

.note {
  padding-top: 0.5rem;
  font-size: 0.85rem;
}
</style>
