<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { format } from 'date-fns';
import { compareRuns, LEVELS, namesOf, unfairness, verdict, type RunRecord } from '@core';
import { useLogbook } from '../curve/logbook';
import { useLanes } from '../run/lanes';
import InkStrip from '../strip/InkStrip.vue';
import { sharedOut } from '../strip/pens';
import { traceOf } from '../strip/trace';
import CompareTable from './CompareTable.vue';

/** Runs laid over each other, set against one of them. What is chosen stands in the address, so it can be kept and sent. */
const route = useRoute();
const router = useRouter();
const logbook = useLogbook();
const lanes = useLanes();

const asText = (value: unknown) => (typeof value === 'string' ? value : '');
const chosen = computed(() => asText(route.query.runs).split('.').filter(Boolean));
const baseline = computed(() => (chosen.value.includes(asText(route.query.base)) ? asText(route.query.base) : chosen.value[0]));
const level = computed(() => LEVELS.find((each) => String(each) === route.query.level) ?? 100);

const records = shallowRef<RunRecord[]>([]);
const missing = shallowRef<string[]>([]);
const choices = computed(() => [
  ...lanes.records.map(({ header }) => ({ id: header.id, name: `${header.device.name} on ${header.charger.name}, live` })),
  ...logbook.summaries.map(({ id, device, charger, plugInAt }) => ({
    id,
    name: `${device} on ${charger}, ${format(plugInAt, 'd MMM HH:mm')}`,
  })),
]);

watch(
  [chosen, () => lanes.records],
  async ([ids]) => {
    const found = await Promise.allSettled(ids.map((id) => lanes.records.find(({ header }) => header.id === id) ?? logbook.open(id)));
    records.value = found.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []));
    missing.value = ids.filter((_, index) => found[index]?.status === 'rejected');
  },
  { immediate: true },
);

const rows = computed(() => compareRuns(records.value, baseline.value ?? '', level.value));
const names = computed(() => namesOf(rows.value));
const pens = computed(() => sharedOut(records.value.map(({ header }) => header.pen)));
const traces = computed(() => records.value.map((run, index) => traceOf(run, names.value[index] ?? '', pens.value[index] ?? 0)));
const baselineName = computed(() => names.value[records.value.findIndex(({ header }) => header.id === baseline.value)] ?? '');
const baselines = computed(() => records.value.map(({ header }, index) => ({ id: header.id, name: names.value[index] ?? '' })));
const words = computed(() => verdict(rows.value, level.value));
const said = computed(() => unfairness(rows.value));
const title = computed(() => {
  const devices = [...new Set(records.value.map(({ header }) => header.device.name))];
  if (records.value.length < 2) return 'Compare';
  return devices.length === 1
    ? `${records.value.length} runs of ${devices[0] ?? ''}`
    : `${records.value.length} runs, ${devices.length} devices`;
});

function ask(query: Record<string, string | undefined>): void {
  void router.replace({ query: { ...route.query, ...query } });
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>{{ title }}</h1>
      <p v-if="records.length > 1" class="soft">against {{ baselineName }}</p>
    </header>
    <div v-if="choices.length === 0" class="first-step">
      <h2>Nothing to compare yet</h2>
      <p>Log two runs, or bring two in. Then lay them over each other here.</p>
      <v-btn to="/run" variant="flat" color="primary">Go to Run</v-btn>
    </div>
    <template v-else>
      <div class="choosing">
        <v-autocomplete
          :model-value="chosen"
          :items="choices"
          item-title="name"
          item-value="id"
          label="Runs laid over each other"
          multiple
          chips
          closable-chips
          auto-select-first
          @update:model-value="(ids: string[]) => ask({ runs: ids.join('.') })"
        />
        <v-select
          v-if="records.length > 1"
          :model-value="baseline"
          :items="baselines"
          item-title="name"
          item-value="id"
          label="Set against"
          class="narrow"
          @update:model-value="(id: string) => ask({ base: id })"
        />
        <v-select
          v-if="records.length > 1"
          :model-value="level"
          :items="LEVELS.map((each) => ({ title: `${each} %`, value: each }))"
          label="at the level"
          class="narrow"
          @update:model-value="(value: number) => ask({ level: String(value) })"
        />
      </div>
      <p v-if="missing.length > 0" class="due missing" role="alert">
        {{ missing.length }} of these runs {{ missing.length === 1 ? 'is' : 'are' }} not in this logbook. Take them off the list above.
      </p>
      <p v-if="records.length < 2" class="first-step soft">Choose two runs or more.</p>
      <template v-else>
        <div class="spread">
          <div class="paper"><InkStrip :traces="traces" size="sheet" penned :caption="`${title}, charge shown over time`" /></div>
          <aside aria-label="Verdict">
            <p v-for="(sentence, index) in words" :key="sentence" :class="index === 0 ? 'first' : ''">{{ sentence }}</p>
            <p v-for="sentence in said" :key="sentence" class="unfair">{{ sentence }}</p>
          </aside>
        </div>
        <CompareTable :rows="rows" :names="names" :pens="pens" :baseline="baselineName" :level="level" />
      </template>
    </template>
  </section>
</template>

<style scoped>
.choosing {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  padding: 0.9rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.choosing > * {
  flex: 1 1 24rem;
}

.choosing > .narrow {
  flex: 0 1 13rem;
}

.missing {
  padding: 0.75rem 1.5rem;
}

.spread {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.paper {
  height: clamp(20rem, 52vh, 36rem);
  padding-inline-start: 0.5rem;
}

aside {
  display: grid;
  gap: 0.7rem;
  align-content: start;
  padding: 1rem 1.25rem;
  border-inline-start: 1px solid rgb(var(--v-theme-line));
}

.first {
  font-size: 1.2rem;
  font-weight: 700;
  line-height: 1.25;
}

.unfair {
  padding-inline-start: 0.7rem;
  border-inline-start: 3px solid rgb(var(--v-theme-due));
  font-size: 0.9rem;
}

@media (max-width: 900px) {
  .choosing {
    padding-inline: 1rem;
  }

  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  aside {
    border-inline-start: 0;
  }
}
</style>
