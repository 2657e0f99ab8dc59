<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { withGearSwapped } from '@core/exchange';
import { STATES } from '@core/plan';
import { shownUnit } from '@core/quantity';
import DateField from '../kit/DateField.vue';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import FigureField from '../kit/FigureField.vue';
import type { Work } from '../kit/work';
import WorkBar from '../kit/WorkBar.vue';
import { useMethods } from '../logbook/methods';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';
import { NEW, usePaperFiling } from './paperFiling';
import { MORE_FACTS } from './paperSheet';
import PaperTable from './PaperTable.vue';

/** A study that stands on paper, or in a spreadsheet: times down, setups across. Every cell becomes ink that says where it came from. */
const router = useRouter();
const studies = useStudies();
const methods = useMethods();
onMounted(() => Promise.all([studies.load(), methods.load()]));

const { about, sheet, isHalf, lacks, file } = usePaperFiling();
const { grid, asked, before, refused, timeOfDay, isDayAlone, filled, unknown } = sheet;
const trouble = ref('');
const tried = ref(false);
const busy = ref(false);
const stored = shallowRef<Work>();

const { offer, close, end } = useDraft(
  'paper',
  () => grid.value,
  (given) => (grid.value = given),
  () => undefined,
);
/** Once it is filed there is nothing left to keep. */
let isFiled = false;
onBeforeUnmount(() => {
  if (!isFiled) close();
});

async function shelve(): Promise<void> {
  trouble.value = '';
  await sheet.shelve().catch((error: unknown) => (trouble.value = troubleOf(error, 'Nothing was put on the shelf.')));
}

async function fileRuns(): Promise<void> {
  tried.value = true;
  if (lacks.value.length > 0 || busy.value) return;
  busy.value = true;
  trouble.value = '';
  try {
    const ids = await file((done, of) => (stored.value = { done, of }));
    isFiled = true;
    end();
    await router.push(ids.length === 1 ? `/runs/${ids[0] ?? ''}` : { path: '/compare', query: { runs: ids.join('.') } });
  } catch (error) {
    trouble.value = troubleOf(error, 'Nothing was filed.');
  } finally {
    busy.value = false;
    stored.value = undefined;
  }
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>From paper</h1>
      <p class="soft">a study that was written down elsewhere: times down, setups across</p>
      <div class="actions">
        <v-btn variant="flat" color="primary" :loading="busy" :disabled="filled.length === 0" @click="fileRuns"
          >Save {{ filled.length === 1 ? '1 run' : `${filled.length} runs` }}</v-btn
        >
      </div>
      <WorkBar v-if="stored" class="working" does="Checking and storing" name="Storing the runs" :at="stored" counts="runs" />
      <p v-if="trouble || refused" class="due" role="alert">{{ trouble || refused }}</p>
      <p v-else-if="tried && lacks.length > 0" class="due" role="alert">{{ lacks.join(' ') }}</p>
      <p v-else-if="filled.length === 0" class="soft why">Nothing is filled in yet.</p>
    </header>
    <form class="body" novalidate @submit.prevent="fileRuns">
      <DraftOffer :draft="offer" />
      <fieldset class="facts">
        <legend>Of all of them</legend>
        <v-select
          v-model="about.study"
          :items="[{ id: NEW, name: 'a new study of these' }, ...studies.all]"
          item-title="name"
          item-value="id"
          label="Study"
          placeholder="none"
          clearable
        />
        <v-text-field v-if="about.study === NEW" v-model="about.studyName" label="Name of the study" maxlength="80" />
        <FigureField
          v-model="about.start"
          name="Level at plug-in"
          unit="%"
          hint="where no row stands at 0; dead if it showed nothing"
          persistent-hint
        />
        <DateField
          v-if="isDayAlone"
          v-model="timeOfDay"
          type="time"
          label="Time of day"
          hint="at plug-in, where only the day is written"
          persistent-hint
        />
        <v-select v-model="asked" :items="[...MORE_FACTS]" label="More to say of each setup" multiple chips closable-chips />
        <details class="more">
          <summary>Method, state, conditions, times of a clip</summary>
          <div class="facts">
            <v-select v-model="about.method" :items="methods.all" item-title="name" item-value="id" label="Method" clearable />
            <v-select v-model="about.state" :items="[...STATES]" label="State" />
            <v-text-field v-model="about.rest" label="Rested for (minutes)" inputmode="decimal" />
            <FigureField v-model="about.ambient" name="Room" :unit="shownUnit('°C')" />
            <v-checkbox v-model="about.isClip" label="The times are those of a clip" />
            <template v-if="about.isClip">
              <v-text-field v-model="about.offset" label="Time of the clip at plug-in" />
              <v-text-field v-model="about.speed" label="Speed of the clip" inputmode="decimal" />
            </template>
          </div>
        </details>
      </fieldset>
      <p id="paper-help" class="soft">
        Paste from a spreadsheet, or type. Times as 10, 14:25 or 1 h 30; in a cell what the display showed, as 42, 42 26.1w, 80!, dead,
        light out or full 95 min. Enter goes down. Rows headed Cable, Port, Fed by, Screen and the like are read too.
      </p>
      <p v-if="before" class="note" role="status">
        What was pasted took the place of what stood here. <v-btn variant="text" size="small" @click="sheet.undoPaste">Undo</v-btn>
      </p>
      <p v-if="isHalf" class="note">
        Only one of device and charger is said.
        <v-btn variant="text" size="small" @click="grid = withGearSwapped(grid)">It is the other</v-btn>
      </p>
      <p v-if="unknown.length > 0" class="note" role="status">
        Not on the shelf: {{ unknown.map(({ gear, shelf: on }) => `${gear.name} (${on})`).join(', ') }}.
        <v-btn variant="tonal" size="small" @click="shelve">{{
          unknown.length === 1 ? 'Put it on the shelf' : `Put these ${unknown.length} on the shelf`
        }}</v-btn>
      </p>
      <PaperTable :sheet="sheet" :is-tried="tried" />
    </form>
  </section>
</template>

<style scoped>
.body {
  display: grid;
  gap: 1rem;
}

.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 12rem), 1fr));
  gap: 0.75rem;
  align-items: start;
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}

summary {
  padding-block: 0.6rem;
  cursor: pointer;
}

.more {
  grid-column: span 2;
}

.more[open] {
  grid-column: 1 / -1;
}

legend {
  padding-bottom: 0.5rem;
  font-weight: 700;
}

.note {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  padding: 0.5rem 1rem;
  border-inline-start: 3px solid rgb(var(--v-theme-due));
}

@media (max-width: 40em) {
  .more {
    grid-column: auto;
  }
}
</style>
