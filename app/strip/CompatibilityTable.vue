<script setup lang="ts">
import { computed } from 'vue';
import { notSeenSays, writeTried, type Compatible, type Tried } from '@core/compare';
import { ranked, triedSays } from '@core/advise';
import { TRIAL_STATES, type Trial } from '@core/ink';
import CopyButton from '../kit/CopyButton.vue';
import { vCards } from '../kit/vCards';

/** What a spot check came to: for each source what it does, awake, asleep and off; chime, icon and meter each as seen. */
const props = defineProps<{ device: string; rows: readonly Compatible[]; canChange?: boolean }>();
const emit = defineEmits<{ strike: [trial: Trial]; rewrite: [trial: Trial] }>();

const all = computed(() =>
  (props.canChange ? ranked(props.rows) : props.rows).flatMap((row) =>
    TRIAL_STATES.flatMap((state) => {
      const tried = row[state];
      return tried ? [{ row, state, tried, reads: writeTried(tried) }] : [];
    }),
  ),
);
const notSeen = computed(() => notSeenSays(props.rows));
const seen = (value: boolean | undefined) => (value === undefined ? '–' : value ? 'yes' : 'no');
const chimed = ({ trial: { chime, chimes } }: Tried) => (chimes === undefined || chimes < 2 ? seen(chime) : `${chimes} times`);
</script>

<template>
  <section v-if="rows.length > 0" aria-labelledby="compatibility-title">
    <h2 id="compatibility-title">What works with {{ device }}</h2>
    <p v-if="canChange" class="sum">{{ triedSays(rows) }}.</p>
    <div class="scroll" tabindex="0" role="region" aria-label="Compatibility" data-copied>
      <CopyButton name="what works" is-row />
      <table v-cards class="plain-table">
        <thead>
          <tr>
            <th scope="col">Source</th>
            <th scope="col">Device</th>
            <th scope="col">What it does</th>
            <th scope="col">Read</th>
            <th scope="col">Chime</th>
            <th scope="col">Icon</th>
            <th scope="col">Meter</th>
            <th scope="col">Level</th>
            <th scope="col">Remark</th>
            <th v-if="canChange" scope="col"><span class="unseen-text">Change</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ row, state, tried, reads } in all" :key="tried.trial.id">
            <th scope="row">
              {{ row.name
              }}<template v-if="row.through">
                <span class="soft">· {{ row.through }}</span></template
              >
            </th>
            <td>{{ state }}</td>
            <td class="does" :class="{ pencil: !tried.isSure }">{{ tried.says }}</td>
            <td class="figures read">
              {{ reads.figures }}<small v-if="reads.pencil" class="pencil">{{ reads.pencil }}</small>
            </td>
            <td class="read">{{ chimed(tried) }}</td>
            <td>{{ seen(tried.trial.icon) }}</td>
            <td>{{ seen(tried.trial.meter) }}</td>
            <td class="figures read">{{ reads.level }}</td>
            <td>
              <span v-if="tried.disagrees" class="due">{{ tried.disagrees }}</span> {{ tried.trial.remark }}
            </td>
            <td v-if="canChange" class="change">
              <v-btn
                variant="text"
                size="small"
                :aria-label="`Write the trial of ${row.name}, ${state}, again`"
                @click="emit('rewrite', tried.trial)"
                >Rewrite</v-btn
              >
              <v-btn
                variant="text"
                size="small"
                :aria-label="`Strike the trial of ${row.name}, ${state}`"
                @click="emit('strike', tried.trial)"
                >Strike</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="notSeen" class="soft">{{ notSeen }}</p>
  </section>
</template>

<style scoped>
section {
  padding-block: 0.5rem 1rem;
}

tbody th {
  font-weight: 600;
}

.does {
  min-width: 12rem;
}

.sum {
  font-weight: 600;
}

.change,
.read {
  white-space: nowrap;
}

small {
  display: block;
}

.pencil {
  color: rgb(var(--v-theme-pencil));
  font-style: italic;
}
</style>
