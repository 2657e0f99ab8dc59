<script setup lang="ts">
import { computed, ref } from 'vue';
import { figureTable, sharesSay, workingOf, writeDifference, type Cell, type Measure, type MeasureColumn, type Row } from '@core/compare';
import CopyButton from '../kit/CopyButton.vue';
import { vCards } from '../kit/vCards';
import PenNib from '../strip/PenNib.vue';
import type { PictureText } from '../strip/picture';
import PictureButton from '../strip/PictureButton.vue';
import RankMark from './RankMark.vue';

/** The figures of setups side by side, or how they differ from the baseline: every figure with its margin, ties as ties, repeats as their mean. */
const props = defineProps<{
  rows: Row[];
  names: string[];
  pens: number[];
  baseline: number;
  measures: Measure[];
  /** The figures of each measure, a cell a setup. */
  cells: (readonly Cell[])[];
  /** What setups are set against each other by, where any has it; and how each stands to the baseline. */
  against: MeasureColumn | undefined;
  standings: { first: string; rest: string[] }[];
  /** Whether differences from the baseline are shown. */
  isDifference: boolean;
  /** What stands about a picture of them. */
  text: PictureText;
}>();

const sorted = ref<{ by: string; isUp: boolean }>();
/** By a column: setups without a figure come last, whichever way. */
const order = computed(() => {
  const all = props.rows.map((_, index) => index);
  const { value: chosen } = sorted;
  if (!chosen) return all;
  const direction = chosen.isUp ? 1 : -1;
  if (chosen.by === 'setup')
    return all.sort(
      (one, other) => direction * (props.names[one] ?? '').localeCompare(props.names[other] ?? '', undefined, { numeric: true }),
    );
  const column = props.cells[props.measures.findIndex(({ id }) => id === chosen.by)] ?? [];
  const valueOf = (index: number) => (column[index]?.mean?.isLeast === false ? column[index].mean.value : undefined);
  return all.sort((one, other) => {
    const [mine, theirs] = [valueOf(one), valueOf(other)];
    if (mine === undefined || theirs === undefined) return Number(mine === undefined) - Number(theirs === undefined);
    return direction * (mine - theirs);
  });
});
/** Once: the best on top, or names as people order them; again: the other way; once more: as they were chosen. */
function sortBy(by: string): void {
  const first = props.measures.find(({ id }) => id === by)?.better !== 'more';
  if (sorted.value?.by !== by) sorted.value = { by, isUp: first };
  else sorted.value = sorted.value.isUp === first ? { by, isUp: !first } : undefined;
}
const sortOf = (by: string) => (sorted.value?.by !== by ? 'none' : sorted.value.isUp ? 'ascending' : 'descending');

/** The figure whose working is shown: that of a column, or how a setup stands to the baseline. */
type Place = number | 'against';
const open = ref<{ measure: Place; row: number }>();
const isOpen = (measure: Place, row: number) => open.value?.measure === measure && open.value.row === row;
function toggle(measure: Place, row: number): void {
  open.value = isOpen(measure, row) ? undefined : { measure, row };
}
const working = computed(() => {
  const { value: at } = open;
  if (!at) return undefined;
  const isAgainst = at.measure === 'against';
  const { measure, cells } =
    (at.measure === 'against' ? props.against : { measure: props.measures[at.measure], cells: props.cells[at.measure] }) ?? {};
  if (!measure || !cells?.[at.row]) return undefined;
  return {
    title: `${measure.title}: ${props.names[at.row] ?? ''}${isAgainst ? ` against ${props.names[props.baseline] ?? ''}` : ''}`,
    each: cells[at.row]?.each ?? [],
    says: [...workingOf(cells, at.row, props.names, measure), ...(isAgainst ? [sharesSay(measure)] : [])],
  };
});

/** A cell of the table: what stands in it, and beneath; what its working is of, where it has one. */
interface Shown {
  at: Place;
  title: string;
  value: string | undefined;
  hasWorking: boolean;
  rest: readonly string[];
  place?: string | undefined;
  isBest?: boolean;
}
function standingOf(row: number): Shown {
  const { first, rest = [] } = props.standings[row] ?? {};
  const hasWorking = props.against !== undefined && row !== props.baseline;
  return { at: 'against', title: `against ${props.names[props.baseline] ?? ''}`, value: first, hasWorking, rest };
}
function figureOf(at: number, row: number): Shown {
  const [measure, column = []] = [props.measures[at], props.cells[at]];
  const [cell, zero] = [column[row], column[props.baseline]];
  const shown = props.isDifference && cell && zero && measure ? writeDifference(cell, zero, measure.unit) : cell;
  return {
    at,
    title: measure?.title ?? '',
    value: shown?.value,
    hasWorking: Boolean(shown?.value),
    rest: (shown?.range ?? '').split(' · ').filter(Boolean),
    place: props.isDifference ? undefined : cell?.place,
    isBest: !props.isDifference && Boolean(cell?.isBest),
  };
}
const taken = () => ({
  table: figureTable(`Figures, set against ${props.names[props.baseline] ?? ''}`, props.names, props.measures, props.cells, order.value),
});
const lines = computed(() =>
  order.value.map((index) => {
    const row = props.rows[index];
    return {
      index,
      key: row?.key ?? '',
      name: props.names[index] ?? '',
      pen: props.pens[index] ?? 0,
      runs: row?.runs.map(({ header }) => header.id) ?? [],
      start: typeof row?.goal !== 'number' ? '' : row.startLevel === undefined ? 'from ? %' : `from ${row.startLevel} %`,
      cells: [standingOf(index), ...props.measures.map((_, at) => figureOf(at, index))],
    };
  }),
);
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Figures side by side" data-copied>
    <CopyButton name="the figures" is-row v-bind="isDifference ? {} : { take: taken }">
      <PictureButton name="the figures" :text="text" />
    </CopyButton>
    <table v-cards>
      <caption class="unseen-text">
        Figures of the runs laid over each other, set against
        {{
          names[baseline]
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col" class="left" :aria-sort="sortOf('setup')"><button type="button" @click="sortBy('setup')">Setup</button></th>
          <th scope="col">
            <span class="against">Against {{ names[baseline] }}</span>
          </th>
          <th v-for="measure in measures" :key="measure.id" scope="col" :aria-sort="sortOf(measure.id)">
            <button type="button" :title="`Sort by ${measure.title}`" @click="sortBy(measure.id)">{{ measure.title }}</button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.key">
          <th scope="row" class="left">
            <span class="setup"
              ><PenNib :pen="line.pen" line /><RouterLink class="two-lines" :title="line.name" :to="`/runs/${line.runs[0]}`">{{
                line.name
              }}</RouterLink></span
            >
            <small class="soft"
              >{{ line.start
              }}<template v-if="line.runs.length > 1">
                · {{ line.runs.length }} runs:
                <template v-for="(id, index) in line.runs" :key="id"
                  >{{ index > 0 ? ', ' : '' }}<RouterLink :to="`/runs/${id}`">{{ index + 1 }}</RouterLink></template
                ></template
              ></small
            >
          </th>
          <td v-for="cell in line.cells" :key="cell.at" class="figures">
            <button
              v-if="cell.hasWorking"
              type="button"
              class="figure"
              :aria-expanded="isOpen(cell.at, line.index)"
              :title="`How ${line.name} came to this: ${cell.title}`"
              @click="toggle(cell.at, line.index)"
            >
              <RankMark v-if="cell.place" :place="cell.place" />
              <span :class="{ lead: cell.isBest }">{{ cell.value }}</span>
            </button>
            <span v-else>{{ cell.value ?? '—' }}</span>
            <small v-for="each in cell.rest" :key="each">{{ each }}</small>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <section v-if="working" class="working" aria-live="polite" :aria-label="`Working of ${working.title}`">
    <h2>{{ working.title }}</h2>
    <ul>
      <li v-for="(each, index) in working.each" :key="each.id">
        <RouterLink :to="`/runs/${each.id}`">Run {{ index + 1 }}</RouterLink
        >: {{ each.value ?? 'none' }}<template v-if="each.range">, {{ each.range }}</template
        ><template v-if="each.working">; {{ each.working.formula }}</template>
      </li>
      <li v-for="sentence in working.says" :key="sentence">{{ sentence }}</li>
    </ul>
    <v-btn variant="text" size="small" @click="open = undefined">Hide the working</v-btn>
  </section>
</template>

<style scoped>
table {
  border-collapse: separate;
  border-spacing: 0;
  font-size: 0.92rem;
}

th,
td {
  padding: 0.55rem 0.75rem;
  text-align: end;
  vertical-align: top;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

td {
  white-space: nowrap;
}

thead th {
  /* Room for two words: a heading of three lines makes the table begin far below. */
  min-width: 7rem;
  font-size: 0.8rem;
  font-weight: 600;
  color: rgb(var(--v-theme-soft));
  border-bottom-color: rgb(var(--v-theme-line));
}

/* A long name of the baseline does not push the figures out of sight. */
.against {
  display: inline-block;
  max-width: 14rem;
}

thead button {
  padding: 0;
  background: none;
  border: 0;
  font: inherit;
  color: inherit;
  text-align: inherit;
  cursor: pointer;
}

thead button:hover {
  text-decoration: underline;
}

th[aria-sort='ascending'] button::after {
  content: ' ▲';
}

th[aria-sort='descending'] button::after {
  content: ' ▼';
}

.left {
  padding-inline-start: 1.5rem;
  text-align: start;
  font-weight: 600;
  min-width: 11rem;
}

/* The pen and the name stay in view, however many columns there are. */
@media (min-width: 40.0625em) {
  .left {
    position: sticky;
    inset-inline-start: 0;
    z-index: 1;
    background: rgb(var(--v-theme-paper));
  }
}

/* On a phone its rows are cards: two figures beside each other, each under its heading. */
@media (max-width: 40em) {
  table.cards > tbody > tr {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 0.6rem 1rem;
    padding-inline: 1.5rem;
  }

  table.cards > tbody > tr > th {
    grid-column: 1 / -1;
    padding: 0;
  }

  table.cards > tbody > tr > td,
  table.cards > tbody > tr > td small {
    white-space: normal;
  }

  .figure {
    text-align: start;
  }

  table.cards > tbody > tr > td::before {
    display: block;
  }
}

.setup {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}

.setup a {
  text-decoration: none;
  overflow-wrap: anywhere;
}

.setup a:hover {
  text-decoration: underline;
}

small {
  display: block;
  font-size: 0.76rem;
  font-weight: 400;
  color: rgb(var(--v-theme-soft));
  white-space: nowrap;
}

.figure {
  padding: 0;
  background: none;
  border: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
}

.figure:hover {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}

.lead {
  font-weight: 700;
  border-bottom: 2px solid currentcolor;
}

.working {
  padding: 0.75rem 1.5rem 1rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
  font-size: 0.9rem;
}

.working h2 {
  font-size: 1rem;
}

.working ul {
  padding-inline-start: 1.2rem;
}
</style>
