<script setup lang="ts">
import { computed } from 'vue';
import { logbookOf, writeLogbook } from '@core/exchange';
import { type Entry, type Header } from '@core/ink';
import { fileName, saveFile } from '../kit/saveFile';
import { entryOf } from '../ledger/entries';
import { useShelf } from './shelf';

/** Says that something could not be stored, and offers what it was of as a file: a run with what was being typed as a note in it, or all runs of a set. */
interface Run {
  header: Header;
  entries: readonly Entry[];
}
const props = defineProps<{ trouble: string; run?: Run | undefined; runs?: readonly Run[]; typed?: string }>();
const all = computed(() => props.runs ?? (props.run ? [props.run] : []));

const shelf = useShelf();

function save(): void {
  const [first] = all.value;
  if (!first) return;
  const runs = all.value.map(({ header, entries }) => {
    const seq = (entries.at(-1)?.seq ?? 0) + 1;
    const typed = props.typed ? [entryOf({ kind: 'note', at: Date.now(), text: `Not logged: ${props.typed}` }, seq)] : [];
    return { header, entries: [...entries, ...typed] };
  });
  const { device, charger } = first.header;
  const name = runs.length > 1 ? `${runs.length} runs from ${device.name} on` : `${device.name} ${charger.name}`;
  saveFile(`${fileName(name)}.json`, writeLogbook(logbookOf(shelf.everything(), runs)), 'application/json');
}
</script>

<template>
  <p role="alert" class="due">
    {{ trouble }}
    <v-btn v-if="all.length > 0" size="small" @click="save">{{
      all.length > 1 ? `Save all ${all.length} runs as a file` : 'Save this run as a file'
    }}</v-btn>
  </p>
</template>
