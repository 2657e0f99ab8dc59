<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue';
import type { Device } from '@core/bench';
import type { RunInk } from '@core/ink';
import { fixed, spell } from '@core/quantity';
import type { AgainstPencil, Fit } from '@core/run';
import CopyButton from '../kit/CopyButton.vue';
import WorkBar from '../kit/WorkBar.vue';
import { latestOf } from '../logbook/earlier';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';

/** What was measured beside what was expected; and the device fitted to its own runs, so that what is expected of it from now on is nearer. */
const props = defineProps<{ run: RunInk; rows: AgainstPencil[] }>();

const logbook = useLogbook();
const shelf = useShelf();
/** How many of its runs a device is fitted to: the latest. */
const MOST_RUNS = 6;
const device = computed<Device | undefined>(() => shelf.devices.find(({ id }) => id === props.run.header.device.id));
const ids = computed(() => latestOf(logbook.summaries, props.run.header.device.id, MOST_RUNS).map(({ id }) => id));
const fit = shallowRef<Fit>();
const share = ref<number>();
const said = ref('');
let work = new AbortController();
onBeforeUnmount(() => {
  work.abort();
});

const nameOf = ({ what }: AgainstPencil) => (typeof what === 'string' ? (what === 'peak' ? 'Peak' : 'Average') : `${what.level} %`);
const isTime = ({ what }: AgainstPencil) => typeof what !== 'string';
const figure = (row: AgainstPencil, value: number | undefined) =>
  value === undefined ? '—' : isTime(row) ? spell(value) : `${fixed(value, 1)} W`;
/** By how much it was more than expected. */
function off(row: AgainstPencil): string {
  const { measured, expected } = row;
  if (measured === undefined || expected === undefined || expected === 0) return '';
  const percent = Math.round(100 * (measured / expected - 1));
  return percent === 0 ? 'as expected' : `${percent > 0 ? '+' : '−'}${Math.abs(percent)} %`;
}

const isBetter = computed(() => fit.value !== undefined && (fit.value.heldOut ?? fit.value.after) < fit.value.before);
const fitSays = computed(() => {
  const { value: found } = fit;
  if (!found) return '';
  const runs = found.runs === 1 ? 'The levels of its one run' : `The levels of its ${found.runs} runs`;
  const others = found.heldOut === undefined ? '' : `; each foretold by the others, ${fixed(found.heldOut, 1)} %`;
  return `${runs} lie ${fixed(found.before, 1)} % off the pencil. Fitted, ${fixed(found.after, 1)} %${others}.`;
});

async function look(): Promise<void> {
  [fit.value, said.value, share.value] = [undefined, '', 0];
  work = new AbortController();
  const { signal } = work;
  try {
    const { fitRuns } = await import('../workers/fitRuns');
    const found = await fitRuns(ids.value, (done) => (share.value = done), signal);
    fit.value = found;
    if (!found)
      said.value = 'None of its runs tells how it charges: each was held, unplugged or swapped, or its battery is not on the shelf.';
  } catch (error) {
    said.value = troubleOf(error);
  } finally {
    share.value = undefined;
  }
}
function stop(): void {
  work.abort();
  share.value = undefined;
}

async function keep(fitted: Device['fitted']): Promise<void> {
  if (!device.value) return;
  try {
    await shelf.put({ shelf: 'device', gear: { ...device.value, fitted } });
    said.value = fitted ? 'What is expected of it goes by that from now on.' : 'What is expected of it goes by the shelf alone again.';
    fit.value = undefined;
  } catch (error) {
    said.value = troubleOf(error);
  }
}
</script>

<template>
  <section v-if="rows.length > 0" class="pencil" data-copied>
    <h2>Against the pencil</h2>
    <CopyButton name="the figures against the pencil" is-row />
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col"><span class="unseen-text">Figure</span></th>
          <th scope="col">Measured</th>
          <th scope="col">Expected</th>
          <th scope="col">Off</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="nameOf(row)" class="figures">
          <th scope="row">{{ nameOf(row) }}</th>
          <td>{{ figure(row, row.measured) }}</td>
          <td class="guess">{{ figure(row, row.expected) }}</td>
          <td>{{ off(row) }}</td>
        </tr>
      </tbody>
    </table>
    <template v-if="device && ids.length > 0">
      <WorkBar v-if="share !== undefined" does="Fitting the device to its runs" :at="{ done: share, of: 1 }">
        <v-btn size="small" @click="stop">Stop</v-btn>
      </WorkBar>
      <template v-else-if="fit">
        <p role="status">{{ fitSays }}</p>
        <v-btn v-if="isBetter" size="small" @click="keep({ ...fit.fitted, runs: fit.runs })">Expect by that</v-btn>
        <p v-else class="soft">That is no better: it is left as it is.</p>
      </template>
      <v-btn v-else size="small" variant="text" @click="look"
        >Fit {{ device.name }} to its {{ ids.length === 1 ? 'run' : `${ids.length} runs` }}</v-btn
      >
      <p v-if="device.fitted && share === undefined" class="soft">
        Fitted to {{ device.fitted.runs === 1 ? '1 run' : `${device.fitted.runs} runs` }}.
        <v-btn size="small" variant="text" @click="keep(undefined)">Undo the fit</v-btn>
      </p>
    </template>
    <p v-if="said" role="status">{{ said }}</p>
  </section>
</template>

<style scoped>
.pencil {
  padding-top: 0.75rem;
  font-size: 0.88rem;
}

h2 {
  padding-bottom: 0.2rem;
  font-size: 0.85rem;
}

td {
  text-align: end;
}

.guess {
  color: rgb(var(--v-theme-pencil));
  font-style: italic;
}
</style>
