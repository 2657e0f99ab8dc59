<script setup lang="ts">
import { fixed, type Expectation, type Limit } from '@core';

/** Devices × chargers: expected watts, each with its limit. A rule over a figure is a ceiling: the device takes no more. */
defineProps<{ rows: Expectation[][]; chosen: { device: string; charger: string } }>();
defineEmits<{ choose: [device: string, charger: string] }>();

const LIMITS: Readonly<Record<Limit, string>> = {
  device: 'device',
  charger: 'charger',
  cable: 'cable',
  standard: 'standard',
  mismatch: 'falls back',
};

function shown({ settled, portName }: Expectation): { figure: string; under: string; port?: string | undefined } {
  const { outcome, watts, limit } = settled;
  if (outcome === 'does not fit') return { figure: '—', under: 'no fit' };
  if (outcome === 'connected, will not charge') return { figure: '0 W', under: 'will not charge' };
  const under = outcome === 'charges only asleep' ? 'only asleep' : LIMITS[limit];
  return { figure: `${fixed(watts, watts < 10 ? 1 : 0)} W`, under, port: portName };
}
const isCeiling = ({ settled }: Expectation) => settled.limit === 'device' && settled.outcome === 'charges';
const isTrouble = ({ settled }: Expectation) => settled.outcome !== 'charges' && settled.outcome !== 'does not fit';
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Expected watts">
    <table>
      <caption class="unseen-text">
        Watts that each device is expected to get of each charger, and who is the limit
      </caption>
      <thead>
        <tr>
          <td></td>
          <th v-for="{ settled } in rows[0]" :key="settled.charger.id" scope="col">{{ settled.charger.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row[0]?.settled.device.id">
          <th scope="row">{{ row[0]?.settled.device.name }}</th>
          <td v-for="each in row" :key="each.settled.charger.id">
            <button
              type="button"
              :class="{ ceiling: isCeiling(each), trouble: isTrouble(each), none: each.settled.outcome === 'does not fit' }"
              :aria-pressed="each.settled.device.id === chosen.device && each.settled.charger.id === chosen.charger"
              :aria-label="`${each.settled.device.name} on ${each.settled.charger.name}: ${shown(each).figure}, ${shown(each).under}`"
              @click="$emit('choose', each.settled.device.id, each.settled.charger.id)"
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
