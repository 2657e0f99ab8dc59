<script setup lang="ts">
import { computed, ref } from 'vue';
import { momentOf, SECOND_LOOK, sourceSays, type Draft, type RunRecord, type Trial } from '@core/ink';
import { clock, parseEntryLine } from '@core/quantity';
import { wallNow } from '../kit/clock';
import { troubleOf } from '../logbook/trouble';

/** A minute cannot tell holding from draining: the charger just tried may stay plugged in for a second look at the level. */
const props = defineProps<{ run: RunRecord; trial: Trial; now: number; log: (draft: Draft) => Promise<void> }>();

const text = ref('');
const error = ref('');
const left = computed(() => Math.min(SECOND_LOOK, SECOND_LOOK - (momentOf(props.run, props.now) - props.trial.at) / 1000));

async function submit(): Promise<void> {
  const line = parseEntryLine(text.value);
  const percent = line.ok ? line.values.percent : undefined;
  if (percent === undefined) {
    error.value = line.ok ? 'Write the level that shows now, such as 47.' : line.error;
    return;
  }
  const { source, state, status, id } = props.trial;
  try {
    await props.log({ kind: 'trial', at: momentOf(props.run, wallNow()), source, state, status, percent, confirms: id });
  } catch (cause) {
    error.value = troubleOf(cause);
  }
}
</script>

<template>
  <form class="look" :aria-label="`Second look at ${sourceSays(trial.source)}`" @submit.prevent="submit">
    <p>
      {{ sourceSays(trial.source) }} showed {{ trial.percent }} %, {{ trial.state }}. Left plugged in, its level tells charging from holding
      and draining: <strong class="figures">{{ left > 0 ? `look again in ${clock(Math.ceil(left))}` : 'look again now' }}</strong>. Or go on
      with the next.
    </p>
    <v-text-field v-model="text" label="Level now" density="compact" inputmode="decimal" :error-messages="error" />
    <v-btn type="submit">Log the level</v-btn>
  </form>
</template>

<style scoped>
.look {
  display: grid;
  grid-template-columns: 10rem max-content 1fr;
  gap: 0.4rem 0.75rem;
  justify-content: start;
  align-items: start;
  margin-bottom: 1.25rem;
  padding: 0.6rem 0.9rem;
  border-inline-start: 3px solid rgb(var(--v-theme-due));
}

p {
  grid-column: 1 / -1;
}
</style>
