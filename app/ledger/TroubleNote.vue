<script setup lang="ts">
import { logbookOf, writeLogbook, type Entry, type Header } from '@core';
import { useShelf } from '../bench/shelf';
import { fileName, saveFile } from '../frame/saveFile';
import { entryOf } from './ledger';

/** Says that something could not be stored, and offers the run as a file, with what was being typed as a note in it. */
const props = defineProps<{ trouble: string; run?: { header: Header; entries: readonly Entry[] } | undefined; typed?: string }>();

const shelf = useShelf();

function save(): void {
  if (!props.run) return;
  const { header, entries } = props.run;
  const seq = (entries.at(-1)?.seq ?? 0) + 1;
  const typed = props.typed ? [entryOf({ kind: 'note', at: Date.now(), text: `Not logged: ${props.typed}` }, seq)] : [];
  const book = logbookOf(shelf.everything(), { methods: [], studies: [] }, [{ header, entries: [...entries, ...typed] }]);
  saveFile(`${fileName(header.device.name, header.charger.name)}.json`, writeLogbook(book), 'application/json');
}
</script>

<template>
  <p role="alert" class="due">
    {{ trouble }}
    <v-btn v-if="run" size="small" @click="save">Save this run as a file</v-btn>
  </p>
</template>
