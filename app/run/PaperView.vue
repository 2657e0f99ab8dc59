<script setup lang="ts">
import { nanoid } from 'nanoid';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { cadenceOf, cellFor, FROM_PAPER, runFromPaper, studyOfPaper, withGearSwapped } from '@core/exchange';
import { SCHEMA, type Draft, type Footage, type Header } from '@core/ink';
import { AMBIENT, CONDITIONS, keptAmbient, REST, type Condition } from '@core/method';
import { STATES, studySchema, type Study } from '@core/plan';
import { listed, parseClock, readDecimal, shownUnit, upperFirst } from '@core/quantity';
import { inkOfStart, readStart } from '@core/run';
import DateField from '../kit/DateField.vue';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import FigureField from '../kit/FigureField.vue';
import type { Work } from '../kit/work';
import WorkBar from '../kit/WorkBar.vue';
import { newHeaders } from '../logbook/headers';
import { useMethods } from '../logbook/methods';
import { useLogbook } from '../logbook/runs';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';
import { MORE_FACTS, usePaperSheet } from './paperSheet';
import PaperTable from './PaperTable.vue';

/** A study that stands on paper, or in a spreadsheet: times down, setups across. Every cell becomes ink that says where it came from. */
const router = useRouter();
const logbook = useLogbook();
const studies = useStudies();
const methods = useMethods();
onMounted(() => Promise.all([studies.load(), methods.load()]));

const NEW = 'new';
const study = ref<string>();
const studyName = ref('');
const method = ref<string>();
const start = ref('');
const state = ref<Study['states'][number]>('asleep');
const rest = ref('');
const ambient = ref('');
const isClip = ref(false);
const offset = ref('0:00');
const speed = ref('1');
const trouble = ref('');
const tried = ref(false);
const busy = ref(false);
const stored = shallowRef<Work>();

const footage = computed<Footage | undefined>(() =>
  isClip.value ? { offset: parseClock(offset.value.trim()) ?? 0, speed: readDecimal(speed.value) || 1, cuts: [] } : undefined,
);
const sheet = usePaperSheet(() => footage.value);
const { grid, asked, before, refused, timeOfDay, isDayAlone, read, setups, filled, unknown } = sheet;

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

const startRead = computed(() => readStart(start.value));

/** Devices or chargers alone stand at the heads: which of them is not for the program to say. */
const isHalf = computed(() => {
  const said = (fact: string) => grid.value.facts[fact]?.some((each) => each.trim() !== '') ?? false;
  return said('device') !== said('charger');
});

/** Which columns want something: `columns 1 and 3`. */
const inColumns = (columns: readonly number[]) =>
  `${columns.length === 1 ? 'column' : 'columns'} ${
    columns.length > 6
      ? `${columns
          .slice(0, 6)
          .map((each) => each + 1)
          .join(', ')} and ${columns.length - 6} more`
      : listed(columns.map((each) => String(each + 1)))
  }`;

/** What keeps it from being filed. */
const lacks = computed(() => {
  const said: string[] = [];
  if (filled.value.length === 0) said.push('Nothing is filled in yet.');
  if (read.value.faults.length > 0)
    said.push(
      read.value.faults.length === 1
        ? 'One cell cannot be read: it is marked.'
        : `${read.value.faults.length} cells cannot be read: they are marked.`,
    );
  const wanting = new Map<string, number[]>();
  for (const column of filled.value)
    for (const { says } of setups.value[column]?.faults ?? []) wanting.set(says, [...(wanting.get(says) ?? []), column]);
  for (const [says, columns] of wanting) said.push(`${upperFirst(inColumns(columns))}: ${says}`);
  if (unknown.value.length > 0) said.push('Put what is not on the shelf there first.');
  if (typeof startRead.value === 'object' && 'error' in startRead.value) said.push(startRead.value.error);
  if (study.value === NEW && !studyName.value.trim()) said.push('Give the study a name.');
  if (isClip.value && (parseClock(offset.value.trim()) === undefined || !(readDecimal(speed.value) > 0)))
    said.push('Write the time of the clip at plug-in, as 0:12, and a speed above 0.');
  return said;
});

async function shelve(): Promise<void> {
  trouble.value = '';
  await sheet.shelve().catch((error: unknown) => (trouble.value = troubleOf(error, 'Nothing was put on the shelf.')));
}

/** A column with the state that it was in: its own, or that of all of them. */
const setupOf = (column: number) => {
  const setup = setups.value[column];
  return setup && { ...setup, state: setup.state ?? state.value };
};

/** The study that the columns belong to: one there is, or one that is made of them. */
function studyOf(): Study | undefined {
  if (study.value !== NEW) return studies.all.find(({ id }) => id === study.value);
  const school = methods.byId(method.value);
  const [first] = filled.value;
  const cadence = first === undefined ? undefined : cadenceOf(read.value.columns[first] ?? { drafts: [] });
  const level = typeof startRead.value === 'object' && 'percent' in startRead.value ? startRead.value.percent : 0;
  return studySchema.validateSync({
    schema: SCHEMA,
    id: nanoid(10),
    name: studyName.value.trim(),
    question: studyName.value.trim(),
    method: school?.id ?? 'fixed-interval',
    cadence: cadence ?? { kind: 'fixed', every: 300 },
    startLevel: level,
    ...studyOfPaper(filled.value.flatMap((column) => setupOf(column) ?? [])),
    meters: [],
    order: 'as listed',
    seed: 1,
    races: false,
    conditions: CONDITIONS.map((each) => ({ ...each })),
  }) as Study;
}

/** What was so of a column: its state, what was written down of it, then of all of them, then what its study asks for. */
function conditionsOf(column: number, of: Study | undefined): Condition[] {
  const all = [
    ...(setups.value[column]?.conditions ?? []),
    { name: REST, value: rest.value.trim() },
    { name: AMBIENT, value: keptAmbient(ambient.value) },
    ...(of && study.value !== NEW ? of.conditions : []),
  ].filter(({ value }) => value);
  const once = all.filter(({ name }, index) => all.findIndex((each) => each.name === name) === index);
  return [{ name: 'state', value: setupOf(column)?.state ?? state.value }, ...once];
}

async function fileRuns(): Promise<void> {
  tried.value = true;
  if (lacks.value.length > 0 || busy.value) return;
  busy.value = true;
  trouble.value = '';
  try {
    const of = studyOf();
    const school = methods.byId(method.value);
    const methodOf = school ? { method: methods.isOwn(school.id) ? school.name : school.id, rule: school.rule } : {};
    const headers = newHeaders(
      filled.value.map((column) => headerOf(column, of, methodOf)),
      false,
    );
    const runs = headers.map((header, index) => {
      const column = filled.value[index] ?? 0;
      return runFromPaper({ drafts: withStart(column) }, header, () => nanoid(12), Date.now());
    });
    if (of && study.value === NEW) await studies.put(of);
    await logbook.importRuns(runs, { progress: (done, of) => (stored.value = { done, of }) });
    isFiled = true;
    end();
    const ids = runs.map(({ header }) => header.id);
    await router.push(ids.length === 1 ? `/curve/${ids[0] ?? ''}` : { path: '/compare', query: { runs: ids.join('.') } });
  } catch (error) {
    trouble.value = troubleOf(error, 'Nothing was filed.');
  } finally {
    busy.value = false;
    stored.value = undefined;
  }
}

function headerOf(column: number, of: Study | undefined, methodOf: Pick<Header, 'method' | 'rule'>) {
  const setup = setupOf(column);
  const { device, charger, cable, port, feed, plugInAt } = setup ?? {};
  if (!setup || !device || !charger || plugInAt === undefined) throw new Error(`Column ${column + 1} is not whole.`);
  const cell = of && cellFor(of, setup);
  const cadence = cadenceOf(read.value.columns[column] ?? { drafts: [] });
  return {
    device,
    charger,
    plugInAt,
    ...(cable && { cable }),
    ...(port !== undefined && { port }),
    ...(feed && { feed }),
    ...(cadence && { cadence }),
    ...methodOf,
    ...(cell && of && { study: { id: of.id, cell: cell.key } }),
    ...(footage.value && { footage: footage.value }),
    conditions: conditionsOf(column, of),
    source: FROM_PAPER.replace('from ', ''),
  };
}

/** The ink of a column; where nothing stands at plug-in, the level at which every run started. */
function withStart(column: number): { seconds: number; draft: Draft }[] {
  const drafts = read.value.columns[column]?.drafts ?? [];
  const given = startRead.value;
  if (drafts[0]?.seconds === 0 || (typeof given === 'object' && 'error' in given)) return drafts;
  const began = inkOfStart(given, 0).map((draft) => ({
    seconds: 0,
    draft: draft.kind === 'reading' ? { ...draft, paper: true as const } : draft,
  }));
  return [...began, ...drafts];
}
</script>

<template>
  <section class="sheet">
    <header>
      <h1>From paper</h1>
      <p class="soft">a study that was written down elsewhere: times down, setups across</p>
      <div class="actions">
        <v-btn variant="flat" color="primary" :loading="busy" @click="fileRuns"
          >File {{ filled.length === 1 ? 'one run' : `${filled.length} runs` }}</v-btn
        >
      </div>
      <WorkBar v-if="stored" class="working" does="Checking and storing" name="Storing the runs" :at="stored" counts="runs" />
      <p v-if="trouble || refused" class="due" role="alert">{{ trouble || refused }}</p>
      <p v-else-if="tried && lacks.length > 0" class="due" role="alert">{{ lacks.join(' ') }}</p>
    </header>
    <form class="body" novalidate @submit.prevent="fileRuns">
      <DraftOffer :draft="offer" />
      <fieldset class="facts">
        <legend>Of all of them</legend>
        <v-select
          v-model="study"
          :items="[{ id: NEW, name: 'a new study of these' }, ...studies.all]"
          item-title="name"
          item-value="id"
          label="Study"
          placeholder="none"
          clearable
        />
        <v-text-field v-if="study === NEW" v-model="studyName" label="Name of the study" maxlength="80" />
        <FigureField
          v-model="start"
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
            <v-select v-model="method" :items="methods.all" item-title="name" item-value="id" label="Method" clearable />
            <v-select v-model="state" :items="[...STATES]" label="State" />
            <v-text-field v-model="rest" label="Minutes left off before" inputmode="decimal" />
            <FigureField v-model="ambient" name="Room" :unit="shownUnit('°C')" />
            <v-checkbox v-model="isClip" label="The times are those of a clip" />
            <template v-if="isClip">
              <v-text-field v-model="offset" label="Time of the clip at plug-in" />
              <v-text-field v-model="speed" label="Speed of the clip" inputmode="decimal" />
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

@media (max-width: 640px) {
  .more {
    grid-column: auto;
  }
}
</style>
