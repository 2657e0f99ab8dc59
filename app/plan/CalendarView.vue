<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue';
import { cellsOf, runInWords, sourceOf, type Appointment, type PlannedRun } from '@core/plan';
import { spell } from '@core/quantity';
import { studyTarget, type Target } from '../exports/target';
import { momentText } from '../kit/dates';
import MoreActions from '../kit/MoreActions.vue';
import { usePageTitle } from '../kit/pageTitle';
import { penFor } from '../logbook/penFor';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import AgendaTable from './AgendaTable.vue';
import { useCalendarDraft } from './calendarDraft';
import CalendarPaper from './CalendarPaper.vue';
import HoursFields from './HoursFields.vue';

const ExportSheet = defineAsyncComponent(() => import('../exports/ExportSheet.vue'));

/** A study laid into real days: shortest finish, beside what is proven; runs can be dragged or pinned, and the rest is planned anew. */
const props = defineProps<{ id: string }>();

const logbook = useLogbook();
const studies = useStudies();
const {
  study,
  draft,
  edition,
  isLoaded,
  trouble,
  gear,
  name,
  setups,
  errors,
  scheduled,
  agenda,
  laidBefore,
  moves,
  moved,
  isKept,
  isBusy,
  progress,
  finish,
  bound,
  tally,
  alone,
  stop,
  change,
  loose,
  pin,
  putBack,
  keep,
} = useCalendarDraft(props.id);
const picked = ref<string>();

const wordsOf = (run: PlannedRun) => (study.value ? runInWords(run, study.value, name.value) : '');
usePageTitle(() => (study.value ? `Calendar of ${study.value.name}` : 'Calendar'));
const titleOf = ({ runs }: Appointment) => runs.map(wordsOf).join(' · ');
/** Each setup keeps the pen of its runs; one without runs gets the next free one. */
const pens = computed(() => {
  const penned = [...logbook.summaries.map(({ device, charger, pen: number }) => ({ device, charger, pen: number }))];
  return new Map(
    (study.value ? cellsOf(study.value) : []).map(({ key, device, ...source }) => {
      const setup = { device: name.value(device), charger: sourceOf(source, name.value) };
      const number = penFor(setup, penned);
      penned.push({ ...setup, pen: number });
      return [key, number];
    }),
  );
});
const penOf = ({ cell }: PlannedRun) => pens.value.get(cell.key) ?? 0;

const busyWhy = computed(() => (isBusy.value ? 'A better calendar is being looked for' : ''));
const moment = (seconds: number) => momentText(seconds * 1000, { weekday: true });
/** What holds the finish up, by the resource that the bound was proven with. */
const scarce = computed(() => {
  const [kind, id] = bound.value?.resource.split('/') ?? [];
  if (kind === 'person') return 'you are needed for that long';
  if (kind === 'meter' || kind === 'socket')
    return scheduled.value?.problem.capacity[kind] === 1 ? `the ${kind} is needed for that long` : `the ${kind}s are needed for that long`;
  return `${name.value(id)} is needed for that long`;
});

const exporting = ref(false);
const targets = computed((): Target[] =>
  study.value
    ? [
        {
          ...{ of: 'calendar', says: `The calendar of ${study.value.name}`, name: `${study.value.name} calendar` },
          calendar: { study: study.value, agenda: agenda.value, gear: gear.value },
        },
        studyTarget(
          study.value.id,
          study.value.name,
          studies.runsOf(study.value.id).map((each) => each.id),
        ),
      ]
    : [],
);
</script>

<template>
  <section class="sheet">
    <header>
      <h1>{{ study ? `Calendar of ${study.name}` : 'Calendar' }}</h1>
      <div class="actions">
        <MoreActions>
          <v-btn :to="`/plan/${id}`" variant="text">The study</v-btn>
          <template v-if="agenda.length > 0">
            <v-btn variant="text" :disabled="isBusy" :title="busyWhy" @click="exporting = true">Export</v-btn>
            <v-btn v-if="laidBefore.length > 0 && !isKept" variant="text" @click="putBack">Put it back</v-btn>
          </template>
        </MoreActions>
        <v-btn
          v-if="agenda.length > 0"
          variant="flat"
          color="primary"
          :disabled="isBusy || isKept"
          :title="isKept ? 'Nothing was changed since it was saved' : busyWhy"
          @click="keep"
          >{{ isKept ? 'Saved' : 'Save the calendar' }}</v-btn
        >
      </div>
      <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
    </header>
    <div v-if="isLoaded && !study" class="first-step">
      <h2>There is no such study</h2>
      <p>It may have been thrown away, or be in the logbook of another address.</p>
      <v-btn to="/plan" variant="flat" color="primary">See the studies</v-btn>
    </div>
    <div v-else-if="study" class="spread">
      <HoursFields
        :key="edition"
        :calendar="draft"
        :errors="errors"
        :needs-length="setups.some(({ cell, expected }) => cell.reason === undefined && !expected)"
        @change="change"
      />
      <div class="found">
        <section v-if="scheduled && scheduled.obstacles.length > 0" class="said" aria-labelledby="cannot-title">
          <h2 id="cannot-title">This cannot be laid into days yet</h2>
          <p v-for="obstacle in scheduled.obstacles" :key="obstacle" class="due" role="alert">{{ obstacle }}</p>
          <v-btn v-if="laidBefore.length > 0 && !isKept" @click="putBack">Put it back</v-btn>
        </section>
        <p v-else-if="scheduled && scheduled.problem.jobs.length === 0" class="said">
          Every run of this study that is expected to charge has been made.
        </p>
        <template v-else>
          <p v-for="note in scheduled?.notes ?? []" :key="note" class="said">{{ note }}</p>
          <section class="said" aria-labelledby="finish-title">
            <h2 id="finish-title">{{ agenda.length > 0 ? `Finishes ${moment(finish)}` : 'Looking for the shortest finish' }}</h2>
            <div v-if="isBusy" class="search">
              <v-progress-linear :model-value="progress" :indeterminate="progress === 0" aria-label="Searching" />
              <v-btn size="small" @click="stop">Enough, take the best so far</v-btn>
            </div>
            <template v-if="agenda.length > 0">
              <p v-if="bound && bound.at >= finish" role="status">It cannot be sooner: {{ scarce }}, and that is proven.</p>
              <p v-else-if="bound" role="status">
                Cannot finish before <span class="figures">{{ moment(bound.at) }}</span>, for {{ scarce }}.
              </p>
              <p v-if="tally && alone" class="soft">
                You are there for {{ spell(tally.attended) }} on {{ tally.windows }} occasions, over {{ tally.days }} days. One after
                another in the same hours it finishes {{ moment(alone.finish) }}, {{ spell(alone.attended) }} on
                {{ alone.windows }} occasions, over {{ alone.days }} days.
              </p>
            </template>
            <p v-if="scheduled && scheduled.idle.length > 0" class="soft">
              Not laid, for they are expected to take no charge:
              {{ scheduled.idle.map(wordsOf).join('; ') }}. Leave them out in the matrix, with that as the reason.
            </p>
          </section>
          <section v-if="moves.length > 0 && !isBusy" class="said" aria-labelledby="moved-title">
            <h2 id="moved-title">{{ moves.length === 1 ? 'One has moved' : `${moves.length} have moved` }}</h2>
            <ul role="status">
              <li v-for="{ appointment, from } in moves.slice(0, 8)" :key="appointment.key">
                {{ titleOf(appointment) }}: <template v-if="from !== undefined">{{ moment(from) }} → </template>{{ moment(appointment.at) }}
              </li>
              <li v-if="moves.length > 8">and {{ moves.length - 8 }} more</li>
            </ul>
          </section>
          <template v-if="agenda.length > 0 && scheduled">
            <CalendarPaper
              data-acts
              :agenda="agenda"
              :windows="scheduled.problem.windows"
              :moved="moved"
              :title-of="titleOf"
              :pen-of="penOf"
              @move="pin"
              @pick="(key) => (picked = key)"
            />
            <p class="soft hint" data-acts>
              Drag a run to another time, or move it in the list: it is pinned there, and the rest is planned anew. Its name opens it, ready
              to start.
            </p>
            <AgendaTable
              :study="id"
              :agenda="agenda"
              :words-of="wordsOf"
              :title-of="titleOf"
              :picked="picked"
              @move="pin"
              @pin="pin"
              @loose="loose"
              @pick="(key) => (picked = key)"
            />
          </template>
        </template>
      </div>
    </div>
    <ExportSheet v-if="exporting" v-model="exporting" :targets="targets" />
  </section>
</template>

<style scoped>
.spread {
  display: grid;
  grid-template-columns: 16rem minmax(0, 1fr);
}

.found {
  display: grid;
  gap: 1rem;
  align-content: start;
  min-width: 0;
  padding: 1.1rem 1.5rem 2rem;
  border-inline-start: 1px solid rgb(var(--v-theme-line));
}

.said {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
}

.search {
  display: flex;
  gap: 1rem;
  align-items: center;
  width: min(100%, 34rem);
}

ul {
  list-style: none;
  font-size: 0.9rem;
}

.hint {
  font-size: 0.85rem;
}

@media (max-width: 62.5em) {
  .spread {
    grid-template-columns: minmax(0, 1fr);
  }

  .found {
    order: -1;
    border-inline-start: 0;
  }
}
</style>
