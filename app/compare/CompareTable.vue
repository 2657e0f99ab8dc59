<script setup lang="ts">
import { computed } from 'vue';
import { type Row } from '@core/compare';
import { GAIN_TIMES, LEVELS, writeGain, writeMilestone } from '@core/curve';
import { writeRank } from '@core/margin';
import { fixed, nominal, signedShare, spell } from '@core/quantity';
import PenNib from '../strip/PenNib.vue';

/** The figures of runs side by side: every time with its bounds, every rate with its level, ties as ties. */
const props = defineProps<{ rows: Row[]; names: string[]; pens: number[]; baseline: string; level: number }>();

const unlike = computed(() => new Set(props.rows.map(({ run }) => run.header.device.id)).size > 1);

const lines = computed(() =>
  props.rows.map((row, index) => ({
    id: row.run.header.id,
    name: props.names[index] ?? '',
    pen: props.pens[index] ?? 0,
    start: row.startLevel === undefined ? 'from ? %' : `from ${row.startLevel} %`,
    gains: row.gains.map(({ found, rank }, at) => ({
      ...writeGain(found),
      rank: rank && writeRank(rank),
      energy: unlike.value && row.gainedWattHours[at] !== undefined ? `${fixed(row.gainedWattHours[at], 1)} Wh` : '',
    })),
    milestones: row.milestones.map(({ found, rank }) => ({
      ...writeMilestone(found),
      rank: rank && writeRank(rank),
      isBest: found.state === 'reached' && rank?.place === 1,
    })),
    standing: standing(row),
    peak: row.peak,
  })),
);

function standing({ standing: stands }: Row): { first: string; rest: string[] } {
  switch (stands.state) {
    case 'baseline':
      return { first: 'baseline', rest: [] };
    case 'no time':
      return { first: '—', rest: [`no times to ${stands.level} % to compare`] };
    case 'tie':
      return { first: 'a tie', rest: [`at this interval, to ${stands.level} %`] };
    case 'only this one':
      return { first: `over ${spell(stands.atLeast)} sooner`, rest: [`${props.baseline} never showed ${stands.level} %`] };
    case 'only the baseline':
      return { first: `over ${spell(stands.atLeast)} later`, rest: [`never showed ${stands.level} %`] };
    case 'told apart': {
      const sooner = stands.saved > 0;
      const to = `to ${stands.level} %`;
      return {
        first: `${spell(Math.abs(stands.saved))} ${sooner ? 'saved' : 'lost'}`,
        rest: [
          stands.share === undefined ? '' : `time ${signedShare(stands.share)} ${to}`,
          stands.rate === undefined ? '' : `rate ${signedShare(stands.rate)} ${to}`,
        ].filter(Boolean),
      };
    }
  }
}
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Figures side by side">
    <table>
      <caption class="unseen-text">
        Figures of the runs laid over each other, set against
        {{
          baseline
        }}
        at
        {{
          level
        }}
        %
      </caption>
      <thead>
        <tr>
          <th scope="col" class="left">Setup</th>
          <th v-for="seconds in GAIN_TIMES" :key="seconds" scope="col">Gained in {{ nominal(seconds) }}</th>
          <th v-for="each in LEVELS" :key="each" scope="col">Time to {{ each }} %</th>
          <th scope="col">Against {{ baseline }}, to {{ level }} %</th>
          <th scope="col">Peak power</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.id">
          <th scope="row" class="left">
            <span class="setup"
              ><PenNib :pen="line.pen" line /><RouterLink :to="`/curve/${line.id}`">{{ line.name }}</RouterLink></span
            >
            <small class="soft">{{ line.start }}</small>
          </th>
          <td v-for="(gain, index) in line.gains" :key="`gain${index}`" class="figures">
            <span v-if="gain.rank" class="rank" title="rank">{{ gain.rank }}</span> {{ gain.value ?? '—' }}
            <small>{{ gain.detail.split(' · ')[0] }}</small><small v-if="gain.energy">{{ gain.energy }}</small>
          </td>
          <td v-for="(time, index) in line.milestones" :key="`time${index}`" class="figures">
            <span v-if="time.rank" class="rank" title="rank">{{ time.rank }}</span>
            <strong :class="{ lead: time.isBest }">{{ time.value ?? '—' }}</strong>
            <small>{{ time.range }}</small>
          </td>
          <td class="figures">
            {{ line.standing.first }}<small v-for="each in line.standing.rest" :key="each">{{ each }}</small>
          </td>
          <td class="figures">
            <template v-if="line.peak"
              >{{ fixed(line.peak.watts, 1) }} W<small>{{ line.peak.kind }}</small></template
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
