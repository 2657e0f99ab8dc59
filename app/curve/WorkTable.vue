<script setup lang="ts">
import { type Workload } from '@core/curve';
import { fixed, spell, trimmed } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import { vCards } from '../kit/vCards';

/** Workloads of a run beside each other: where the power came from, and the scores. */
defineProps<{ all: readonly Workload[] }>();

const watts = (value: number | undefined) => (value === undefined ? '–' : fixed(value, 1));
const INPUT: Readonly<Record<Workload['input'], string>> = {
  consumption: 'input is what it used',
  helped: 'the battery helped: input is not consumption',
  charged: 'some of the input went into the battery',
  unknown: 'whether the battery helped was not read',
};
const scoresOf = ({ scores, part }: Workload) =>
  (part && scores.length > 0 ? 'over all parts: ' : '') +
  scores.map(({ name, value, unit, better }) => `${name} ${value}${unit ? ` ${unit}` : ''} (${better} is better)`).join(', ');
</script>

<template>
  <section v-if="all.length > 0" class="work" aria-labelledby="work-title">
    <h2 id="work-title">Under load</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Workloads" data-copied>
      <CopyButton name="the workloads" is-row />
      <table v-cards class="plain-table">
        <thead>
          <tr>
            <th scope="col">Workload</th>
            <th scope="col">Source</th>
            <th scope="col">Time</th>
            <th scope="col">In, W</th>
            <th scope="col">Battery, W</th>
            <th scope="col">Used, W</th>
            <th scope="col">In, Wh</th>
            <th scope="col">Level</th>
            <th scope="col">Scores</th>
            <th scope="col">Which means</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="each in all" :key="each.from">
            <th scope="row">
              {{ each.name }}<span v-if="each.part" class="soft">, part {{ each.part.place }} of {{ each.part.of }}</span>
            </th>
            <td>{{ each.source }}</td>
            <td>{{ spell(each.from) }}–{{ each.isOver ? spell(each.to) : 'now' }}</td>
            <td class="figures">{{ watts(each.inputWatts) }}</td>
            <td class="figures">{{ watts(each.batteryWatts) }}</td>
            <td class="figures">{{ watts(each.usedWatts) }}</td>
            <td class="figures">{{ each.inputWattHours === undefined ? '–' : fixed(each.inputWattHours, 2) }}</td>
            <td class="figures">{{ each.gain === undefined ? '–' : `${each.gain > 0 ? '+' : ''}${trimmed(each.gain, 0)} %` }}</td>
            <td>{{ scoresOf(each) }}</td>
            <td>{{ INPUT[each.input] }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.work {
  padding: 1rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
</style>
