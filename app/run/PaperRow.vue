<script setup lang="ts">
import { computed } from 'vue';
import type { PaperFault } from '@core/exchange';

/** One row of a paper: a time, in column −1, and what was read then in each column. Only the row that changes is drawn anew. */
const props = defineProps<{
  row: number;
  time: string;
  cells: readonly string[];
  names: readonly string[];
  faults: readonly PaperFault[] | undefined;
}>();
defineEmits<{ write: [column: number, text: string]; walk: [event: KeyboardEvent, column: number]; leaveOut: []; makeFact: [] }>();

const faultAt = (column: number) => props.faults?.find((fault) => (fault.column ?? -1) === column)?.says ?? '';
/** Something stands at its left, and it is no time: what it is of is not for the program to say. */
const isOther = computed(() => props.time.trim() !== '' && (props.faults?.some(({ isNoTime }) => isNoTime) ?? false));
const typed = (event: Event) => (event.target as HTMLInputElement).value;
</script>

<template>
  <tr>
    <component :is="column < 0 ? 'th' : 'td'" v-for="column in [-1, ...names.keys()]" :key="column" :scope="column < 0 ? 'row' : undefined">
      <input
        :value="column < 0 ? time : (cells[column] ?? '')"
        class="figures"
        :data-cell="`${row}/${column}`"
        :aria-label="column < 0 ? `Time of row ${row + 1}` : `${names[column] ?? ''} at ${time || '?'}`"
        :aria-invalid="faultAt(column) !== ''"
        @input="$emit('write', column, typed($event))"
        @keydown="$emit('walk', $event, column)"
      />
      <small v-if="faultAt(column)" class="due">{{ faultAt(column) }}</small>
      <template v-if="column < 0 && isOther">
        <v-btn variant="text" size="small" :aria-label="`Leave out the row ${time}`" @click="$emit('leaveOut')">Leave it out</v-btn>
        <v-btn variant="text" size="small" :aria-label="`${time} is a condition`" @click="$emit('makeFact')">It is a condition</v-btn>
      </template>
    </component>
  </tr>
</template>
