<script setup lang="ts">
import { computed, watch } from 'vue';
import { SHELVES, type Shelf } from '@core/bench';
import type { Rest } from '@core/exchange';
import { useShelf } from '../logbook/shelf';

/** A study of somebody else’s: which of one’s own gear stands for each piece of it. What has the same name here does at first. */
const props = defineProps<{ rest: Rest }>();
/** Ids of one’s own gear, by the ids of the file; a piece without one comes with the study. */
const standIns = defineModel<Record<string, string | undefined>>({ required: true });

const shelf = useShelf();
const ownOf = (on: Shelf) => shelf.all.flatMap((kept) => (kept.shelf === on && !kept.gear.retired ? [kept.gear] : []));
const pieces = computed(() => SHELVES.flatMap((on) => props.rest[`${on}s`].map(({ id, name }) => ({ on, id, name }))));
watch(
  pieces,
  (all) => {
    standIns.value = Object.fromEntries(
      all.map(({ on, id, name }) => [id, ownOf(on).find((own) => own.id === id || own.name.toLowerCase() === name.toLowerCase())?.id]),
    );
  },
  { immediate: true },
);
</script>

<template>
  <section aria-labelledby="repeat-title">
    <h3 id="repeat-title">{{ rest.studies[0]?.name }}: a study to repeat</h3>
    <p class="soft">{{ rest.studies[0]?.question }}</p>
    <p>Choose which of your own gear stands for each piece. What you do not have comes with the study.</p>
    <div class="pieces">
      <v-select
        v-for="{ on, id, name } in pieces"
        :key="id"
        :model-value="standIns[id] ?? ''"
        :label="`For ${on} ${name}`"
        :items="[{ value: '', title: `${name}, as it comes` }, ...ownOf(on).map((own) => ({ value: own.id, title: own.name }))]"
        @update:model-value="(own: string) => (standIns = { ...standIns, [id]: own || undefined })"
      />
    </div>
  </section>
</template>

<style scoped>
h3 {
  font-size: 1rem;
}

.pieces {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(16rem, 100%), 1fr));
  gap: 0 1rem;
}
</style>
