<script setup lang="ts">
import { computed, ref } from 'vue';
import type { RouteLocationRaw } from 'vue-router';
import { progressOf, sourceOf, willNotCharge, type PlannedRun, type MatrixProgress, type Setup, type Study } from '@core/plan';

type Cell = PlannedRun['cell'];
import CopyButton from '../kit/CopyButton.vue';
import { vFocus } from '../kit/vFocus';
import { dayText } from '../kit/dates';

/** The matrix of a study: what is tested, begun, untested, and left out on purpose with its reason. */
const props = defineProps<{
  study: Study;
  setups: readonly Setup[];
  /** The runs that were made, each with the cell that it fills. */
  runs: readonly { id: string; cell: string }[];
  nameOf: (id: string | undefined) => string;
}>();
const emit = defineEmits<{ cross: [crossed: Study['crossed']] }>();

const progress = computed(() =>
  props.study.repeats >= 1
    ? progressOf(
        props.study,
        props.runs.map(({ cell }) => cell),
      )
    : [],
);
const columns = computed(() => [
  ...new Map(progress.value.map(({ cell }) => [`${cell.charger}@${cell.feed ?? ''}/${cell.cable ?? ''}`, cell])).values(),
]);
const rows = computed(() => {
  const names = [...new Set(progress.value.map(({ cell }) => `${cell.device}/${cell.state}`))];
  return names.map((name) => progress.value.filter(({ cell }) => `${cell.device}/${cell.state}` === name));
});
const asking = ref<MatrixProgress>();
const reason = ref('');

/** When the next run of a cell is laid, where the study has a calendar. */
const laid = computed(() => {
  const days = new Map<string, string>();
  for (const { run, at } of [...(props.study.calendar?.laid ?? [])].sort((one, other) => other.at - one.at))
    for (const key of run.split('+')) days.set(key.replace(/#\d+$/, ''), dayText(at));
  return days;
});
const WORDS: Readonly<Record<MatrixProgress['state'], string>> = {
  tested: 'tested',
  part: 'in progress',
  untested: 'untested',
  crossed: 'left out',
};
const wordOf = ({ cell, state }: MatrixProgress) => (state === 'untested' && laid.value.has(cell.key) ? 'planned' : WORDS[state]);
const columnName = (cell: Cell) => [sourceOf(cell, props.nameOf), cell.cable && props.nameOf(cell.cable)].filter(Boolean).join(', ');
const cellName = ({ cell }: MatrixProgress) => `${props.nameOf(cell.device)} on ${sourceOf(cell, props.nameOf)}`;
/** The runs of a cell: one opens by itself, several beside each other. */
function runsAt({ cell }: MatrixProgress): RouteLocationRaw {
  const ids = props.runs.filter((run) => run.cell === cell.key).map(({ id }) => id);
  return ids.length === 1 ? `/runs/${ids[0] ?? ''}` : { path: '/compare', query: { runs: ids.join('.') } };
}
const rowName = ([row]: MatrixProgress[]) =>
  props.study.states.length > 1 ? `${props.nameOf(row?.cell.device)}, ${row?.cell.state ?? ''}` : props.nameOf(row?.cell.device);
/** What is expected of a cell that will not do: what it comes to when the two are plugged together. */
const warnings = computed(
  () => new Map(props.setups.filter(willNotCharge).map(({ cell, negotiated }) => [cell.key, negotiated?.outcome ?? ''])),
);
function saidOf({ cell, done, of, state }: MatrixProgress): string {
  if (state === 'crossed') return cell.reason ?? '';
  const warning = warnings.value.get(cell.key);
  const day = state === 'tested' ? undefined : laid.value.get(cell.key);
  return [`${done} of ${of}`, day, warning].filter(Boolean).join(', ');
}

function press(each: MatrixProgress): void {
  if (each.state === 'crossed')
    emit(
      'cross',
      props.study.crossed.filter(({ cell }) => cell !== each.cell.key),
    );
  else [asking.value, reason.value] = [each, ''];
}

function cross(): void {
  if (!asking.value || !reason.value.trim()) return;
  emit('cross', [...props.study.crossed, { cell: asking.value.cell.key, reason: reason.value.trim() }]);
  asking.value = undefined;
}
</script>

<template>
  <section aria-labelledby="matrix-title">
    <h2 id="matrix-title">The matrix</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Matrix" data-copied>
      <CopyButton name="the matrix" is-row />
      <table>
        <thead>
          <tr>
            <td></td>
            <th v-for="column in columns" :key="column.key" scope="col">{{ columnName(column) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row[0]?.cell.key">
            <th scope="row">
              <span class="two-lines" :title="rowName(row)">{{ rowName(row) }}</span>
            </th>
            <td v-for="each in row" :key="each.cell.key">
              <template v-if="each.done > 0">
                <RouterLink
                  :to="runsAt(each)"
                  class="cell"
                  :class="each.state"
                  :aria-label="`${cellName(each)}, ${each.cell.state}: ${wordOf(each)}, ${saidOf(each)}: open ${each.done === 1 ? 'its run' : 'its runs'}`"
                  >{{ wordOf(each) }}<small>{{ saidOf(each) }}</small></RouterLink
                >
                <button
                  v-if="each.state === 'part'"
                  type="button"
                  class="out"
                  data-acts
                  :aria-label="`Leave out ${cellName(each)}`"
                  @click="press(each)"
                >
                  leave out the rest
                </button>
              </template>
              <button
                v-else
                type="button"
                class="cell"
                :class="[each.state, { idle: each.state !== 'crossed' && warnings.has(each.cell.key) }]"
                :aria-label="`${cellName(each)}, ${each.cell.state}: ${wordOf(each)}, ${saidOf(each)}`"
                :title="each.state === 'crossed' ? 'Include again' : 'Leave out'"
                @click="press(each)"
              >
                {{ wordOf(each) }}<small>{{ saidOf(each) }}</small>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <form v-if="asking" class="why" @submit.prevent="cross">
      <v-text-field v-model="reason" v-focus :label="`Why leave out ${cellName(asking)}?`" maxlength="120" density="compact" />
      <v-btn type="submit" :disabled="!reason.trim()" :title="reason.trim() ? '' : 'Say why, in a word or two'">Leave out</v-btn>
      <v-btn variant="text" @click="asking = undefined">Cancel</v-btn>
    </form>
  </section>
</template>

<style scoped>
section {
  padding: 1.1rem 1.5rem;
}

th,
td {
  padding: 0.3rem 0.4rem;
  font-size: 0.88rem;
  text-align: start;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  overflow-wrap: anywhere;
}

tbody th {
  min-width: 8rem;
}

.cell {
  display: grid;
  width: 100%;
  min-width: 4.6rem;
  padding: 0.3rem 0.4rem;
  font: inherit;
  color: inherit;
  text-align: start;
  background: none;
  border: 1px dashed rgb(var(--v-theme-line));
  border-radius: 4px;
  cursor: pointer;
}

a.cell {
  text-decoration: none;
}

.out {
  min-height: 1.6rem;
  padding: 0.1rem 0;
  font: inherit;
  font-size: 0.78rem;
  color: rgb(var(--v-theme-soft));
  background: none;
  border: 0;
  text-decoration: underline;
  cursor: pointer;
}

.cell.tested,
.cell.part {
  border-style: solid;
  border-color: rgb(var(--v-theme-ink));
}

.cell.tested {
  font-weight: 700;
}

.cell.crossed {
  color: rgb(var(--v-theme-soft));
  text-decoration: line-through;
}

.cell.idle small {
  color: rgb(var(--v-theme-due));
}

small {
  font-size: 0.78rem;
  font-weight: 400;
  color: rgb(var(--v-theme-soft));
}

.why {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  padding-top: 0.75rem;
}

.why > .v-text-field {
  flex: 1 1 18rem;
}
</style>
