<script setup lang="ts">
/** One row of a paper: a time, in column −1, and what was read then in each column. Only the row that changes is drawn anew. */
const props = defineProps<{
  row: number;
  time: string;
  cells: readonly string[];
  names: readonly string[];
  faults: readonly { column?: number | undefined; says: string }[] | undefined;
}>();
defineEmits<{ write: [column: number, text: string]; walk: [event: KeyboardEvent, column: number] }>();

const faultAt = (column: number) => props.faults?.find((fault) => (fault.column ?? -1) === column)?.says ?? '';
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
    </component>
  </tr>
</template>
