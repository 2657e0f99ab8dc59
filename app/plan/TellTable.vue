<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  cheapestChange,
  costOf,
  expectedCharge,
  LEVELS,
  nominal,
  runLength,
  runsOf,
  settle,
  spell,
  tell,
  type Change,
  type Expected,
  type Study,
} from '@core';
import { useShelf } from '../bench/shelf';

/** What a study costs, and what its readings will be able to tell; asked for a difference, the cheapest change that would show it. */
const props = defineProps<{ study: Study }>();

const shelf = useShelf();
const gear = <Each extends { id: string }>(all: Each[], id: string | undefined) => all.find((each) => each.id === id);

/** The charge to expect of each cell, where the shelf says enough. */
const expected = computed(() => {
  const found = new Map<string, Expected>();
  if (!(props.study.startLevel >= 0 && props.study.startLevel < 100) || !(props.study.repeats >= 1)) return found;
  for (const { cell } of runsOf({ ...props.study, repeats: 1 })) {
    const [device, charger] = [gear(shelf.devices, cell.device), gear(shelf.chargers, cell.charger)];
    const curve =
      device &&
      charger &&
      expectedCharge(settle({ device, charger, cable: gear(shelf.cables, cell.cable) }), props.study.startLevel, {
        awake: cell.state === 'awake',
      });
    if (curve) found.set(cell.key, curve);
  }
  return found;
});
const cost = computed(() => {
  const { cadence } = props.study;
  if (!(props.study.repeats >= 1 && props.study.repeats <= 10)) return undefined;
  return costOf(
    cadence,
    runsOf(props.study).map(({ cell }) => {
      const curve = expected.value.get(cell.key);
      return {
        length: runLength(cadence, curve?.length ?? 3 * 3600),
        fineFrom: cadence.kind === 'coarse then fine' ? curve?.reaches(cadence.level) : undefined,
      };
    }),
  );
});
/** The slowest setup has the widest margin in time, so what holds for it holds for all. */
const slowest = computed(() => [...expected.value.values()].sort((one, other) => other.length - one.length)[0]);
const tellings = computed(() => (slowest.value ? tell(props.study.cadence, props.study.repeats, LEVELS, slowest.value.reaches) : []));

const wanted = ref('');
const level = ref<number>(80);
const change = computed(() => {
  const minutes = Number(wanted.value.replace(',', '.'));
  if (!slowest.value || !(minutes > 0)) return undefined;
  return inWords(cheapestChange(props.study.cadence, props.study.repeats, level.value, minutes * 60, slowest.value.reaches));
});

function inWords(found: Change): string {
  switch (found.kind) {
    case 'none':
      return 'This study will tell them apart as it is.';
    case 'finer':
      return `Check every ${nominal(found.every)} between ${found.from} and ${found.to} % only: about ${found.extraReadings} more readings a run.`;
    case 'repeats':
      return `Finer checks alone would not do, for charging varies from run to run: make ${found.repeats} runs of each, ${found.extraRuns} more than now.`;
    case 'out of reach':
      return 'Not even ten runs of each would tell them apart: the difference is smaller than charging varies from run to run.';
  }
}
const written = (seconds: number | undefined) => (seconds === undefined ? '—' : spell(seconds));
</script>

<template>
  <section aria-labelledby="tell-title">
    <h2 id="tell-title">What it costs and can tell</h2>
    <p v-if="cost" role="status">
      {{ cost.runs }} runs, {{ spell(cost.length) }} one after another, {{ cost.readings }} readings: about {{ spell(cost.attended) }} of
      your own time.
    </p>
    <template v-if="tellings.length > 0">
      <table>
        <caption class="soft">
          For the slowest of them, so it holds for all
        </caption>
        <thead>
          <tr>
            <th scope="col">level</th>
            <th scope="col">expected</th>
            <th scope="col">known to within</th>
            <th scope="col">tells apart from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="each in tellings" :key="each.level">
            <th scope="row">{{ each.level }} %</th>
            <td class="figures pencil">{{ written(each.expected) }}</td>
            <td class="figures">{{ written(each.margin) }}</td>
            <td class="figures">{{ written(each.smallest) }}</td>
          </tr>
        </tbody>
      </table>
      <div class="ask">
        <v-text-field v-model="wanted" label="To tell apart a difference of, min" inputmode="decimal" density="compact" />
        <v-select v-model="level" :items="LEVELS.map((value) => ({ title: `at ${value} %`, value }))" label="Level" density="compact" />
      </div>
      <p v-if="change" role="status">{{ change }}</p>
    </template>
    <p v-else class="soft">Nothing to work out yet: give the devices their batteries on the bench, and choose some that charge.</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.6rem;
  padding: 1.1rem 1.5rem;
  border-top: 1px solid rgb(var(--v-theme-line));
}

table {
  max-width: 34rem;
  border-collapse: collapse;
}

caption {
  font-size: 0.85rem;
  text-align: start;
}

th,
td {
  padding: 0.3rem 0.4rem;
  font-size: 0.9rem;
  text-align: end;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

th:first-child {
  text-align: start;
}

.pencil {
  color: rgb(var(--v-theme-pencil));
}

.ask {
  display: grid;
  grid-template-columns: minmax(0, 17rem) minmax(0, 9rem);
  gap: 0.75rem;
}
</style>
