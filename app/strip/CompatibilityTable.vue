<script setup lang="ts">
import { type Compatible, type Tried } from '@core/compare';
import { writeCompatibility } from '@core/exchange';
import { saveFile } from '../kit/saveFile';

/** What a spot check came to: for each charger what it does, awake and asleep; chime, icon and meter each as seen. */
const props = defineProps<{ rows: readonly Compatible[] }>();

const STATES = ['awake', 'asleep'] as const;
const figures = ({ trial, watts }: Tried) =>
  [
    trial.volts === undefined ? '' : `${trial.volts} V`,
    trial.amps === undefined ? '' : `${trial.amps} A`,
    watts === undefined ? '' : `${watts.toFixed(1)} W`,
  ]
    .filter(Boolean)
    .join(' · ');
const seen = (value: boolean | undefined) => (value === undefined ? '–' : value ? 'yes' : 'no');

function exportFile(): void {
  saveFile('compatibility.csv', writeCompatibility(props.rows), 'text/csv');
}
</script>

<template>
  <section v-if="rows.length > 0" aria-labelledby="compatibility-title">
    <h2 id="compatibility-title">What works with what</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Compatibility">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Charger</th>
            <th scope="col">Device</th>
            <th scope="col">What it does</th>
            <th scope="col">Read</th>
            <th scope="col">Chime</th>
            <th scope="col">Icon</th>
            <th scope="col">Meter</th>
            <th scope="col">Level</th>
            <th scope="col">Remark</th>
          </tr>
        </thead>
        <tbody v-for="row in rows" :key="row.key">
          <template v-for="state in STATES" :key="state">
            <tr v-if="row[state]">
              <th scope="row">{{ row.charger }}</th>
              <td>{{ state }}</td>
              <td :class="{ pencil: !row[state].isSure }">{{ row[state].says }}</td>
              <td class="figures">{{ figures(row[state]) }}</td>
              <td>{{ seen(row[state].trial.chime) }}</td>
              <td>{{ seen(row[state].trial.icon) }}</td>
              <td>{{ seen(row[state].trial.meter) }}</td>
              <td class="figures">{{ row[state].trial.percent === undefined ? '–' : `${row[state].trial.percent} %` }}</td>
              <td>
                <span v-if="row[state].disagrees" class="due">{{ row[state].disagrees }}</span> {{ row[state].trial.remark }}
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <v-btn variant="text" @click="exportFile">Export the table as CSV</v-btn>
  </section>
</template>

<style scoped>
section {
  padding-block: 0.5rem 1rem;
}

tbody th {
  font-weight: 600;
}

.pencil {
  color: rgb(var(--v-theme-pencil));
  font-style: italic;
}
</style>
