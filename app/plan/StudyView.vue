<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { ValidationError } from 'yup';
import { SCHEMA } from '@core/ink';
import { CONDITIONS, readCadence, SCHOOLS, writeCadence, type CadenceText, type Condition } from '@core/method';
import { nextRace, nextRun, studySetupsOf, sourceOf, studySchema, type Study } from '@core/plan';
import { studyTarget } from '../exports/target';
import MoreActions from '../kit/MoreActions.vue';
import { focusFirstError } from '../kit/firstError';
import type { MethodChoice } from '../logbook/methodChoice';
import { momentText } from '../kit/dates';
import { usePageTitle } from '../kit/pageTitle';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import WriteUp from '../logbook/WriteUp.vue';
import { troubleOf } from '../logbook/trouble';
import ConditionsTable from '../method/ConditionsTable.vue';
import MatrixTable from './MatrixTable.vue';
import StudyFields from './StudyFields.vue';
import TellTable from './TellTable.vue';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));
const StudyHeadline = defineAsyncComponent(() => import('../logbook/StudyHeadline.vue'));

/** One study: its question and method, its matrix, what must match, what it costs and what it will be able to tell. */
const props = defineProps<{ id: string }>();

const studies = useStudies();
const shelf = useShelf();
const router = useRouter();
const first = SCHOOLS[0];

function blank(): Study {
  return {
    schema: SCHEMA,
    id: props.id,
    name: '',
    question: '',
    method: first?.id ?? '',
    cadence: first?.cadence ?? { kind: 'fixed', every: 300 },
    startLevel: first?.startLevel ?? 1,
    devices: [],
    chargers: [],
    cables: [],
    meters: [],
    states: ['asleep'],
    crossed: [],
    repeats: 1,
    order: 'counterbalanced',
    races: false,
    seed: Date.now() % 100_000,
    conditions: CONDITIONS.map((each) => ({ ...each })),
  };
}

const draft = shallowRef<Study>(blank());
usePageTitle(() => draft.value.name || 'A new study');
const timing = ref<CadenceText>(writeCadence(draft.value.cadence));
const exporting = ref(false);
const errors = shallowRef<Record<string, string>>({});
const trouble = ref('');
const isKept = ref(false);
/** Nothing is offered to be filled in before what is kept has come. */
const isLoaded = ref(false);
const isChanged = ref(false);

onMounted(async () => {
  await studies.load();
  const known = studies.all.find(({ id }) => id === props.id);
  if (known) [draft.value, timing.value, isKept.value] = [known, writeCadence(known.cadence), true];
  isLoaded.value = true;
});

// Undone from elsewhere, or saved in another tab: what is being typed here stays.
watch(
  () => studies.all.find(({ id }) => id === props.id),
  (stored) => {
    if (isLoaded.value && stored && !isChanged.value) [draft.value, timing.value] = [stored, writeCadence(stored.cadence)];
  },
);

function change(part: Partial<Study>): void {
  draft.value = { ...draft.value, ...part };
  isChanged.value = true;
}

const method = computed<MethodChoice>(() => ({ school: draft.value.method, timing: timing.value }));
function takeMethod({ school, timing: typed }: MethodChoice): void {
  timing.value = typed;
  const read = readCadence(typed);
  change({ method: school ?? draft.value.method, ...('cadence' in read && { cadence: read.cadence }) });
}

const runs = computed(() => studies.runsOf(props.id));
const made = computed(() => runs.value.map(({ cell }) => cell));
/** Runs that start together next. */
const race = computed(() => (isKept.value && !isChanged.value ? nextRace(draft.value, made.value, shelf.everything()) : []));
const isSaved = computed(() => isKept.value && !isChanged.value);
const comparison = computed(() => ({ path: '/compare', query: { runs: runs.value.map((run) => run.id).join('.') } }));
const nextSays = computed(() => (next.value ? `Next: ${nameOf(next.value.cell.device)} on ${sourceOf(next.value.cell, nameOf)}` : ''));
const isFinished = computed(() => isKept.value && made.value.length > 0 && next.value === undefined && !isChanged.value);
const next = computed(() => (isKept.value && !isChanged.value ? nextRun(draft.value, made.value) : undefined));
/** What is filled in may be half typed; nothing is worked out of a count that is none. */
const setups = computed(() => studySetupsOf(draft.value, shelf.everything()));
const nameOf = (id: string | undefined) => shelf.all.find(({ gear }) => gear.id === id)?.gear.name ?? 'gear no longer there';

async function keep(): Promise<void> {
  trouble.value = '';
  const read = readCadence(timing.value);
  const found: Record<string, string> = 'error' in read ? { cadence: read.error } : {};
  try {
    const study = studySchema.validateSync(draft.value, { abortEarly: false }) as Study;
    if (Object.keys(found).length === 0) {
      await studies.put(study);
      [isKept.value, isChanged.value] = [true, false];
    }
  } catch (error) {
    if (error instanceof ValidationError) for (const { path, message } of error.inner) found[path ?? ''] ??= message;
    else trouble.value = troubleOf(error, 'The study was not saved.');
  }
  errors.value = found;
  if (Object.keys(found).length > 0) void focusFirstError();
}

async function remove(): Promise<void> {
  await studies.remove(props.id);
  await router.push('/plan');
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>{{ draft.name || 'A new study' }}</h1>
      <p class="soft" :title="draft.question">{{ draft.question || 'begin with the question it is to answer' }}</p>
      <div class="actions">
        <MoreActions>
          <v-btn v-if="runs.length > 1 && !isFinished" variant="text" :to="comparison">Compare its {{ runs.length }} runs</v-btn>
          <v-btn v-if="isSaved" variant="text" :to="`/plan/${id}/calendar`">Calendar</v-btn>
          <v-btn v-if="isSaved" variant="text" @click="exporting = true">Export</v-btn>
          <WriteUp
            v-if="isKept && runs.length > 0"
            :name="draft.name"
            :source="{ runs: runs.map((run) => run.id), study: id, from: `the study ${draft.name}` }"
          />
          <v-btn v-if="isKept && made.length === 0" variant="text" @click="remove">Remove it</v-btn>
        </MoreActions>
        <v-btn v-if="isSaved" disabled variant="text" title="Nothing was changed since it was saved">Saved</v-btn>
        <v-btn v-else variant="flat" color="primary" @click="keep">Save the study</v-btn>
        <v-btn v-if="isFinished && runs.length > 1" variant="flat" color="primary" :to="comparison"
          >Compare its {{ runs.length }} runs</v-btn
        >
        <v-btn
          v-else-if="race.length > 1"
          variant="flat"
          color="primary"
          :to="{ path: '/live/new', query: { study: id, cell: race.map(({ cell }) => cell.key) } }"
          >Next race: {{ race.length }} runs</v-btn
        >
        <v-btn
          v-else-if="next"
          class="next"
          variant="flat"
          color="primary"
          :title="nextSays"
          :to="{ path: '/live/new', query: { study: id, cell: next.cell.key } }"
          >{{ nextSays }}</v-btn
        >
      </div>
      <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
      <p v-else-if="Object.keys(errors).length > 0" class="due" role="alert">Not saved yet: {{ Object.values(errors).join(' ') }}</p>
    </header>
    <StudyHeadline v-if="runs.length > 1" :ids="runs.map((run) => run.id)" />
    <div v-if="isLoaded" class="spread">
      <StudyFields :study="draft" :method="method" :errors="errors" @change="change" @method="takeMethod" />
      <div class="found">
        <MatrixTable :study="draft" :setups="setups" :runs="runs" :name-of="nameOf" @cross="(crossed) => change({ crossed })" />
        <TellTable :study="draft" :setups="setups" />
        <ConditionsTable :conditions="draft.conditions" @change="(conditions: Condition[]) => change({ conditions })" />
        <section v-if="draft.notes" class="notes" aria-labelledby="notes-title">
          <h2 id="notes-title">Sums</h2>
          <p v-for="(note, index) in draft.notes" :key="`${note.at} ${index}`">
            {{ note.text }} <small class="soft">{{ momentText(note.at) }}</small>
            <v-btn
              variant="text"
              size="small"
              :aria-label="`Remove note ${index + 1}`"
              @click="change({ notes: draft.notes.length > 1 ? draft.notes.filter((each) => each !== note) : undefined })"
              >Remove</v-btn
            >
          </p>
        </section>
      </div>
    </div>
    <ExportSheet
      v-if="exporting"
      v-model="exporting"
      :targets="[
        studyTarget(
          id,
          draft.name,
          runs.map((run) => run.id),
        ),
      ]"
    />
  </section>
</template>

<style scoped>
.next {
  max-width: min(22rem, 32vw);
}

.next :deep(.v-btn__content) {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
}

.notes {
  padding: 1.1rem 1.5rem;
  border-top: 1px solid rgb(var(--v-theme-line));
}

.spread {
  display: grid;
  grid-template-columns: 21rem minmax(0, 1fr);
}

.found {
  min-width: 0;
  border-inline-start: 1px solid rgb(var(--v-theme-line));
}

@media (max-width: 40em) {
  .next {
    max-width: 100%;
  }
}

@media (max-width: 62.5em) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  .found {
    border-inline-start: 0;
  }
}
</style>
