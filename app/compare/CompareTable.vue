<script setup lang="ts">
import { computed } from 'vue';
import { goalSays, writeGained, writePeak, writeSampled, writeStanding, writeTimeTo, writeWhen, type Row } from '@core/compare';
import { GAIN_TIMES, LEVELS, PASSAGES, type Passage } from '@core/curve';
import { nominal } from '@core/quantity';
import { vCards } from '../kit/vCards';
import PenNib from '../strip/PenNib.vue';

/** The figures of setups side by side: every time with its bounds, every rate with its level, ties as ties; repeats as their mean. */
const props = defineProps<{ rows: Row[]; names: string[]; pens: number[]; baseline: string; level: number }>();

/** What came to pass beside levels, where any setup has it. */
const passages = computed(() =>
  (Object.keys(PASSAGES) as Passage['what'][]).filter((what) => props.rows.some((row) => (row.passages[what]?.each.length ?? 0) > 0)),
);

/** Columns in which any setup has something to compare. */
const columns = computed(() => ({
  gains: GAIN_TIMES.map((seconds, at) => ({ seconds, at })).filter(({ at }) => props.rows.some((row) => row.gains[at]?.mean)),
  levels: LEVELS.map((level, at) => ({ level, at })).filter(({ at }) =>
    props.rows.some((row) => row.milestones[at]?.each.some(({ state }) => state === 'reached')),
  ),
  sampled: props.rows.some(({ sampled }) => sampled),
}));

const goal = computed(() => goalSays(props.rows[0]?.goal ?? props.level));

const lines = computed(() =>
  props.rows.map((row, index) => ({
    name: props.names[index] ?? '',
    pen: props.pens[index] ?? 0,
    runs: row.runs.map(({ header }) => header.id),
    start: typeof row.goal !== 'number' ? '' : row.startLevel === undefined ? 'from ? %' : `from ${row.startLevel} %`,
    gains: columns.value.gains.flatMap(({ at }) => row.gains.slice(at, at + 1)).map((cell) => writeGained(cell, row.inWattHours)),
    milestones: [
      ...columns.value.levels.flatMap(({ at }) => row.milestones.slice(at, at + 1)).map(writeTimeTo),
      ...passages.value.map((what) => writeWhen(row.passages[what])),
    ],
    sampled: writeSampled(row, props.level),
    standing: writeStanding(row, props.baseline),
    peak: writePeak(row),
  })),
);
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Figures side by side">
    <table v-cards>
      <caption class="unseen-text">
        Figures of the runs laid over each other, set against
        {{
          baseline
        }},
        {{
          goal
        }}
      </caption>
      <thead>
        <tr>
          <th scope="col" class="left">Setup</th>
          <th v-for="{ seconds } in columns.gains" :key="seconds" scope="col">Gained in {{ nominal(seconds) }}</th>
          <th v-for="{ level: each } in columns.levels" :key="each" scope="col">Time to {{ each }} %</th>
          <th v-for="what in passages" :key="what" scope="col">{{ PASSAGES[what] }}</th>
          <th v-if="columns.sampled" scope="col">By energy sample</th>
          <th scope="col">Against {{ baseline }}, {{ goal }}</th>
          <th scope="col">Peak power</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.runs[0]">
          <th scope="row" class="left">
            <span class="setup"
              ><PenNib :pen="line.pen" line /><RouterLink class="two-lines" :title="line.name" :to="`/curve/${line.runs[0]}`">{{
                line.name
              }}</RouterLink></span
            >
            <small class="soft"
              >{{ line.start
              }}<template v-if="line.runs.length > 1">
                · {{ line.runs.length }} runs:
                <template v-for="(id, index) in line.runs" :key="id"
                  >{{ index > 0 ? ', ' : '' }}<RouterLink :to="`/curve/${id}`">{{ index + 1 }}</RouterLink></template
                ></template
              ></small
            >
          </th>
          <td v-for="(gain, index) in line.gains" :key="`gain${index}`" class="figures">
            <span v-if="gain.rank" class="rank" title="rank">{{ gain.rank }}</span>
            <span :class="{ lead: gain.isBest }">{{ gain.value ?? '—' }}</span>
            <small v-for="each in gain.range.split(' · ')" :key="each">{{ each }}</small>
          </td>
          <td v-for="(time, index) in line.milestones" :key="`time${index}`" class="figures">
            <span v-if="time.rank" class="rank" title="rank">{{ time.rank }}</span>
            <strong :class="{ lead: time.isBest }">{{ time.value ?? '—' }}</strong>
            <small>{{ time.range }}</small>
          </td>
          <td v-if="columns.sampled" class="figures">
            <span v-if="line.sampled.rank" class="rank" title="rank">{{ line.sampled.rank }}</span>
            <strong :class="{ lead: line.sampled.isBest }">{{ line.sampled.value ?? '—' }}</strong>
            <small>{{ line.sampled.range }}</small>
            <small v-if="line.sampled.projected" class="pencil">{{ line.sampled.projected }}</small>
          </td>
          <td class="figures">
            {{ line.standing.first }}<small v-for="each in line.standing.rest" :key="each">{{ each }}</small>
          </td>
          <td class="figures">
            <template v-if="line.peak"
              >{{ line.peak.value }}<small v-for="each in line.peak.range.split(' · ')" :key="each">{{ each }}</small></template
            >
            <template v-else>—</template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
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
  font-size: 0.8rem;
  font-weight: 600;
  color: rgb(var(--v-theme-soft));
  border-bottom-color: rgb(var(--v-theme-line));
}

.left {
  padding-inline-start: 1.5rem;
  text-align: start;
  font-weight: 600;
  min-width: 11rem;
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

.rank {
  color: rgb(var(--v-theme-soft));
  font-size: 0.85em;
  margin-inline-end: 0.45rem;
}

.lead {
  border-bottom: 2px solid currentcolor;
}
</style>
