<script setup lang="ts">
import { format } from 'date-fns';
import { nanoid } from 'nanoid';
import { computed, nextTick, onMounted, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import {
  cadenceOf,
  FROM_PAPER,
  gearNamedIn,
  MOST_PAPER,
  readColumns,
  readGrid,
  readTime,
  runFromPaper,
  type PaperGrid,
} from '@core/exchange';
import { SCHEMA, type Draft, type Footage, type Header } from '@core/ink';
import { CONDITIONS, keptAmbient, REST, AMBIENT, type Condition } from '@core/method';
import { cellsOf, STATES, studySchema, type Study } from '@core/plan';
import { parseClock, readDecimal, shownUnit, spell } from '@core/quantity';
import { inkOfStart, readStart } from '@core/run';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import DateField from '../kit/DateField.vue';
import FieldName from '../kit/FieldName.vue';
import FigureField from '../kit/FigureField.vue';
import GearField from '../logbook/GearField.vue';
import { newHeaders } from '../logbook/headers';
import { useMethods } from '../logbook/methods';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';

/** A study that stands on paper, or in a spreadsheet: times down, setups across. Every cell becomes ink that says where it came from. */
const router = useRouter();
const shelf = useShelf();
const logbook = useLogbook();
const studies = useStudies();
const methods = useMethods();
onMounted(() => Promise.all([studies.load(), methods.load()]));

/** What charged from what in a column, and when. */
interface Setup {
  device: string | undefined;
  charger: string | undefined;
  plugInAt: string;
}

const NEW = 'new';
const LOCAL = "yyyy-MM-dd'T'HH:mm";
const today = format(Date.now(), LOCAL);
const one = <Gear extends { id: string }>(all: readonly Gear[]) => (all.length === 1 ? all[0]?.id : undefined);
const blank = (): Setup => ({ device: one(shelf.devices), charger: undefined, plugInAt: today });

const setups = ref<Setup[]>([blank(), blank()]);
const grid = ref<PaperGrid>(emptyGrid());
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
const table = shallowRef<HTMLElement>();

function emptyGrid(): PaperGrid {
  const times = ['0', '5', '10', '15', '20', '30'];
  return { headings: ['', ''], times, cells: times.map(() => ['', '']) };
}

const { offer, end } = useDraft(
  'paper',
  () => ({ setups: setups.value, grid: grid.value }),
  (given) => {
    [setups.value, grid.value] = [given.setups, given.grid];
  },
  () => undefined,
);

const footage = computed<Footage | undefined>(() =>
  isClip.value ? { offset: parseClock(offset.value.trim()) ?? 0, speed: readDecimal(speed.value) || 1, cuts: [] } : undefined,
);
const read = computed(() => readColumns(grid.value, footage.value));
const faultAt = (row: number, column?: number) =>
  read.value.faults.find((fault) => fault.row === row && fault.column === column)?.says ?? '';
const startRead = computed(() => readStart(start.value));

/** What stands in a column, in a few words. */
function sumOf(column: number): string {
  const drafts = read.value.columns[column]?.drafts ?? [];
  const last = drafts.at(-1);
  if (!last) return 'nothing read yet';
  const levels = drafts.flatMap(({ draft }) => (draft.kind === 'reading' && draft.percent !== undefined ? [draft.percent] : []));
  const range = levels.length > 0 ? `${levels[0] ?? ''} → ${levels.at(-1) ?? ''} %, ` : '';
  return `${range}${drafts.length} read, to ${spell(last.seconds)}`;
}

/** The columns that hold anything. */
const filled = computed(() => setups.value.map((_, index) => index).filter((index) => (read.value.columns[index]?.drafts.length ?? 0) > 0));

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
  const nameless = filled.value.filter((index) => !setups.value[index]?.device || !setups.value[index].charger);
  if (nameless.length > 0) said.push(`Choose the device and the charger of ${nameless.map((index) => `column ${index + 1}`).join(', ')}.`);
  if (filled.value.some((index) => !Number.isFinite(new Date(setups.value[index]?.plugInAt ?? '').getTime())))
    said.push('Say when each was plugged in.');
  if (typeof startRead.value === 'object' && 'error' in startRead.value) said.push(startRead.value.error);
  if (study.value === NEW && !studyName.value.trim()) said.push('Give the study a name.');
  if (isClip.value && (parseClock(offset.value.trim()) === undefined || !(readDecimal(speed.value) > 0)))
    said.push('Write the time of the clip at plug-in, as 0:12, and a speed above 0.');
  return said;
});

/** A grid off the clipboard takes the place of what stands there; a single figure goes where it was pasted. */
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text') ?? '';
  if (!/[\n\t]/.test(text.trim())) return;
  event.preventDefault();
  const found = readGrid(text);
  const count = Math.max(1, found.headings.length);
  grid.value = found;
  setups.value = Array.from({ length: count }, (_, index) => {
    const named = gearNamedIn(found.headings[index] ?? '', shelf.devices, shelf.chargers);
    const before = setups.value[index] ?? blank();
    return { ...before, device: named.device ?? before.device, charger: named.charger ?? before.charger };
  });
}

function addRow(): void {
  const [before = 0, last = 0] = grid.value.times.slice(-2).map((text) => readTime(text) ?? 0);
  const step = Math.max(60, last - before);
  grid.value.times.push(String(Math.round((last + step) / 60)));
  grid.value.cells.push(setups.value.map(() => ''));
}

function addSetup(): void {
  setups.value.push({ ...blank(), ...(setups.value.at(-1) && { device: setups.value.at(-1)?.device }) });
  grid.value.headings.push('');
  for (const row of grid.value.cells) row.push('');
}

function removeSetup(column: number): void {
  setups.value.splice(column, 1);
  grid.value.headings.splice(column, 1);
  for (const row of grid.value.cells) row.splice(column, 1);
}

/** Enter and the arrows go up and down a column, as on paper. */
function walk(event: KeyboardEvent, row: number, column: number): void {
  const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
  if (by === 0) return;
  event.preventDefault();
  if (event.key === 'Enter' && row === grid.value.times.length - 1) addRow();
  void nextTick(() => table.value?.querySelector<HTMLInputElement>(`[data-cell="${row + by}/${column}"]`)?.focus());
}

const nameOf = (column: number) => {
  const { device, charger } = setups.value[column] ?? {};
  const names = [shelf.devices.find(({ id }) => id === device)?.name, shelf.chargers.find(({ id }) => id === charger)?.name];
  return names.filter(Boolean).join(' on ') || `column ${column + 1}`;
};

/** The study that the columns belong to: one there is, or one that is made of them. */
function studyOf(): Study | undefined {
  if (study.value !== NEW) return studies.all.find(({ id }) => id === study.value);
  const all = filled.value.flatMap((index) => setups.value[index] ?? []);
  const school = methods.byId(method.value);
  const [first] = filled.value;
  const cadence = first === undefined ? undefined : cadenceOf(grid.value, read.value.columns[first] ?? { drafts: [] }, footage.value);
  const level = typeof startRead.value === 'object' && 'percent' in startRead.value ? startRead.value.percent : 0;
  return studySchema.validateSync({
    schema: SCHEMA,
    id: nanoid(10),
    name: studyName.value.trim(),
    question: studyName.value.trim(),
    method: school?.id ?? 'fixed-interval',
    cadence: cadence ?? { kind: 'fixed', every: 300 },
    startLevel: level,
    devices: [...new Set(all.flatMap(({ device }) => device ?? []))],
    chargers: [...new Set(all.flatMap(({ charger }) => charger ?? []))],
    cables: [],
    meters: [],
    states: [state.value],
    crossed: [],
    repeats: 1,
    order: 'as listed',
    seed: 1,
    races: false,
    conditions: CONDITIONS.map((each) => ({ ...each })),
  }) as Study;
}

/** What was so of every run: its state, and what else was written down of it. */
function conditionsOf(of: Study | undefined): Condition[] {
  const own = [
    { name: REST, value: rest.value.trim() },
    { name: AMBIENT, value: keptAmbient(ambient.value) },
  ].filter(({ value }) => value);
  const kept = (of && study.value !== NEW ? of.conditions : []).filter(({ name }) => !own.some((each) => each.name === name));
  return [{ name: 'state', value: state.value }, ...own, ...kept];
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
    await logbook.importRuns(runs);
    end();
    const ids = runs.map(({ header }) => header.id);
    await router.push(ids.length === 1 ? `/curve/${ids[0] ?? ''}` : { path: '/compare', query: { runs: ids.join('.') } });
  } catch (error) {
    trouble.value = troubleOf(error, 'Nothing was filed.');
  } finally {
    busy.value = false;
  }
}

function headerOf(column: number, of: Study | undefined, methodOf: Pick<Header, 'method' | 'rule'>) {
  const { device: deviceId, charger: chargerId, plugInAt = '' } = setups.value[column] ?? {};
  const device = shelf.devices.find(({ id }) => id === deviceId);
  const charger = shelf.chargers.find(({ id }) => id === chargerId);
  if (!device || !charger) throw new Error(`Column ${column + 1} has no device or no charger.`);
  const cell = of && cellsOf(of).find((each) => each.device === device.id && each.charger === charger.id && each.state === state.value);
  const cadence = cadenceOf(grid.value, read.value.columns[column] ?? { drafts: [] }, footage.value);
  return {
    device,
    charger,
    plugInAt: new Date(plugInAt).getTime(),
    ...(cadence && { cadence }),
    ...methodOf,
    ...(cell && of && { study: { id: of.id, cell: cell.key } }),
    ...(footage.value && { footage: footage.value }),
    conditions: conditionsOf(of),
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
      <p v-if="trouble" class="due" role="alert">{{ trouble }}</p>
      <p v-else-if="tried && lacks.length > 0" class="due" role="alert">{{ lacks.join(' ') }}</p>
    </header>
    <div v-if="!shelf.isStocked" class="first-step">
      <h2>The shelf is not ready</h2>
      <p>A run needs a device and a charger. Put both on the shelf first.</p>
      <v-btn to="/bench" variant="flat" color="primary">Go to the bench</v-btn>
    </div>
    <form v-else class="body" novalidate @submit.prevent="fileRuns">
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
        Paste from a spreadsheet into any cell, or type. Times as 10, 14:25 or 1 h 30; in a cell what the display showed, as 42, 42 26.1w,
        80!, dead or light out. Enter goes down.
      </p>
      <div ref="table" class="scroll" tabindex="0" role="region" aria-label="The paper" @paste="paste">
        <table aria-describedby="paper-help">
          <thead>
            <tr>
              <th scope="col">Time, min</th>
              <th v-for="(setup, column) in setups" :key="column" scope="col" class="setup">
                <GearField v-model="setup.device" of="device" label="Device" density="compact" hide-details>
                  <template #label><FieldName name="Device" :said="` of column ${column + 1}`" /></template>
                </GearField>
                <GearField v-model="setup.charger" of="charger" label="Charger" density="compact" hide-details>
                  <template #label><FieldName name="Charger" :said="` of column ${column + 1}`" /></template>
                </GearField>
                <DateField v-model="setup.plugInAt" type="datetime-local" label="Plugged in" density="compact" hide-details>
                  <template #label><FieldName name="Plugged in" :said="`, column ${column + 1}`" /></template>
                </DateField>
              </th>
              <td>
                <v-btn v-if="setups.length < MOST_PAPER.columns" variant="text" @click="addSetup">Add a setup</v-btn>
              </td>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(_, row) in grid.times" :key="row">
              <th scope="row">
                <input
                  v-model="grid.times[row]"
                  class="figures"
                  :data-cell="`${row}/-1`"
                  :aria-label="`Time of row ${row + 1}`"
                  :aria-invalid="faultAt(row) !== ''"
                  :title="faultAt(row)"
                  @keydown="walk($event, row, -1)"
                />
                <small v-if="faultAt(row)" class="due">{{ faultAt(row) }}</small>
              </th>
              <td v-for="(__, column) in setups" :key="column">
                <input
                  v-if="grid.cells[row]"
                  v-model="grid.cells[row][column]"
                  class="figures"
                  :data-cell="`${row}/${column}`"
                  :aria-label="`${nameOf(column)} at ${grid.times[row] || '?'}`"
                  :aria-invalid="faultAt(row, column) !== ''"
                  @keydown="walk($event, row, column)"
                />
                <small v-if="faultAt(row, column)" class="due">{{ faultAt(row, column) }}</small>
              </td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <th scope="row">
                <v-btn v-if="grid.times.length < MOST_PAPER.rows" variant="text" size="small" @click="addRow">Add a row</v-btn>
              </th>
              <td v-for="(__, column) in setups" :key="column">
                <small class="soft">{{ sumOf(column) }}</small>
                <v-btn
                  v-if="setups.length > 1"
                  variant="text"
                  size="small"
                  :aria-label="`Remove ${nameOf(column)}, column ${column + 1}`"
                  @click="removeSetup(column)"
                  >Remove</v-btn
                >
              </td>
            </tr>
          </tfoot>
        </table>
      </div>
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

th,
td {
  padding: 0.2rem 0.5rem;
  text-align: start;
  vertical-align: top;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

thead th {
  padding-top: 0.6rem;
  vertical-align: bottom;
  font-weight: 600;
}

.setup {
  min-width: 13.5rem;
}

.setup > * {
  margin-bottom: 0.4rem;
}

th:first-child {
  width: 7rem;
}

input.figures {
  width: 100%;
  min-width: 5rem;
  padding: 0.3rem 0.4rem;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

input.figures:focus-visible {
  outline: 2px solid rgb(var(--v-theme-due));
}

input.figures[aria-invalid='true'] {
  border-bottom: 2px solid rgb(var(--v-theme-due));
}

small {
  display: block;
  max-width: 16rem;
}

@media (max-width: 640px) {
  .more {
    grid-column: auto;
  }
}
</style>
