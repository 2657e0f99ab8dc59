<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { deviceIn, meanings, ofDevice, type Mapping, type Peek } from '@core/exchange';
import { clipped } from '@core/quantity';
import { afterPaint } from '../kit/afterPaint';
import FieldName from '../kit/FieldName.vue';
import FigureField from '../kit/FigureField.vue';

/** What each column of a log holds: as it was guessed, with the reason, and as a person says, with its first values beneath. */
const props = defineProps<{ peek: Peek }>();
const mapping = defineModel<Mapping>({ required: true });

const SHOWN = 3;
/** Letters that are shown of a value: what it is of shows in its first words. */
const LONGEST = 24;
const CHOICES = meanings();
/** Meanings that are of a device: not its clock, and not words. */
const quantities = new Set(CHOICES.map(({ value }) => value).filter((value) => value.includes(':') && !value.startsWith('elapsed')));
const heading = computed(() => (mapping.value.headingRow === undefined ? [] : (props.peek.rows[mapping.value.headingRow] ?? [])));
const values = computed(() => {
  const from = (mapping.value.headingRow ?? -1) + 1;
  return props.peek.rows.slice(from, from + SHOWN);
});
const nameOf = (column: number) => heading.value[column]?.trim() || `column ${column + 1}`;
const why = (column: number) =>
  mapping.value.columns[column] === props.peek.mapping.columns[column] ? props.peek.why[column] : 'as you say';

/** Whether its columns are of several devices: each is then said to be of one. */
const isSeveral = ref(mapping.value.columns.some((each) => deviceIn(each)[1] !== undefined));
function say(column: number, what: string, of = deviceIn(mapping.value.columns[column] ?? '')[1]): void {
  const meaning = ofDevice(what, isSeveral.value ? of : undefined);
  mapping.value = { ...mapping.value, columns: mapping.value.columns.map((each, index) => (index === column ? meaning : each)) };
}

/** Rows that are drawn: a field with so many choices takes long to make, so the page is painted, and hears keys, before each. */
const drawn = ref(0);
function drawMore(): void {
  if (drawn.value >= mapping.value.columns.length) return;
  drawn.value += 1;
  afterPaint(drawMore);
}
watch(
  () => mapping.value.columns.length,
  () => {
    afterPaint(drawMore);
  },
  { immediate: true },
);

/** Another row heads the log: as many columns as it has. */
function head(typed: string): void {
  const row = Math.round(Number(typed)) - 1;
  if (typed.trim() === '' || Number.isNaN(row) || row >= props.peek.rows.length) return;
  const headingRow = row < 0 ? undefined : row;
  const width = (headingRow === undefined ? props.peek.rows.at(-1) : props.peek.rows[headingRow])?.length ?? 0;
  mapping.value = { headingRow, columns: Array.from({ length: width }, (_, column) => mapping.value.columns[column] ?? '') };
}
</script>

<template>
  <section class="mapping" aria-labelledby="mapping-title">
    <h3 id="mapping-title">What its columns hold</h3>
    <FigureField
      :model-value="(mapping.headingRow ?? -1) + 1"
      name="Headed by row"
      hint="0: it has no heading"
      persistent-hint
      density="compact"
      class="row"
      @update:model-value="head"
    />
    <v-checkbox v-model="isSeveral" label="It has columns of several devices" density="compact" hide-details />
    <div class="scroll" tabindex="0" role="region" aria-label="Columns of the log">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Column</th>
            <th scope="col">Holds</th>
            <th scope="col">First values</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(meaning, column) in mapping.columns.slice(0, drawn)" :key="column">
            <th scope="row">
              {{ nameOf(column) }}<small class="soft">{{ why(column) }}</small>
            </th>
            <td>
              <v-autocomplete
                :model-value="deviceIn(meaning)[0]"
                :items="CHOICES"
                density="compact"
                label="Holds"
                auto-select-first
                @update:model-value="(chosen: string | null) => say(column, chosen ?? '')"
              >
                <template #label><FieldName name="Holds" :said="`, ${nameOf(column)}`" /></template>
              </v-autocomplete>
              <v-text-field
                v-if="isSeveral && quantities.has(deviceIn(meaning)[0])"
                :model-value="deviceIn(meaning)[1] ?? ''"
                density="compact"
                maxlength="40"
                @update:model-value="(of: string) => say(column, deviceIn(meaning)[0], of.trim() || undefined)"
              >
                <template #label><FieldName name="Of" :said="`, ${nameOf(column)}`" /></template>
              </v-text-field>
            </td>
            <td class="figures">
              <span v-for="(row, index) in values" :key="index">{{ clipped(row[column] ?? '', LONGEST) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
h3 {
  font-size: 0.9rem;
}

.row {
  max-width: 11rem;
}

.scroll {
  max-height: 17rem;
  overflow-y: auto;
}

th small {
  display: block;
}

td:nth-child(2) {
  min-width: 11rem;
}

td.figures {
  font-size: 0.85rem;
  overflow-wrap: anywhere;
}

td.figures span + span::before {
  content: ' · ';
}

/* On a phone there is room for one. */
@media (max-width: 40em) {
  td.figures span + span {
    display: none;
  }
}
</style>
