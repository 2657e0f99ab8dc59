<script setup lang="ts">
import { spell } from '@core/quantity';
import { type ReadingScore } from '@core/run';
import CopyButton from '../kit/CopyButton.vue';

/** How a rehearsal was read: lateness, misses and slips. */
defineProps<{ rows: { name: string; score: ReadingScore }[]; isOver: boolean }>();
</script>

<template>
  <section class="score" aria-labelledby="score-title">
    <h2 id="score-title">{{ isOver ? 'How it was read' : 'So far' }}</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="How it was read" data-copied>
      <CopyButton name="how it was read" is-row />
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Device</th>
            <th scope="col">Checks</th>
            <th scope="col">On time</th>
            <th scope="col">Late</th>
            <th scope="col">Missed</th>
            <th scope="col">Late by, on average</th>
            <th scope="col">Slips that stand</th>
            <th scope="col">Slips mended</th>
          </tr>
        </thead>
        <tbody class="figures">
          <tr v-for="{ name, score } in rows" :key="name">
            <th scope="row">{{ name }}</th>
            <td>{{ score.checks }}</td>
            <td>{{ score.onTime }}</td>
            <td>{{ score.late }}</td>
            <td>{{ score.missed }}</td>
            <td>{{ score.lateness === undefined ? '–' : spell(score.lateness, 1) }}</td>
            <!-- While it goes on it would give the slip away. -->
            <td>{{ isOver ? score.slips : '–' }}</td>
            <td>{{ score.mended }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.score {
  padding: 0 1.5rem 0.75rem;
}
</style>
