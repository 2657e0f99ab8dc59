<script setup lang="ts">
import { computed, ref } from 'vue';
import { LEVELS } from '@core/curve';
import { cheapestChange, costOf, powerTelling, tellings, type Change, type Setup, type Study } from '@core/plan';
import { fixed, nominal, spell } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import FigureField from '../kit/FigureField.vue';
import { vCards } from '../kit/vCards';
import { useShelf } from '../logbook/shelf';

/** What a study costs, and what its readings will be able to tell; asked for a difference, the cheapest change that would show it. */
const props = defineProps<{ study: Study; setups: readonly Setup[] }>();

const shelf = useShelf();
const isSound = computed(() => props.study.repeats >= 1 && props.study.repeats <= 10);
const cost = computed(() => (isSound.value ? costOf(props.study, props.setups) : undefined));
const told = computed(() => (isSound.value ? tellings(props.study, props.setups, LEVELS) : []));
const hasCurves = computed(() => told.value.some(({ expected }) => expected !== undefined));
const meters = computed(() => shelf.meters.filter(({ id }) => props.study.meters.includes(id)));
const power = computed(() => (isSound.value ? powerTelling(props.study, props.setups, meters.value) : undefined));

const wanted = ref('');
const level = ref<number>(80);
const change = computed(() => {
  const minutes = Number(wanted.value.replace(',', '.'));
  if (!isSound.value || !(minutes > 0)) return undefined;
  return inWords(cheapestChange(props.study, props.setups, level.value, minutes * 60));
});

function inWords(found: Change): string {
  switch (found.kind) {
    case 'none':
      return 'This study will tell them apart as it is.';
    case 'finer':
      return `Check every ${nominal(found.every)} between ${found.from} and ${found.to} % only: about ${found.extraReadings} more readings a run.`;
    case 'repeats':
      return `Finer checks alone would not do, for charging varies from run to run: make ${found.repeats} runs of each, ${found.extraRuns} more in all.`;
    case 'out of reach':
      return 'That is less than charging varies from run to run: more runs would not tell it.';
  }
}
const written = (seconds: number | undefined) => (seconds === undefined ? '—' : spell(seconds));
const range = (from: number | undefined, to: number | undefined) =>
  from === undefined || to === undefined || spell(from) === spell(to) ? written(to) : `${spell(from)} to ${spell(to)}`;
</script>

<template>
  <section aria-labelledby="tell-title" data-copied>
    <h2 id="tell-title">What it costs and can tell</h2>
    <p v-if="cost" role="status">
      {{ cost.runs }} runs, {{ spell(cost.length) }} one after another, {{ cost.readings }} readings: about {{ spell(cost.attended) }} of
      your own time.<template v-if="cost.unknown > 0">
        {{ ` ${cost.unknown}` }} of them have no length that can be expected and are not in these hours.</template
      >
    </p>
    <template v-if="hasCurves">
      <CopyButton name="what it can tell" is-row />
      <table v-cards>
        <caption class="soft">
          For the least certain setup
        </caption>
        <thead>
          <tr>
            <th scope="col">Figure</th>
            <th scope="col">Expected</th>
            <th scope="col">Known to within</th>
            <th scope="col">Tells apart from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="each in told" :key="each.level">
            <th scope="row">{{ each.level }} %</th>
            <td class="figures pencil">{{ range(each.soonest, each.expected) }}</td>
            <td class="figures">
              {{ written(each.margin) }}<small v-if="each.without > 0">{{ each.without }} not at all</small>
            </td>
            <td class="figures">{{ written(each.smallest) }}</td>
          </tr>
          <tr v-if="power">
            <th scope="row">peak power</th>
            <td class="figures pencil">{{ fixed(power.expected, 1) }} W</td>
            <td class="figures">± {{ fixed(power.margin, 1) }} W</td>
            <td class="figures">{{ fixed(power.smallest, 1) }} W</td>
          </tr>
        </tbody>
      </table>
      <p v-if="!power" class="soft">
        Of power it tells nothing: {{ meters.length > 0 ? 'no meter says how accurate it is' : 'it has no meter' }}.
      </p>
      <div class="ask">
        <FigureField v-model="wanted" name="To tell apart a difference of" unit="min" density="compact" />
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
  max-width: 38rem;
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

small {
  display: block;
  color: rgb(var(--v-theme-due));
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
