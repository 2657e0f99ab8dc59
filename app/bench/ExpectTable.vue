<script setup lang="ts">
import { type Expectation, type Limit } from '@core/power';
import { fixed } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';

/** Devices × chargers: expected watts, each with its limit. A rule over a figure is a ceiling: the device takes no more. */
defineProps<{ rows: Expectation[][]; chosen: { device: string; charger: string } }>();
defineEmits<{ choose: [device: string, charger: string] }>();

const LIMITS: Readonly<Record<Limit, string>> = {
  device: 'device',
  charger: 'charger',
  feed: 'what feeds it',
  cable: 'cable',
  standard: 'standard',
  mismatch: 'falls back',
};

function shown({ negotiated, portName }: Expectation): { figure: string; under: string; port?: string | undefined } {
  const { outcome, watts, limit } = negotiated;
  if (outcome === 'not known') return { figure: '?', under: 'watts not written down' };
  if (outcome === 'does not fit') return { figure: '—', under: 'no fit' };
  if (outcome === 'connected, will not charge') return { figure: '0 W', under: 'will not charge' };
  const under = outcome === 'charges only asleep' ? 'only asleep' : LIMITS[limit];
  return { figure: `${fixed(watts, watts < 10 ? 1 : 0)} W`, under, port: portName };
}
const isCeiling = ({ negotiated }: Expectation) => negotiated.limit === 'device' && negotiated.outcome === 'charges';
const isTrouble = ({ negotiated }: Expectation) => !['charges', 'does not fit', 'not known'].includes(negotiated.outcome);
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Expected watts" data-copied>
    <CopyButton name="the expected watts" is-row />
    <table>
      <caption class="unseen-text">
        Watts that each device is expected to get of each charger, and what limits it
      </caption>
      <thead>
        <tr>
          <td></td>
          <th v-for="{ negotiated } in rows[0]" :key="negotiated.charger.id" scope="col">{{ negotiated.charger.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row[0]?.negotiated.device.id">
          <th scope="row">{{ row[0]?.negotiated.device.name }}</th>
          <td v-for="each in row" :key="each.negotiated.charger.id">
            <button
              type="button"
              :class="{ ceiling: isCeiling(each), trouble: isTrouble(each), none: each.negotiated.outcome === 'does not fit' }"
              :aria-pressed="each.negotiated.device.id === chosen.device && each.negotiated.charger.id === chosen.charger"
              :aria-label="`${each.negotiated.device.name} on ${each.negotiated.charger.name}: ${shown(each).figure}, ${shown(each).under}`"
              @click="$emit('choose', each.negotiated.device.id, each.negotiated.charger.id)"
            >
              <span class="figures">{{ shown(each).figure }}</span>
              <small>{{ shown(each).under }}</small>
              <small v-if="shown(each).port">port {{ shown(each).port }}</small>
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="key soft"><span class="figures">25 W</span> with a line over it: the device takes no more from any charger.</p>
  </div>
</template>

<style scoped>
thead th {
  padding: 0.7rem 0.5rem;
  font-size: 0.85rem;
  text-align: end;
  color: rgb(var(--v-theme-soft));
  border-bottom: 1px solid rgb(var(--v-theme-line));
  overflow-wrap: anywhere;
}

thead td {
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

tbody th {
  position: sticky;
  left: 0;
  z-index: 1;
  min-width: 9rem;
  max-width: 12rem;
  padding: 0.5rem 0.75rem 0.5rem 1.5rem;
  text-align: start;
  background: rgb(var(--v-theme-paper));
  overflow-wrap: anywhere;
}

tbody tr > * {
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

tbody td {
  padding: 0.3rem 0.15rem;
}

button {
  display: grid;
  justify-items: end;
  width: 100%;
  min-width: 4.6rem;
  padding: 0.35rem 0.4rem;
  font: inherit;
  color: inherit;
  text-align: end;
  background: none;
  border: 1px solid transparent;
  border-radius: 4px;
  cursor: pointer;
}

button:hover {
  border-color: rgb(var(--v-theme-line));
}

button[aria-pressed='true'] {
  background: rgb(var(--v-theme-desk));
  border-color: rgb(var(--v-theme-line));
}

.figures {
  font-size: 1.05rem;
  border-top: 2px solid transparent;
}

.key {
  padding: 0.6rem 1.5rem 0;
  font-size: 0.85rem;
}

.key .figures {
  font-size: 0.9rem;
  border-top-color: currentcolor;
}

.ceiling .figures {
  border-top-color: currentcolor;
}

.trouble {
  color: rgb(var(--v-theme-due));
}

.none {
  color: rgb(var(--v-theme-soft));
}

small {
  font-size: 0.76rem;
}

button:not(.trouble) small {
  color: rgb(var(--v-theme-soft));
}
</style>
