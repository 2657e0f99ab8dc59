<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { factsOf, type Gear, type Kept, type Shelf } from '@core/bench';
import { correctionSays, correctsNothing, gearOfRun, type Correction, type Draft, type RunInk } from '@core/ink';
import { readDecimal } from '@core/quantity';
import { vFocus } from '../kit/vFocus';
import FormSheet from '../logbook/FormSheet.vue';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';

/** Corrects gear of a run, swapped in or not: another piece off the shelf, or a rating that was misquoted. What stood before stays, in its ink. */
const props = defineProps<{ run: RunInk; write: (others: readonly string[], draft: Draft) => Promise<void> }>();
const open = defineModel<boolean>({ required: true });

type CorrectionDraft = Extract<Draft, { kind: 'correction' }>;

const shelf = useShelf();
const logbook = useLogbook();
const gearId = ref<string>();
const facts = ref<Record<string, string>>({});
const reason = ref('');
const isForAll = ref(false);
const mendsShelf = ref(false);

/** Ratings that are misquoted. */
const RATINGS: Readonly<Record<Shelf, readonly string[]>> = {
  device: ['wattHours', 'milliampHours', 'nominalVolts', 'health', 'inputLimit'],
  charger: ['watts'],
  cable: ['length'],
  meter: ['accuracyPercent', 'accuracyDigits'],
};

/** What can be wrong: each piece that the run carries, then the cable and the meter that nobody noted. */
const pieces = computed((): { title: string; value: string; shelf: Shelf; gear?: Gear }[] => {
  const { header } = props.run;
  const known = gearOfRun(props.run).map(({ shelf: on, gear }) => ({
    title: `${gear.name} (${on})`,
    value: `${on} ${gear.id}`,
    shelf: on,
    gear,
  }));
  const none = (['cable', 'meter'] as const).flatMap((on) =>
    header[on] ? [] : [{ title: `the ${on}, which was not noted`, value: on, shelf: on }],
  );
  return [...known, ...none];
});
const wrong = ref(pieces.value.find((each) => each.shelf === 'charger')?.value);
const piece = computed(() => pieces.value.find(({ value }) => value === wrong.value));
const of = computed<Shelf>(() => piece.value?.shelf ?? 'charger');
const before = computed(() => piece.value?.gear);
/** What it may be: all on its shelf, and what stands in the run, for that may no longer be there. */
const offered = computed(() => {
  const there = shelf.all.flatMap((each) => (each.shelf === of.value ? [each.gear as Gear] : []));
  const { value: old } = before;
  return old && !there.some(({ id }) => id === old.id) ? [old, ...there] : there;
});
const chosen = computed(() => (gearId.value === before.value?.id ? before.value : offered.value.find(({ id }) => id === gearId.value)));
const asked = computed(() => factsOf(of.value).filter(({ key }) => RATINGS[of.value].includes(key)));
const valueOf = (gear: Gear | undefined, key: string) => (gear as Record<string, unknown> | undefined)?.[key];

watch(wrong, () => (gearId.value = before.value?.id), { immediate: true });
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

/** Other filed runs that carry the same piece. */
const others = computed(() => {
  const id = before.value?.id;
  return id === undefined
    ? []
    : logbook.summaries.filter((each) => each.id !== props.run.header.id && each.gear?.includes(id)).map((each) => each.id);
});
/** Whether the piece on the shelf can be put right with it: where it is the same piece, and stands there otherwise. */
const onShelf = computed(() => {
  const { gear } = draft.value ?? {};
  const there = shelf.all.find((each) => each.shelf === of.value && each.gear.id === gear?.id);
  return gear && there && gear.id === before.value?.id && !correctsNothing({ gear }, there.gear) ? there : undefined;
});

async function correct(): Promise<string | undefined> {
  if (!draft.value || isSame.value) return 'Choose another piece, or change a figure: nothing is different yet.';
  const unread = asked.value.find(({ key }) => facts.value[key]?.trim() && !Number.isFinite(readDecimal(facts.value[key] ?? '')));
  if (unread) return `${unread.name}: write a number.`;
  const [{ gear }, there] = [draft.value, onShelf.value];
  await props.write(isForAll.value ? others.value : [], draft.value);
  // The shelf keeps what is known of it beside.
  if (mendsShelf.value && there) await shelf.put({ ...there, gear: { ...there.gear, ...gear } } as Kept);
  return undefined;
}
</script>

<template>
  <FormSheet v-model="open" name="correct" title="Correct the gear of this run" action="Correct it" :width="560" :task="correct">
    <p class="soft">A dated entry: what stood before stays in its ink, and every figure goes by what is right.</p>
    <v-select v-model="wrong" v-focus :items="pieces" label="What was wrong" />
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
    <v-checkbox
      v-if="others.length > 0"
      v-model="isForAll"
      :label="others.length === 1 ? 'In the other run that has it too' : `In the ${others.length} other runs that have it too`"
      density="compact"
      hide-details
    />
    <v-checkbox v-if="onShelf" v-model="mendsShelf" label="On the shelf too, for runs to come" density="compact" hide-details />
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
