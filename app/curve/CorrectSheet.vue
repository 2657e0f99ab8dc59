<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { factsOf, SHELVES, type Gear, type Shelf } from '@core/bench';
import { correctionSays, correctsNothing, type Correction, type Draft, type RunInk } from '@core/ink';
import { readDecimal } from '@core/quantity';
import { vFocus } from '../kit/vFocus';
import FormSheet from '../logbook/FormSheet.vue';
import { useShelf } from '../logbook/shelf';

/** Corrects the gear of a run: another piece off the shelf, or a rating that was misquoted. What stood before stays, in its ink. */
const props = defineProps<{ run: RunInk; write: (draft: Draft) => Promise<void> }>();
const open = defineModel<boolean>({ required: true });

type CorrectionDraft = Extract<Draft, { kind: 'correction' }>;

const shelf = useShelf();
const of = ref<Shelf>('charger');
const gearId = ref<string>();
const facts = ref<Record<string, string>>({});
const reason = ref('');

/** Ratings that are misquoted. */
const RATINGS: Readonly<Record<Shelf, readonly string[]>> = {
  device: ['wattHours', 'milliampHours', 'nominalVolts', 'health', 'inputLimit'],
  charger: ['watts'],
  cable: ['length'],
  meter: ['accuracyPercent', 'accuracyDigits'],
};
const before = computed<Gear | undefined>(() => props.run.header[of.value]);
/** What it may be: all on its shelf, and what stands in the run, for that may no longer be there. */
const offered = computed(() => {
  const there = shelf.all.flatMap((each) => (each.shelf === of.value ? [each.gear as Gear] : []));
  const { value: old } = before;
  return old && !there.some(({ id }) => id === old.id) ? [old, ...there] : there;
});
const chosen = computed(() => offered.value.find(({ id }) => id === gearId.value));
const asked = computed(() => factsOf(of.value).filter(({ key }) => RATINGS[of.value].includes(key)));
const valueOf = (gear: Gear | undefined, key: string) => (gear as Record<string, unknown> | undefined)?.[key];

watch(of, () => (gearId.value = before.value?.id), { immediate: true });
watch(
  chosen,
  (gear) => {
    facts.value = Object.fromEntries(
      asked.value.map(({ key }) => [key, valueOf(gear, key) === undefined ? '' : String(valueOf(gear, key) as number)]),
    );
  },
  { immediate: true },
);

const draft = computed<CorrectionDraft | undefined>(() => {
  if (!chosen.value) return undefined;
  const typed = Object.entries(facts.value).map(([key, text]) => [key, text.trim() === '' ? undefined : readDecimal(text)] as const);
  const gear = Object.fromEntries(
    Object.entries({ ...chosen.value, ...Object.fromEntries(typed) }).filter(([, value]) => value !== undefined),
  );
  const given = { kind: 'correction', at: Date.now(), shelf: of.value, gear };
  return {
    ...given,
    ...(before.value && { was: before.value.id }),
    ...(reason.value.trim() && { reason: reason.value.trim() }),
  } as CorrectionDraft;
});
const says = computed(() => (draft.value ? correctionSays(draft.value as Correction, before.value) : ''));
const isSame = computed(() => draft.value !== undefined && correctsNothing(draft.value, before.value));

async function correct(): Promise<string | undefined> {
  if (!draft.value || isSame.value) return 'Choose another piece, or change a figure: nothing is different yet.';
  const wrong = asked.value.find(({ key }) => facts.value[key]?.trim() && !Number.isFinite(readDecimal(facts.value[key] ?? '')));
  if (wrong) return `${wrong.name}: write a number.`;
  await props.write(draft.value);
  return undefined;
}
</script>

<template>
  <FormSheet v-model="open" name="correct" title="Correct the gear of this run" action="Correct it" :width="560" :task="correct">
    <p class="soft">A dated entry: what stood before stays in its ink, and every figure goes by what is right.</p>
    <v-select v-model="of" v-focus :items="[...SHELVES]" label="What was wrong" />
    <v-autocomplete v-model="gearId" :items="offered" item-title="name" item-value="id" label="It was really" />
    <div v-if="chosen" class="facts">
      <v-text-field
        v-for="{ key, name, unit } in asked"
        :key="key"
        v-model="facts[key]"
        :label="unit ? `${name}, ${unit}` : name"
        inputmode="decimal"
        density="compact"
      />
    </div>
    <v-text-field v-model="reason" label="How it is known, if you like" maxlength="200" />
    <p v-if="says && !isSame" role="status">{{ says }}</p>
  </FormSheet>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.6rem;
}
</style>
