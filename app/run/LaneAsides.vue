<script setup lang="ts">
import { computed } from 'vue';
import { CAUTIONS } from '@core/advise';
import { projection, ruleOf, sampledOf, splitInWords, watchNotices, workloads } from '@core/curve';
import { type RunRecord } from '@core/ink';
import { endsAttended } from '@core/plan';
import { spell } from '@core/quantity';
import { ghostOf, stopOffer, worthReading, writeGhost, type Forecast } from '@core/run';
import { useSettings } from '../kit/settings';
import { wallTime } from '../kit/clock';
import { useStudies } from '../logbook/studies';
import type { Opened } from '../workers/opened';

/** What a lane has to say beside its figures: what needs a look, what a reading now would be worth, how it stands to its ghost, when it may stop. */
const props = defineProps<{
  run: RunRecord;
  elapsed: number;
  coming: readonly Forecast[];
  dueAt: number | undefined;
  isDue: boolean;
  ghost: Opened | undefined;
}>();

const studies = useStudies();
const settings = useSettings();
const warnings = computed(() => watchNotices(props.run));
const offer = computed(() => stopOffer(props.run, props.elapsed));
const catches = computed(() => worthReading(props.run, props.coming, props.dueAt, props.elapsed));
const rule = computed(() => ruleOf(props.run));
const prompt = computed(() => (props.isDue ? rule.value.due : rule.value.between));
const behind = computed(() => {
  const { run, ghost } = props;
  const laid = ghost && ghostOf(run, ghost.sketch.tracks.percent);
  return laid ? `${writeGhost(laid)}, against ${ghost.run.header.charger.name} on ${wallTime(ghost.run.header.plugInAt, true)}` : '';
});
const hours = computed(() => {
  const { study, plugInAt } = props.run.header;
  const calendar = studies.all.find(({ id }) => id === study?.id)?.calendar;
  const full = props.coming.find(({ level }) => level === 100);
  const from = plugInAt + props.run.shift;
  return calendar && full ? endsAttended(calendar, full, from, from + props.elapsed * 1000) : undefined;
});
const working = computed(() => workloads(props.run).findLast(({ isOver }) => !isOver));
const sampled = computed(() => {
  const energy = sampledOf(props.run);
  const found = energy && projection(energy, settings.projectTo);
  return found && `${found.level} % in about ${spell(found.seconds)} at this power: loss and taper left out`;
});
const said = computed(() =>
  [prompt.value, behind.value, hours.value, working.value && splitInWords(working.value), sampled.value].filter((each) => each),
);
</script>

<template>
  <ul v-if="warnings.length > 0 || offer || catches || run.header.list || said.length > 0" class="asides">
    <li v-for="{ kind, text } in warnings" :key="kind" class="warning" :class="{ caution: kind === 'hot' }">
      <span role="status"
        >{{ text }}<template v-if="kind === 'hot'">. {{ CAUTIONS.hot }}</template></span
      >
    </li>
    <li v-if="catches" class="warning">
      <span role="status">one reading now would catch {{ catches }} %</span>
    </li>
    <li v-if="offer" class="warning">
      <span role="status">it may stop, {{ offer.says }}: <kbd>S</kbd></span>
    </li>
    <li v-if="run.header.list"><RouterLink :to="`/live/spot/${run.header.id}`">go on with the spot check</RouterLink></li>
    <li v-for="each in said" :key="each">{{ each }}</li>
  </ul>
</template>

<style scoped>
.asides {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.25rem;
  grid-column: 1 / -1;
  padding: 0.15rem 1.5rem 0.35rem;
  font-size: 0.85rem;
  color: rgb(var(--v-theme-soft));
  list-style: none;
}

.warning {
  font-weight: 600;
  color: rgb(var(--v-theme-due));
}

.caution {
  flex-basis: 100%;
  font-size: 0.95rem;
}

@media (max-width: 56.25em) {
  .asides {
    padding-inline: 1rem;
  }
}
</style>
