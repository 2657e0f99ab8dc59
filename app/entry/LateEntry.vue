<script setup lang="ts">
import { ref } from 'vue';
import { elapsedIn, parseEntryLine, spell, weigh, type Draft, type RunRecord } from '@core';
import { StorageTrouble } from '../ledger/storageTrouble';

/** Writes a reading into a run that is over: the same line as ever, with the time at which it was seen; of a run read from footage, the time of the clip. */
const props = defineProps<{ run: RunRecord; write: (draft: Draft) => Promise<void> }>();
const text = defineModel<string>({ required: true });

const said = ref('');
const asked = ref('');

async function submit(): Promise<void> {
  const line = parseEntryLine(text.value);
  if (!line.ok) {
    said.value = line.error;
    return;
  }
  const { footage } = props.run.header;
  if (line.values.seen === undefined) {
    said.value = footage
      ? 'Say where in the clip it was read: add its time, as @14:40.'
      : 'This run is over, so say when it was seen: add the time since plug-in, as @14:40.';
    return;
  }
  const clip = line.values.seen;
  const seen = footage ? elapsedIn(footage, clip) : clip;
  const weighed = weigh({ ...line.values, seen }, props.run, Date.now());
  if (weighed.verdict === 'refuse') {
    said.value = weighed.error;
    return;
  }
  if (weighed.verdict === 'ask' && asked.value !== text.value) {
    [asked.value, said.value] = [text.value, weighed.question];
    return;
  }
  try {
    const { draft } = weighed;
    await props.write(footage && draft.kind === 'reading' ? { ...draft, clip } : draft);
    said.value = weighed.verdict === 'log' && weighed.remark ? weighed.remark : `Written at ${spell(seen, 1)}.`;
    text.value = '';
  } catch (error) {
    if (!(error instanceof StorageTrouble)) throw error;
    said.value = error.message;
  }
}
</script>

<template>
  <form class="late" @submit.prevent="submit">
    <v-text-field
      v-model="text"
      :label="run.header.footage ? 'A reading, with the time of the clip' : 'Write a reading into this run'"
      placeholder="42 26.1w @14:40"
      autocomplete="off"
      spellcheck="false"
      density="compact"
    />
    <v-btn type="submit">Write</v-btn>
    <p v-if="said" role="status">{{ said }}</p>
  </form>
</template>

<style scoped>
.late {
  display: grid;
  grid-template-columns: minmax(0, 24rem) auto;
  justify-content: start;
  align-items: center;
  gap: 0.5rem 0.75rem;
  padding-top: 1.25rem;
}

p {
  grid-column: 1 / -1;
}
</style>
