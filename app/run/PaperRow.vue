<script setup lang="ts">
/** One row of a paper: a time, and what was read then in each column. Only the row that changes is drawn anew. */
const props = defineProps<{
  row: number;
  time: string;
  cells: readonly string[];
  names: readonly string[];
  faults: readonly { column?: number | undefined; says: string }[] | undefined;
}>();
defineEmits<{ write: [column: number, text: string]; walk: [event: KeyboardEvent, column: number] }>();

const faultAt = (column?: number) => props.faults?.find((fault) => fault.column === column)?.says ?? '';
const typed = (event: Event) => (event.target as HTMLInputElement).value;
</script>

<template>
  <tr>
    <th scope="row">
      <input
        :value="time"
        class="figures"
        :data-cell="`${row}/-1`"
        :aria-label="`Time of row ${row + 1}`"
        :aria-invalid="faultAt() !== ''"
        @input="$emit('write', -1, typed($event))"
        @keydown="$emit('walk', $event, -1)"
      />
      <small v-if="faultAt()" class="due">{{ faultAt() }}</small>
    </th>
    <td v-for="(name, column) in names" :key="column">
      <input
        :value="cells[column] ?? ''"
        class="figures"
        :data-cell="`${row}/${column}`"
        :aria-label="`${name} at ${time || '?'}`"
        :aria-invalid="faultAt(column) !== ''"
        @input="$emit('write', column, typed($event))"
        @keydown="$emit('walk', $event, column)"
      />
      <small v-if="faultAt(column)" class="due">{{ faultAt(column) }}</small>
    </td>
  </tr>
</template>
