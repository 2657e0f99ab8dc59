<script setup lang="ts">
import { computed } from 'vue';
import { gathered, loadsOf, notSeenSays, padsOf, type Load } from '@core/compare';
import { ruleOf, stalls } from '@core/curve';
import { TRIAL_STATES, type TrialState } from '@core/ink';
import { fixed, spell } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import { vCards } from '../kit/vCards';
import type { Beside } from '../workers/opened';

/** What spot checks, load tests and pads came to, over many sittings and devices. */
const props = defineProps<{ opened: Beside[] }>();

const sittings = computed(() => props.opened.filter(({ run }) => run.trials.length > 0).map(({ run }) => run));
const groups = computed(() => gathered(sittings.value));
const notSeen = computed(() => notSeenSays(groups.value.flatMap(({ rows }) => rows.map(({ row }) => row))));
/** States of the device that anything was tried in. */
const states = computed(() => TRIAL_STATES.filter((state) => groups.value.some(({ rows }) => rows.some(({ row }) => row[state]))));
const STATES: Readonly<Record<TrialState, string>> = { awake: 'Awake', asleep: 'Asleep', off: 'Off' };
const rangeSays = (range: { low: number; high: number } | undefined) =>
  !range ? 'no watts read' : range.low === range.high ? `${fixed(range.low, 1)} W` : `${fixed(range.low, 1)}–${fixed(range.high, 1)} W`;

const loads = computed(() => loadsOf(props.opened));
const devices = computed(() => new Set(loads.value.map(({ device }) => device)).size);
const watts = (value: number | undefined) => (value === undefined ? '–' : fixed(value, 1));
const BATTERY: Readonly<Record<Load['battery'], string>> = { charges: 'charges', holds: 'holds', drains: 'drains', unknown: 'not read' };
const scoresOf = ({ scores }: Load) =>
  scores.map(
    ({ name, value, unit, place, isShared }) =>
      `${place}${isShared ? '=' : ''} ${name} ${fixed(value, value < 100 ? 1 : 0)}${unit ? ` ${unit}` : ''}`,
  );

const pads = computed(() =>
  padsOf(
    sittings.value,
    props.opened.map((each) => ({ ...each, stalls: stalls(each.percent, ruleOf(each.run).stall) })),
  ),
);
</script>

<template>
  <section v-if="groups.length > 0" class="gathered" aria-labelledby="works-title">
    <h2 id="works-title">What works with what</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="What works with what, by rating" data-copied>
      <CopyButton name="what works with what" is-row />
      <table v-cards class="plain-table">
        <thead>
          <tr>
            <th scope="col">Source</th>
            <th scope="col">Device</th>
            <th v-for="state in states" :key="state" scope="col">{{ STATES[state] }}</th>
          </tr>
        </thead>
        <tbody v-for="group in groups" :key="group.watts ?? 0">
          <tr class="rating">
            <th :colspan="2 + states.length" scope="rowgroup">
              {{ group.watts === undefined ? 'No rating stated' : `Rated ${fixed(group.watts)} W` }}
              <small class="soft"
                >{{ group.rows.length === 1 ? '1 source' : `${group.rows.length} sources` }} · {{ rangeSays(group.range) }}</small
              >
            </th>
          </tr>
          <tr v-for="{ device, run, row } in group.rows" :key="`${run} ${row.key}`">
            <th scope="row">
              <RouterLink :to="`/runs/${run}`">{{ row.name }}</RouterLink><span v-if="row.through" class="soft"> · {{ row.through }}</span>
            </th>
            <td>{{ device }}</td>
            <td v-for="state in states" :key="state" :class="{ pencil: row[state] && !row[state].isSure }">
              {{ row[state]?.says ?? '–'
              }}<small v-if="row[state]?.watts !== undefined" class="figures"> {{ watts(row[state].watts) }} W</small>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="notSeen" class="soft">{{ notSeen }}</p>
  </section>
  <section v-if="loads.length > 0" class="gathered" aria-labelledby="load-title">
    <h2 id="load-title">Under load</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Workloads by source" data-copied>
      <CopyButton name="the workloads" is-row />
      <table v-cards class="plain-table">
        <thead>
          <tr>
            <th scope="col">Workload</th>
            <th v-if="devices > 1" scope="col">Device</th>
            <th scope="col">Source</th>
            <th scope="col">In, W</th>
            <th scope="col">Battery, W</th>
            <th scope="col">Used, W</th>
            <th scope="col">Battery</th>
            <th scope="col">For one piece of work</th>
            <th scope="col">Scores, tied within 3 %</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="load in loads" :key="load.key">
            <th scope="row">
              {{ load.name }}<small v-if="load.runs.length > 1" class="soft"> · mean of {{ load.runs.length }}</small>
            </th>
            <td v-if="devices > 1">{{ load.device }}</td>
            <td>{{ load.source }}</td>
            <td class="figures">{{ watts(load.inputWatts) }}</td>
            <td class="figures">{{ watts(load.batteryWatts) }}</td>
            <td class="figures">{{ watts(load.usedWatts) }}</td>
            <td>{{ BATTERY[load.battery] }}</td>
            <td class="figures">
              {{ load.seconds === undefined ? '–' : spell(load.seconds)
              }}<template v-if="load.wattHours !== undefined">, {{ fixed(load.wattHours, 2) }} Wh</template>
            </td>
            <td>
              <span v-for="score in scoresOf(load)" :key="score" class="score">{{ score }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
  <section v-if="pads.length > 0" class="gathered" aria-labelledby="pads-title">
    <h2 id="pads-title">Pads</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Pads by device" data-copied>
      <CopyButton name="the pads" is-row />
      <table v-cards class="plain-table">
        <thead>
          <tr>
            <th scope="col">Pad</th>
            <th scope="col">Device</th>
            <th scope="col">Draws</th>
            <th scope="col">Gives out</th>
            <th scope="col">Came to</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(pad, index) in pads" :key="index">
            <th scope="row">
              <RouterLink :to="`/runs/${pad.run}`">{{ pad.pad }}</RouterLink>
            </th>
            <td>{{ pad.device }}</td>
            <td class="figures">{{ pad.watts === undefined ? '–' : `${watts(pad.watts)} W` }}</td>
            <td class="figures" :class="{ pencil: pad.efficiency?.isAssumed }">
              {{ pad.efficiency ? `${fixed(pad.efficiency.share * 100)} %${pad.efficiency.isAssumed ? ', its output assumed' : ''}` : '–' }}
            </td>
            <td>
              <template v-if="pad.full !== undefined">full at {{ spell(pad.full) }}</template>
              <template v-else-if="pad.stalled"
                >{{ pad.stalled.isStall ? 'stalled at' : 'ended at' }} {{ fixed(pad.stalled.level) }} %</template
              >
              <template v-else>–</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.gathered {
  padding: 0.9rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

h2 {
  font-size: 1.05rem;
}

.rating th {
  padding-top: 0.8rem;
  font-weight: 700;
}

.pencil {
  color: rgb(var(--v-theme-pencil));
  font-style: italic;
}

.score {
  display: block;
  white-space: nowrap;
}
</style>
