<script setup lang="ts">
import { groups } from 'd3-array';
import { computed, onMounted } from 'vue';
import { byNatural, type Summary } from '@core/curve';
import { sourceSays } from '@core/ink';
import { momentText } from '../kit/dates';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import type { Comparison } from '@core/compare';

/** What to compare: the runs of a study, the last of a device or on a charger, those of a tag, a comparison that was saved, or any by hand. */
defineProps<{ chosen: string[]; saved: Comparison[] }>();
const emit = defineEmits<{ choose: [ids: string[]]; open: [saved: Comparison]; remove: [saved: Comparison] }>();

const logbook = useLogbook();
const lanes = useLanes();
const studies = useStudies();
onMounted(studies.load);

/** So many of a device or a charger, the latest, are laid beside each other at once. */
const LATEST = 8;
/** So many of each kind are offered. */
const OFFERED = 12;

const choices = computed(() => [
  ...lanes.records.map(({ header }) => ({ id: header.id, name: `${header.device.name} on ${sourceSays(header)}, live` })),
  ...logbook.summaries.map(({ id, device, charger, plugInAt }) => ({ id, name: `${device} on ${charger}, ${momentText(plugInAt)}` })),
]);

interface Offer {
  name: string;
  ids: string[];
}
const latest = (runs: readonly Summary[]) =>
  [...runs]
    .sort((one, other) => other.plugInAt - one.plugInAt)
    .slice(0, LATEST)
    .map(({ id }) => id);
function offersBy(of: (run: Summary) => readonly string[]): Offer[] {
  const pairs = logbook.summaries.flatMap((run) => of(run).map((name) => ({ name, run })));
  return groups(pairs, ({ name }) => name)
    .map(([name, all]) => ({ name, ids: latest(all.map(({ run }) => run)) }))
    .filter(({ ids }) => ids.length > 1)
    .sort((one, other) => byNatural(one.name, other.name))
    .slice(0, OFFERED);
}
const offers = computed(() =>
  [
    {
      title: 'A study',
      all: studies.all
        .map((study): Offer => ({ name: study.name, ids: studies.runsOf(study.id).map(({ id }) => id) }))
        .filter(({ ids }) => ids.length > 1)
        .slice(0, OFFERED),
    },
    { title: 'The latest of a device', all: offersBy(({ device }) => [device]) },
    { title: 'The latest on a charger', all: offersBy(({ charger }) => [charger]) },
    { title: 'A tag', all: offersBy(({ tags = [] }) => tags) },
  ].filter(({ all }) => all.length > 0),
);
</script>

<template>
  <div class="choosing">
    <v-autocomplete
      :model-value="chosen"
      :items="choices"
      item-title="name"
      item-value="id"
      label="Runs compared"
      hint="Choose two or more, or take one of the sets below."
      persistent-hint
      multiple
      chips
      closable-chips
      auto-select-first
      @update:model-value="(ids: string[]) => emit('choose', ids)"
    />
    <section v-if="saved.length > 0" aria-labelledby="saved-title">
      <h2 id="saved-title">Saved comparisons</h2>
      <ul>
        <li v-for="each in saved" :key="each.id">
          <button type="button" class="link" @click="emit('open', each)">{{ each.name }}</button>
          <small class="soft">{{ each.runs.length }} runs</small>
          <v-btn variant="text" size="small" :aria-label="`Remove ${each.name}`" @click="emit('remove', each)">Remove</v-btn>
        </li>
      </ul>
    </section>
    <section v-for="{ title, all } in offers" :key="title" :aria-label="title">
      <h2>{{ title }}</h2>
      <ul>
        <li v-for="offer in all" :key="offer.name">
          <button type="button" class="link" @click="emit('choose', offer.ids)">{{ offer.name }}</button>
          <small class="soft">{{ offer.ids.length }} runs</small>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.choosing {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr));
  gap: 0.9rem 2rem;
  padding: 0.9rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.choosing > .v-input {
  grid-column: 1 / -1;
}

h2 {
  font-size: 0.9rem;
}

ul {
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
  align-items: baseline;
  padding-block: 0.15rem;
}
</style>
