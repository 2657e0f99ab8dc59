<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { compatibility } from '@core/compare';
import { momentOf, sourceKey, sourceSays, TRIAL_STATES, type Draft, type Source, type Trial } from '@core/ink';
import { WHOLE } from '../exports/target';
import MoreActions from '../kit/MoreActions.vue';
import { useDueLine } from '../entry/dueLine';
import { useSitting } from '../entry/sitting';
import TrialCard from '../entry/TrialCard.vue';
import { useNow, wallNow } from '../kit/clock';
import { usePageTitle } from '../kit/pageTitle';
import { useInkActs } from '../logbook/inkActs';
import { useLanes } from '../logbook/lanes';
import { troubleOf } from '../logbook/trouble';
import CompatibilityTable from '../strip/CompatibilityTable.vue';
import AddSource from './AddSource.vue';
import SecondLook from './SecondLook.vue';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));

/** A spot check that is going on: the list, the source in hand, and the table as it grows. */
const props = defineProps<{ id: string }>();

const router = useRouter();
const lanes = useLanes();
const acts = useInkActs();
const sitting = useSitting();
const line = useDueLine();
const now = useNow();
const run = computed(() => lanes.records.find(({ header }) => header.id === props.id));
usePageTitle(() => `Spot check of ${run.value?.header.device.name ?? ''}`);
const rows = computed(() => (run.value ? compatibility(run.value) : []));
const list = computed(() => (run.value ? sitting.listOf(run.value) : []));
const triedOf = (source: Source) => rows.value.find(({ key }) => key === sourceKey(source));
const statesOf = (source: Source) => {
  const row = triedOf(source);
  return row ? TRIAL_STATES.flatMap((state) => (row[state] ? [`${state}: ${row[state].status}`] : [])).join(', ') : '';
};
/** A trial that is being written again; without one, what is in hand. */
const again = shallowRef<Trial>();
const hand = computed(() => {
  if (!run.value) return undefined;
  return again.value ? { source: again.value.source, state: again.value.state, instead: again.value } : sitting.inHand(run.value);
});
const isAdding = ref(false);
const exporting = ref(false);
const trouble = ref('');
/** The next is plugged in, so the last no longer is. */
const isNext = ref(false);
/** The last trial, while it is still plugged in: a second look at its level can tell more. */
const open = computed(() => {
  if (isNext.value || again.value) return undefined;
  const last = run.value?.trials.at(-1);
  const found = rows.value.flatMap((row) => TRIAL_STATES.flatMap((state) => row[state] ?? [])).find(({ trial }) => trial.id === last?.id);
  return found && !found.isSure && found.trial.percent !== undefined ? found.trial : undefined;
});

// The run is over once it is filed: its table stands with it.
watch(
  run,
  (there) => {
    if (!there) void router.replace(`/runs/${props.id}`);
  },
  { immediate: true },
);

async function log(draft: Draft): Promise<void> {
  const { value: old } = again;
  await acts.writeLive(props.id, draft);
  // The new one is there before the old one goes.
  if (old) await acts.writeLive(props.id, { kind: 'strike', at: draft.at, target: old.id, reason: 'written again' });
  else if (draft.kind === 'trial') sitting.goOn(props.id, draft.source);
  isNext.value = false;
  if (again.value === old) again.value = undefined;
  // Hands stay on the keys, unless they are at something else by now.
  await nextTick();
  if (document.activeElement === document.body) document.getElementById('trial-line')?.focus();
}

const keep = (sources: Source[]) =>
  acts
    .writeLive(props.id, { kind: 'list', at: run.value ? momentOf(run.value, wallNow()) : wallNow(), sources })
    .catch((error: unknown) => {
      trouble.value = troubleOf(error);
    });

async function add(source: Source): Promise<void> {
  await keep([...list.value, source]);
  isAdding.value = false;
  sitting.pick(props.id, source);
}

function move(source: Source, by: number): void {
  const sources = [...list.value];
  const from = sources.indexOf(source);
  const to = Math.max(0, Math.min(sources.length - 1, from + by));
  if (to === from) return;
  sources.splice(from, 1);
  sources.splice(to, 0, source);
  void keep(sources);
}

function strike(trial: Trial): void {
  line.beginStrike(props.id, trial);
  document.getElementById('entry')?.focus();
}
</script>

<template>
  <section v-if="run" class="sheet">
    <header>
      <h1>Spot check of {{ run.header.device.name }}</h1>
      <p class="soft">{{ rows.length }} of {{ list.length }} tried</p>
      <div class="actions">
        <MoreActions is-folded><v-btn variant="text" @click="exporting = true">Export</v-btn></MoreActions>
      </div>
    </header>
    <div class="body">
      <div class="side">
        <ol class="list" aria-label="Sources to try">
          <li v-for="(source, place) in list" :key="sourceKey(source)">
            <button
              type="button"
              :aria-current="hand !== undefined && sourceKey(source) === sourceKey(hand.source)"
              @click="sitting.pick(id, source)"
            >
              <span>{{ sourceSays(source) }}</span>
              <span class="soft">{{ statesOf(source) }}</span>
            </button>
            <button
              type="button"
              class="move"
              :disabled="place === 0"
              :aria-label="`Try ${sourceSays(source)} sooner`"
              @click="move(source, -1)"
            >
              ↑
            </button>
            <button
              type="button"
              class="move"
              :disabled="place === list.length - 1"
              :aria-label="`Try ${sourceSays(source)} later`"
              @click="move(source, 1)"
            >
              ↓
            </button>
          </li>
        </ol>
        <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
        <AddSource
          v-if="isAdding"
          :device="run.header.device"
          :is-known="(source) => list.some((each) => sourceKey(each) === sourceKey(source))"
          @add="add"
          @close="isAdding = false"
        />
        <v-btn v-else variant="text" @click="isAdding = true">Add a source</v-btn>
      </div>
      <div>
        <SecondLook v-if="open" :key="open.id" :run="run" :trial="open" :now="now" :log="log" />
        <TrialCard
          v-if="hand"
          :key="`${sourceKey(hand.source)} ${again?.id ?? ''}`"
          :run="run"
          :hand="hand"
          :now="now"
          :log="log"
          @plugged="isNext = true"
          @turn-state="sitting.turnState(id)"
        />
        <p v-else>All of them were tried. Pick one from the list to try it again, asleep perhaps; or press <kbd>S</kbd> to stop.</p>
        <v-btn v-if="again" variant="text" @click="again = undefined">Leave it as it was</v-btn>
      </div>
    </div>
    <div class="body table">
      <CompatibilityTable :device="run.header.device.name" :rows="rows" can-change @strike="strike" @rewrite="(trial) => (again = trial)" />
    </div>
    <ExportSheet
      v-if="exporting"
      v-model="exporting"
      :targets="[{ of: 'run', says: 'This spot check', name: `spot check ${run.header.device.name}`, runs: [id], isSpot: true }, WHOLE]"
    />
  </section>
  <section v-else class="sheet first-step"><p>Opening the spot check …</p></section>
</template>

<style scoped>
.body {
  display: grid;
  grid-template-columns: 18rem minmax(0, 1fr);
  gap: 2rem;
}

.table {
  display: block;
}

.list {
  list-style: none;
  border-top: 1px solid rgb(var(--v-theme-grid));
}

.list li {
  display: flex;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

.list button {
  padding: 0.3rem 0.5rem;
  font: inherit;
  color: inherit;
  text-align: start;
  background: none;
  border: 0;
  cursor: pointer;
}

.list button:first-child {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 0.5rem;
  min-width: 0;
  overflow-wrap: anywhere;
}

.list .move {
  color: rgb(var(--v-theme-soft));
}

.list .move:disabled {
  opacity: 0.3;
  cursor: default;
}

.list button[aria-current='true'] {
  font-weight: 700;
  background: rgb(var(--v-theme-desk));
}

@media (max-width: 56.25em) {
  .body {
    grid-template-columns: minmax(0, 1fr);
    gap: 1rem;
  }

  .side {
    order: 2;
  }
}
</style>
