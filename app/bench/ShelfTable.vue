<script setup lang="ts">
import { computed } from 'vue';
import type { Kept, Shelf } from '@core/bench';
import { SHELF_COLUMNS } from './columns';

/** One shelf as a table: sorted by any column, sieved by a search. */
const props = defineProps<{ shelf: Shelf; rows: Kept[]; search: string; mayRemove: (kept: Kept) => boolean }>();
defineEmits<{ change: [Kept]; copy: [Kept]; retire: [Kept]; putBack: [Kept]; remove: [Kept] }>();

const columns = computed(() => SHELF_COLUMNS[props.shelf]);
const headers = computed(() => [
  { title: 'Name', key: 'name', value: 'name' },
  ...columns.value.map(({ title, figures, sorts }, index) => ({
    title,
    key: `column-${index}`,
    value: `shown.${index}`,
    align: figures ? ('end' as const) : ('start' as const),
    sortable: sorts !== undefined,
    sortRaw: (one: Item, other: Item) => compare(one.sorts[index], other.sorts[index]),
  })),
  { title: 'Actions', key: 'acts', sortable: false, align: 'end' as const },
]);

interface Item {
  id: string;
  kept: Kept;
  name: string;
  kind: string;
  shown: string[];
  sorts: (number | string | undefined)[];
}
const items = computed<Item[]>(() =>
  props.rows.map((kept) => ({
    id: kept.gear.id,
    kept,
    name: kept.gear.name,
    kind: 'kind' in kept.gear ? kept.gear.kind : '',
    shown: columns.value.map(({ shows }) => shows(kept)),
    sorts: columns.value.map(({ sorts }) => sorts?.(kept)),
  })),
);

function compare(one: number | string | undefined, other: number | string | undefined): number {
  return typeof one === 'number' && typeof other === 'number' ? one - other : String(one ?? '').localeCompare(String(other ?? ''));
}

/** A search looks at the name, the kind and every fact shown. */
function matches(_value: unknown, query: string, item?: { raw: Item }): boolean {
  const { name = '', kind = '', shown = [] } = item?.raw ?? {};
  return [name, kind, ...shown].some((text) => text.toLowerCase().includes(query.toLowerCase()));
}
</script>

<template>
  <v-data-table
    class="shelf"
    :headers="headers"
    :items="items"
    item-value="id"
    :search="search"
    :custom-filter="matches as never"
    :filter-keys="['name']"
    :items-per-page="-1"
    :mobile-breakpoint="700"
    :mobile="null"
    hide-default-footer
    must-sort
    :sort-by="[{ key: 'name', order: 'asc' }]"
    no-data-text="Nothing on this shelf matches."
  >
    <!-- A shelf goes by name on a phone, and has a search: no field to sort it by. -->
    <template #[`mobile.header`] />
    <template #[`item.name`]="{ item }">
      <button type="button" class="gear" @click="$emit('change', item.kept)">
        <strong class="two-lines" :title="item.name">{{ item.name }}</strong>
        <span class="soft">{{ item.kind }}{{ item.kept.gear.retired ? ' · retired' : '' }}</span>
      </button>
    </template>
    <template v-for="(column, index) in columns" #[`item.column-${index}`]="{ item }" :key="column.title">
      <span :class="{ figures: column.figures, soft: !column.figures }">{{ item.shown[index] }}</span>
    </template>
    <template #[`item.acts`]="{ item }">
      <span class="acts">
        <v-btn variant="text" size="small" :aria-label="`Duplicate ${item.name}`" @click="$emit('copy', item.kept)">Duplicate</v-btn>
        <template v-if="item.kept.gear.retired">
          <v-btn variant="text" size="small" :aria-label="`Put ${item.name} back`" @click="$emit('putBack', item.kept)">Put back</v-btn>
          <v-btn
            v-if="mayRemove(item.kept)"
            variant="text"
            size="small"
            :aria-label="`Remove ${item.name}`"
            @click="$emit('remove', item.kept)"
            >Remove</v-btn
          >
        </template>
        <v-btn v-else variant="text" size="small" :aria-label="`Retire ${item.name}`" @click="$emit('retire', item.kept)">Retire</v-btn>
      </span>
    </template>
  </v-data-table>
</template>

<style scoped>
.shelf {
  background: transparent;
}

.shelf {
  --v-border-color: var(--v-theme-grid);
}

.shelf :deep(th) {
  font-size: 0.82rem;
  color: rgb(var(--v-theme-soft));
}

/* On a phone a row is a card, no taller than what stands in it. */
@media (max-width: 43.75em) {
  .shelf :deep(thead) {
    display: none;
  }

  .shelf :deep(.v-data-table__tr--mobile) {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.1rem;
    align-items: baseline;
    padding-block: 0.35rem;
    border-bottom: 1px solid rgb(var(--v-theme-grid));
  }

  .shelf :deep(.v-data-table__tr--mobile > .v-data-table__td) {
    display: flex;
    gap: 0.35rem;
    align-items: baseline;
    width: auto;
    height: auto;
    min-height: 0;
    padding: 0;
    border: 0;
  }

  .shelf :deep(.v-data-table__td:is(:first-child, :last-child)) {
    flex-basis: 100%;
  }

  .shelf :deep(.v-data-table__td:is(:first-child, :last-child) > .v-data-table__td-title) {
    display: none;
  }

  .shelf :deep(.v-data-table__td:has(.v-data-table__td-value > span:empty)) {
    display: none;
  }

  .shelf :deep(.v-data-table__td-title) {
    font-size: 0.75rem;
    font-weight: 400;
    color: rgb(var(--v-theme-soft));
  }

  .gear {
    padding: 0.1rem 0;
  }
}

.gear {
  display: grid;
  padding: 0.5rem 0;
  text-align: start;
  background: none;
  border: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
  overflow-wrap: anywhere;
}

.gear:hover strong {
  text-decoration: underline;
}

.gear .soft {
  font-size: 0.88rem;
}

.acts {
  display: inline-flex;
  flex-wrap: wrap;
  justify-content: end;
}
</style>
