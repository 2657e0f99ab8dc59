<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { portName, portsOf } from '@core/bench';
import { LEVELS } from '@core/curve';
import { explain, negotiate, type Expectation } from '@core/power';
import { nominal, spell, temperature } from '@core/quantity';
import { expectedCharge } from '@core/simulate';
import FigureField from '../kit/FigureField.vue';
import InkStrip from '../strip/InkStrip.vue';
import { expectedTrace } from '../strip/trace';

/** One pairing in pencil: what flows and why, the curve to expect, and when it should reach what. */
const props = defineProps<{ expectation: Expectation }>();

const from = ref<number | string>(2);
const awake = ref(false);
/** Other ports of the charger that are in use at the same time: shared, each gives less. */
const others = ref<number[]>([]);
const ports = computed(() =>
  portsOf(props.expectation.negotiated.charger)
    .map((port, value) => ({ value, title: portName(port, value) }))
    .filter(({ value }) => value !== props.expectation.port),
);
watch(
  () => props.expectation.negotiated.charger.id,
  () => (others.value = []),
);
const negotiated = computed(() => {
  const { port, negotiated: alone } = props.expectation;
  return others.value.length === 0 ? alone : negotiate({ ...alone, port, inUse: [port, ...others.value] });
});
const start = computed(() => {
  const level = Number(from.value);
  return from.value !== '' && level >= 0 && level < 100 ? level : undefined;
});
const expected = computed(() =>
  start.value === undefined ? undefined : expectedCharge(negotiated.value, start.value, { awake: awake.value }),
);
const name = computed(() => `${negotiated.value.device.name} on ${negotiated.value.charger.name}`);
const traces = computed(() => (expected.value ? [expectedTrace(name.value, name.value, 0, expected.value)] : []));
const HOUR = 3600;
const until = computed(() => Math.min(24 * HOUR, Math.max(HOUR, (expected.value?.length ?? 0) * 1.1)));
const times = computed(() =>
  LEVELS.filter((level) => level > (start.value ?? 0)).map((level) => {
    const seconds = expected.value?.reaches(level);
    return { level, time: seconds === undefined ? 'not within a day' : `about ${spell(Math.round(seconds / 60) * 60)}` };
  }),
);
const whyNot = computed(() => {
  if (start.value === undefined) return 'Write a level from 0 to 99 %.';
  if (negotiated.value.outcome === 'connected, will not charge') return 'Nothing to draw: it will not charge.';
  if (negotiated.value.outcome === 'not known') return 'Nothing to draw: neither its watts nor its label are written down.';
  if (negotiated.value.outcome === 'does not fit') return 'Nothing to draw: the two do not go together.';
  return `Nothing to draw: the battery of ${negotiated.value.device.name} is not on the shelf. Give its mAh and volts, or its Wh.`;
});
</script>

<template>
  <aside :aria-label="`${name}, in pencil`">
    <h2>{{ name }}</h2>
    <p>{{ explain(negotiated) }}</p>
    <div class="given">
      <FigureField v-model="from" name="From a level of" unit="%" density="compact" />
      <v-select v-if="ports.length > 0" v-model="others" :items="ports" label="Also in use" multiple density="compact" />
      <v-checkbox v-if="negotiated.device.awakeWatts !== undefined" v-model="awake" label="awake" />
    </div>
    <template v-if="expected">
      <div class="paper">
        <InkStrip :traces="traces" size="sheet" :until="until" :caption="`${name}, expected over ${nominal(expected.length)}`" />
      </div>
      <dl>
        <template v-for="{ level, time } in times" :key="level">
          <dt>{{ level }} %</dt>
          <dd class="figures">{{ time }}</dd>
        </template>
      </dl>
      <p class="soft">
        Pencil: worked out from the gear, at {{ temperature(22, 0) }}. What is not on the shelf is taken as usual for its kind. Log a run to
        know.
      </p>
    </template>
    <p v-else class="soft" role="status">{{ whyNot }}</p>
  </aside>
</template>

<style scoped>
aside {
  display: grid;
  gap: 0.75rem;
  align-content: start;
  padding: 1rem 1.25rem;
  border-inline-start: 1px solid rgb(var(--v-theme-line));
  min-width: 0;
}

.given {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
}

.given > .v-text-field,
.given > .v-select {
  flex: 1 1 8.5rem;
}

.paper {
  height: 19rem;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.25rem 1rem;
}

dd {
  text-align: end;
  color: rgb(var(--v-theme-pencil));
}

@media (max-width: 62.5em) {
  aside {
    border-inline-start: 0;
    border-top: 1px solid rgb(var(--v-theme-line));
  }
}
</style>
