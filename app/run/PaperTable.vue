<script setup lang="ts">
import { computed, nextTick, ref, shallowRef } from 'vue';
import {
  MOST_PAPER,
  restLikeFirst,
  withCell,
  withColumn,
  withFact,
  withoutColumn,
  withoutRow,
  withRow,
  withRowAsFact,
  type PasteAt,
} from '@core/exchange';
import { AMBIENT, REST } from '@core/method';
import { STATES } from '@core/plan';
import { shownUnit, spell, upperFirst } from '@core/quantity';
import { typedDate } from '../kit/dates';
import { afterPaint } from '../kit/afterPaint';
import { useShelf } from '../logbook/shelf';
import PaperRow from './PaperRow.vue';
import type { usePaperSheet } from './paperSheet';

/** The paper itself: what each column is, then times down and readings across, in the order in which a spreadsheet has them. */
const props = defineProps<{ sheet: ReturnType<typeof usePaperSheet>; isTried: boolean }>();

const shelf = useShelf();
const { grid, columns, said: given, facts, setups, read, faultsByRow, paste: take } = props.sheet;
const table = shallowRef<HTMLElement>();

/** So many rows are on the screen at a time. */
const PAGE = 50;
const page = ref(1);
const pages = computed(() => Math.max(1, Math.ceil(grid.value.times.length / PAGE)));
const first = computed(() => (Math.min(page.value, pages.value) - 1) * PAGE);
const rows = computed(() => Array.from({ length: Math.min(PAGE, grid.value.times.length - first.value) }, (_, at) => first.value + at));

const names = computed(() =>
  setups.value.map((_, column) => {
    const said = ['device', 'charger'].map((fact) => given.value[fact]?.[column]?.trim() ?? '');
    return said.filter(Boolean).join(' on ') || `column ${column + 1}`;
  }),
);

/** What a row of facts is called. */
const labelOf = (fact: string) =>
  fact === AMBIENT ? `Room, ${shownUnit('°C')}` : upperFirst(fact === REST ? 'minutes left off before' : fact);
/** From which names a fact is chosen; others can be typed. */
const listOf = (fact: string): readonly string[] => {
  if (fact === 'device') return shelf.devices.map(({ name }) => name);
  if (fact === 'charger' || fact === 'fed by') return shelf.chargers.map(({ name }) => name);
  if (fact === 'cable') return shelf.cables.map(({ name }) => name);
  return fact === 'state' ? STATES : [];
};
const EXAMPLE = computed(() => typedDate('2026-11-26T14:05', 'datetime-local'));

/** What of a fact in a column is amiss; what was not filled in yet only once it was tried. */
function amiss(fact: string, column: number): string {
  const setup = setups.value[column];
  const said = grid.value.facts[fact]?.[column]?.trim() ?? '';
  const isRead = (read.value.columns[column]?.drafts.length ?? 0) > 0;
  const fault = setup?.faults.find((each) => each.fact === fact)?.says;
  if (fault) return said !== '' || (props.isTried && isRead) ? fault : '';
  return setup?.unknown.some(({ name }) => name === said) && ['device', 'charger', 'cable', 'fed by'].includes(fact)
    ? 'not on the shelf'
    : '';
}

/** What stands in a column, in a few words. */
function sumOf(column: number): string {
  const drafts = read.value.columns[column]?.drafts ?? [];
  const last = drafts.at(-1);
  if (!last) return 'nothing read yet';
  const levels = drafts.flatMap(({ draft }) => (draft.kind === 'reading' && draft.percent !== undefined ? [draft.percent] : []));
  const range = levels.length > 0 ? `${levels[0] ?? ''} → ${levels.at(-1) ?? ''} %, ` : '';
  return `${range}${drafts.length} read, to ${spell(last.seconds)}`;
}

const typed = (event: Event) => (event.target as HTMLInputElement).value;
const write = (row: number, column: number, text: string) => (grid.value = withCell(grid.value, row, column, text));
const say = (fact: string, column: number, text: string) => (grid.value = withFact(grid.value, fact, column, text));

/** Where in the paper the keyboard is. */
function pasteTarget(target: EventTarget | null): PasteAt {
  const { cell, fact } = target instanceof HTMLElement ? target.dataset : {};
  const [one = '0', column = '-1'] = (cell ?? fact ?? '').split('/');
  return fact === undefined ? { row: Number(one), column: Number(column) } : { fact: one, column: Number(column) };
}

/** A block that takes a while is said first: so many characters. */
const LONG = 50_000;
const coming = ref<string>();
function paste(event: ClipboardEvent): void {
  const [text, at] = [event.clipboardData?.getData('text') ?? '', pasteTarget(event.target)];
  if (text.length < LONG || !text.includes('\n')) {
    if (take(text, at)) event.preventDefault();
    return;
  }
  event.preventDefault();
  coming.value = `Reading ${text.split('\n').length} rows`;
  afterPaint(() => {
    take(text, at);
    afterPaint(() => (coming.value = undefined));
  });
}

/** Enter and the arrows go up and down a column, as on paper. */
function walk(event: KeyboardEvent, row: number, column: number): void {
  const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
  if (by === 0) return;
  event.preventDefault();
  if (event.key === 'Enter' && row === grid.value.times.length - 1 && row + 1 < MOST_PAPER.rows) grid.value = withRow(grid.value);
  page.value = Math.min(pages.value, Math.max(1, Math.floor((row + by) / PAGE) + 1));
  void nextTick(() => table.value?.querySelector<HTMLInputElement>(`[data-cell="${row + by}/${column}"]`)?.focus());
}

function addRow(): void {
  grid.value = withRow(grid.value);
  page.value = pages.value;
}
</script>

<template>
  <p v-if="coming" role="status">{{ coming }}</p>
  <div ref="table" class="scroll" tabindex="0" role="region" aria-label="The paper" @paste="paste">
    <datalist v-for="fact in ['device', 'charger', 'cable', 'fed by', 'state']" :id="`paper-${fact.replace(' ', '-')}`" :key="fact">
      <option v-for="name in listOf(fact)" :key="name" :value="name" />
    </datalist>
    <table aria-describedby="paper-help">
      <thead>
        <tr>
          <th scope="col">Time, min</th>
          <th v-for="(name, column) in names" :key="column" scope="col" class="setup">
            <span class="soft">{{ column + 1 }}</span>
            <v-btn
              v-if="columns > 1"
              variant="text"
              size="small"
              :aria-label="`Remove ${name}, column ${column + 1}`"
              @click="grid = withoutColumn(grid, column)"
              >Remove</v-btn
            >
          </th>
          <td>
            <v-btn v-if="columns < MOST_PAPER.columns" variant="text" @click="grid = withColumn(grid)">Add a setup</v-btn>
          </td>
        </tr>
        <tr v-for="fact in facts" :key="fact">
          <th scope="row">
            {{ labelOf(fact) }}
            <v-btn
              v-if="columns > 1 && grid.facts[fact]?.[0] && names.some((_, column) => !grid.facts[fact]?.[column])"
              variant="text"
              size="small"
              :aria-label="`${labelOf(fact)} of the rest like column 1`"
              @click="grid = restLikeFirst(grid, fact)"
              >the rest like the first</v-btn
            >
          </th>
          <td v-for="(_, column) in names" :key="column">
            <input
              :value="grid.facts[fact]?.[column] ?? ''"
              :data-fact="`${fact}/${column}`"
              :list="listOf(fact).length > 0 ? `paper-${fact.replace(' ', '-')}` : undefined"
              :aria-label="`${labelOf(fact)} of column ${column + 1}`"
              :aria-invalid="amiss(fact, column) !== ''"
              :placeholder="fact === 'plugged in' ? EXAMPLE : ''"
              maxlength="80"
              @input="say(fact, column, typed($event))"
            />
            <small v-if="amiss(fact, column)" class="due">{{ amiss(fact, column) }}</small>
          </td>
        </tr>
      </thead>
      <tbody>
        <PaperRow
          v-for="row in rows"
          :key="row"
          :row="row"
          :time="grid.times[row] ?? ''"
          :cells="grid.cells[row] ?? []"
          :names="names"
          :faults="faultsByRow.get(row)"
          @write="(column, text) => write(row, column, text)"
          @walk="(event, column) => walk(event, row, column)"
          @leave-out="grid = withoutRow(grid, row)"
          @make-fact="grid = withRowAsFact(grid, row)"
        />
      </tbody>
      <tfoot>
        <tr>
          <th scope="row">
            <v-btn v-if="grid.times.length < MOST_PAPER.rows" variant="text" size="small" @click="addRow">Add a row</v-btn>
          </th>
          <td v-for="(_, column) in names" :key="column">
            <small class="soft">{{ sumOf(column) }}</small>
          </td>
        </tr>
      </tfoot>
    </table>
    <p v-if="pages > 1" class="pages">
      <v-pagination v-model="page" :length="pages" :total-visible="5" density="compact" aria-label="Pages of the paper" />
      <span class="soft">rows {{ first + 1 }} to {{ first + rows.length }} of {{ grid.times.length }}</span>
    </p>
  </div>
</template>

<style scoped>
:deep(th),
:deep(td) {
  padding: 0.2rem 0.5rem;
  text-align: start;
  vertical-align: top;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

thead th {
  font-weight: 600;
}

.setup {
  min-width: 11rem;
}

:deep(th:first-child) {
  position: sticky;
  left: 0;
  z-index: 1;
  min-width: 8rem;
  background: rgb(var(--v-theme-paper));
}

:deep(input) {
  width: 100%;
  min-width: 5rem;
  padding: 0.3rem 0.4rem;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1px solid rgb(var(--v-theme-field));
}

:deep(input:focus-visible) {
  outline: 2px solid rgb(var(--v-theme-due));
}

:deep(input[aria-invalid='true']) {
  border-bottom: 2px solid rgb(var(--v-theme-due));
}

:deep(small) {
  display: block;
  max-width: 16rem;
}

.pages {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
}
</style>
