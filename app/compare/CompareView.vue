<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { namesOf, unfairness, verdict } from '@core/advise';
import { compareRuns, usualBaseline } from '@core/compare';
import { LEVELS } from '@core/curve';
import { quantityOf, TRACKED, type Quantity } from '@core/quantity';
import { sourceSays } from '@core/ink';
import { momentText } from '../kit/dates';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import InkStrip from '../strip/InkStrip.vue';
import { distinctPens } from '../strip/pens';
import { openedOf, type Opened } from '../workers/opened';
import CompareTable from './CompareTable.vue';

/** Runs laid over each other, set against one of them. What is chosen stands in the address, so it can be kept and sent. */
const route = useRoute();
const router = useRouter();
const logbook = useLogbook();
const lanes = useLanes();

const asText = (value: unknown) => (typeof value === 'string' ? value : '');
const chosen = computed(() => asText(route.query.runs).split('.').filter(Boolean));
/** The one chosen; without one the charger that came in the box, for that is what others are set against. */
const baseline = computed(() => {
  const asked = asText(route.query.base);
  return chosen.value.includes(asked) ? asked : (usualBaseline(opened.value.map(({ run }) => run)) ?? chosen.value[0]);
});
const level = computed(() => LEVELS.find((each) => String(each) === route.query.level) ?? 100);
const choosing = ref(chosen.value.length < 2);
const track = ref<Quantity>('percent');
const TRACKS = TRACKED.filter((each) => !quantityOf(each).track?.on).map((value) => {
  const { title = '', short = '' } = quantityOf(value).track ?? {};
  return { title: value === 'percent' ? title : `with ${short.toLowerCase()}`, value };
});
const tracks = computed<Quantity[]>(() => (track.value === 'percent' ? ['percent'] : ['percent', track.value]));

const opened = shallowRef<Opened[]>([]);
const missing = shallowRef<string[]>([]);
const choices = computed(() => [
  ...lanes.records.map(({ header }) => ({ id: header.id, name: `${header.device.name} on ${sourceSays(header)}, live` })),
  ...logbook.summaries.map(({ id, device, charger, plugInAt }) => ({
    id,
    name: `${device} on ${charger}, ${momentText(plugInAt)}`,
  })),
]);

watch(
  [chosen, () => lanes.records],
  async ([ids]) => {
    const found = await Promise.allSettled(
      ids.map(async (id) => {
        const live = lanes.records.find(({ header }) => header.id === id);
        return live ? openedOf(live) : logbook.open(id);
      }),
    );
    opened.value = found.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []));
    missing.value = ids.filter((_, index) => found[index]?.status === 'rejected');
  },
  { immediate: true },
);

const rows = computed(() => compareRuns(opened.value, baseline.value ?? '', level.value));
const names = computed(() => namesOf(rows.value));
/** Which row each run is in: repeats share its name and its pen. */
const rowOf = computed(() =>
  opened.value.map(({ run }) => rows.value.findIndex(({ runs }) => runs.some(({ header }) => header.id === run.header.id))),
);
const pens = computed(() => distinctPens(rows.value.map(({ run }) => run.header.pen)));
const traces = computed(() =>
  opened.value.map(({ trace }, index) => {
    const row = rowOf.value[index] ?? -1;
    return { ...trace, expected: undefined, forecasts: undefined, name: names.value[row] ?? '', pen: pens.value[row] ?? 0 };
  }),
);
const baselines = computed(() => rows.value.map(({ run }, index) => ({ id: run.header.id, name: names.value[index] ?? '' })));
/** Any run of a setup stands for it. */
const baselineRow = computed(() => rows.value.findIndex(({ runs }) => runs.some(({ header }) => header.id === baseline.value)));
const baselineName = computed(() => names.value[baselineRow.value] ?? '');
const words = computed(() => verdict(rows.value, level.value));
const unfair = computed(() => unfairness(rows.value));
const title = computed(() => {
  const devices = [...new Set(opened.value.map(({ run }) => run.header.device.name))];
  if (opened.value.length < 2) return 'Compare';
  return devices.length === 1
    ? `${opened.value.length} runs of ${devices[0] ?? ''}`
    : `${opened.value.length} runs, ${devices.length} devices`;
});

function ask(query: Record<string, string | undefined>): void {
  void router.replace({ query: { ...route.query, ...query } });
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1 :title="title">{{ title }}</h1>
      <p class="soft">{{ opened.length > 1 ? `set against ${baselineName}` : 'runs beside each other' }}</p>
      <div v-if="opened.length > 1" class="actions controls">
        <v-select
          :model-value="baselines[baselineRow]?.id"
          :items="baselines"
          item-title="name"
          item-value="id"
          label="Set against"
          density="compact"
          @update:model-value="(id: string) => ask({ base: id })"
        />
        <v-select
          :model-value="level"
          :items="LEVELS.map((each) => ({ title: `at ${each} %`, value: each }))"
          label="Level"
          density="compact"
          @update:model-value="(value: number) => ask({ level: String(value) })"
        />
        <v-select v-model="track" :items="TRACKS" label="Strip" density="compact" />
        <v-btn :aria-expanded="choosing" @click="choosing = !choosing">Choose runs</v-btn>
      </div>
    </header>
    <div v-if="choices.length === 0" class="first-step">
      <h2>Nothing to compare yet</h2>
      <p>Log two runs, or import two. Then compare them here.</p>
      <v-btn to="/run" variant="flat" color="primary">Go to Run</v-btn>
    </div>
    <template v-else>
      <div v-if="choosing || opened.length < 2" class="choosing">
        <v-autocomplete
          :model-value="chosen"
          :items="choices"
          item-title="name"
          item-value="id"
          label="Runs compared"
          hint="Choose two or more."
          persistent-hint
          multiple
          chips
          closable-chips
          auto-select-first
          @update:model-value="(ids: string[]) => ask({ runs: ids.join('.') })"
        />
      </div>
      <p v-if="missing.length > 0" class="due missing" role="alert">
        {{ missing.length === 1 ? 'One of these runs is' : `${missing.length} of these runs are` }} not in this logbook. Choose again.
      </p>
      <template v-if="opened.length > 1">
        <div class="spread">
          <div class="paper">
            <InkStrip :traces="traces" size="sheet" penned :tracks="tracks" :caption="`${title}, charge shown over time`" />
          </div>
          <aside aria-label="Verdict">
            <p v-for="(sentence, index) in words" :key="sentence" :class="index === 0 ? 'first' : ''">{{ sentence }}</p>
            <p v-for="sentence in unfair" :key="sentence" class="unfair">{{ sentence }}</p>
          </aside>
        </div>
        <CompareTable :rows="rows" :names="names" :pens="pens" :baseline="baselineName" :level="level" />
      </template>
    </template>
  </section>
</template>

<style scoped>
.controls {
  align-items: center;
}

.controls > .v-input {
  flex: 0 0 11.5rem;
}

.choosing {
  padding: 0.9rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
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
  height: clamp(19rem, 44vh, 34rem);
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
  .controls {
    margin: 0;
    width: 100%;
  }

  .controls > .v-input {
    flex: 1 0 8rem;
  }

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
