<script setup lang="ts">
import { ref } from 'vue';
import { elapsedIn, LONGEST_RUN, type Draft, type RunRecord } from '@core/ink';
import { clock, spell, type LineValues } from '@core/quantity';
import { troubleOf } from '../logbook/trouble';
import { useTypedLine } from './typedLine';

/** Writes a reading into a run that is over: the same line as ever, with the time at which it was seen; of a run read from footage, the time of the clip. */
const props = defineProps<{ run: RunRecord; write: (draft: Draft) => Promise<void> }>();
const text = defineModel<string>({ required: true });

const said = ref('');
const typed = useTypedLine(text);

async function submit(): Promise<void> {
  const { footage } = props.run.header;
  let clip: number | undefined;
  /** Of a run read from footage, a time is one of the clip. */
  const inRun = ({ seen, ...values }: LineValues): LineValues | string => {
    if (values.dead) return values;
    if (seen === undefined)
      return footage
        ? 'Say where in the clip it was read: add its time, as @14:40.'
        : 'This run is over, so say when it was seen: add the time since plug-in, as @14:40.';
    clip = footage && seen;
    const elapsed = footage ? elapsedIn(footage, seen) : seen;
    if (footage && elapsed < 0)
      return `At ${clock(seen)} of the clip it was not plugged in yet, for that is at ${clock(footage.offset)} of it: write a later time of the clip.`;
    if (footage && elapsed > LONGEST_RUN)
      return `${clock(seen)} of the clip is ${spell(elapsed)} of the run, at ${footage.speed} × as fast: longer than a run is kept. Its time or the speed of the clip is wrong.`;
    return { ...values, seen: elapsed };
  };
  const assessed = typed.assess(props.run, Date.now(), undefined, inRun);
  if ('says' in assessed) {
    said.value = assessed.says;
    return;
  }
  const { draft, remark } = assessed;
  try {
    await props.write(clip !== undefined && draft.kind === 'reading' ? { ...draft, clip } : draft);
    said.value = remark ?? `Written at ${spell((draft.at - props.run.header.plugInAt) / 1000, 1)}.`;
    text.value = '';
  } catch (error) {
    said.value = troubleOf(error);
  }
}
</script>

<template>
  <form class="late" @submit.prevent="submit">
    <v-text-field
      v-model="text"
      :label="run.header.footage ? 'A reading, with the time of the clip' : 'Write a reading into this run'"
      placeholder="e.g. 42 26.1w @14:40"
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
