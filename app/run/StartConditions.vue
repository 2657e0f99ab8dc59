<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { AMBIENT, keptAmbient, REST, shownCondition, type Condition } from '@core/method';
import { differing } from '@core/plan';
import { shownUnit } from '@core/quantity';
import FigureField from '../kit/FigureField.vue';
import { useLanes } from '../logbook/lanes';
import type { PlannedStart } from '../logbook/planned';
import { useLogbook } from '../logbook/runs';

/** The settings to confirm before plug-in: as the study plans them, with what differs from its earlier runs; without a study, rest and room. */
const props = defineProps<{ planned: PlannedStart | undefined }>();
const confirmed = defineModel<Condition[] | undefined>({ required: true });

const logbook = useLogbook();
const lanes = useLanes();
const differences = ref('');
const rest = ref('');
const ambient = ref('');

watch(
  () => props.planned,
  () => (differences.value = ''),
);
watch(
  [() => props.planned, differences, rest, ambient],
  ([planned]) => {
    const differed = differences.value.trim();
    const own = [
      { name: REST, value: rest.value.trim() },
      { name: AMBIENT, value: keptAmbient(ambient.value) },
    ].filter(({ value }) => value);
    const all = planned ? [...planned.conditions, ...(differed ? [{ name: 'differed', value: differed }] : [])] : own;
    confirmed.value = all.length > 0 ? all : undefined;
  },
  { immediate: true },
);

/** What differs from earlier runs of the study: said now, not at the end. */
const differs = ref<ReturnType<typeof differing>>([]);
watch(
  () => props.planned,
  async (plan) => {
    differs.value = [];
    if (!plan) return;
    const live = lanes.records.map(({ header }) => header).filter(({ study }) => study && study.id === plan.study?.id);
    const filed = logbook.summaries.filter(({ study }) => study && study.id === plan.study?.id);
    const opened = await Promise.all(filed.map(async ({ id }) => (await logbook.open(id)).run.header));
    const earlier = [...live, ...opened].map(({ conditions = [] }) => conditions);
    // A state is a part of the setup, not a condition that drifted.
    const asked = plan.conditions.filter(({ name }) => name !== 'state');
    if (props.planned === plan)
      differs.value = differing(
        asked.map(shownCondition),
        earlier.map((each) => each.map(shownCondition)),
      );
  },
  { immediate: true },
);
const title = computed(() => props.planned?.title ?? 'How it starts');
</script>

<template>
  <aside class="conditions" aria-labelledby="conditions-title">
    <h2 id="conditions-title">{{ title }}</h2>
    <template v-if="planned">
      <p>Check each before you plug in. Runs that differ cannot be laid beside each other in fairness.</p>
      <dl>
        <template v-for="{ name, value } in planned.conditions.map(shownCondition)" :key="name">
          <dt>{{ name }}</dt>
          <dd>{{ value || 'write it down' }}</dd>
        </template>
      </dl>
      <p v-for="{ name, now, before } in differs" :key="name" class="due" role="status">
        {{ name }} was {{ before.join(', ') || 'empty' }} in earlier runs, and is {{ now || 'empty' }} now.
      </p>
      <v-text-field v-model="differences" label="What differs this time, if anything" maxlength="80" density="compact" />
    </template>
    <template v-else>
      <v-text-field v-model="rest" label="Rested for (minutes)" inputmode="decimal" density="compact" maxlength="80" hide-details />
      <FigureField v-model="ambient" name="Room" :unit="shownUnit('°C')" density="compact" maxlength="80" hide-details />
    </template>
  </aside>
</template>

<style scoped>
.conditions {
  display: grid;
  gap: 0.6rem;
  border-inline-start-color: rgb(var(--v-theme-line));
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.15rem 0.8rem;
  font-size: 0.9rem;
}

dd {
  font-weight: 600;
  overflow-wrap: anywhere;
}
</style>
