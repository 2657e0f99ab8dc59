<script setup lang="ts">
import { nanoid } from 'nanoid';
import { computed, ref, shallowRef } from 'vue';
import { ValidationError } from 'yup';
import {
  CONDITIONS,
  ENDINGS,
  HOT,
  WANTS,
  ownMethodSchema,
  readCadence,
  type CadenceText,
  type Condition,
  type OwnMethod,
  type School,
} from '@core/method';
import { keptFrom, readDecimal, shownIn, shownUnit, temperature, trimmed } from '@core/quantity';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import { focusFirstError } from '../kit/firstError';
import type { MethodChoice } from '../logbook/methodChoice';
import { useMethods } from '../logbook/methods';
import { troubleOf } from '../logbook/trouble';
import CadenceFields from './CadenceFields.vue';
import ConditionsTable from './ConditionsTable.vue';

/** A method of one’s own: how it starts, when it is read, what is written down, when it stops, and what must match. */
const props = defineProps<{ base: School; choice: MethodChoice; conditions: readonly Condition[] | undefined }>();
const emit = defineEmits<{ kept: [method: OwnMethod]; close: [] }>();

const methods = useMethods();
const isKnown = computed(() => methods.isOwn(props.base.id));
const words = ref({
  name: isKnown.value ? props.base.name : `${props.base.name}, my way`,
  start: props.base.start,
  startLevel: props.base.startLevel === undefined ? '' : String(props.base.startLevel),
  records: props.base.records,
  stops: props.base.stops,
  goodFor: props.base.goodFor,
  weakAt: props.base.weakAt,
});
const timing = ref({ ...props.choice.timing });
const conditions = shallowRef<Condition[]>([...(props.base.conditions ?? props.conditions ?? CONDITIONS)]);
const rule = ref({ ...props.base.rule, wants: [...props.base.rule.wants] });
/** What counts as a stall, in minutes, and as hot, in the chosen scale; as typed. */
const limits = ref({ stall: String((props.base.rule.stall ?? 3600) / 60), hot: trimmed(shownIn('°C', props.base.rule.hot ?? HOT), 1) });
const errors = shallowRef<Record<string, string>>({});
const { offer, close, end } = useDraft(
  `method/${props.base.id}`,
  () =>
    JSON.parse(JSON.stringify([words.value, timing.value, conditions.value, rule.value, limits.value])) as [
      typeof words.value,
      typeof timing.value,
      Condition[],
      typeof rule.value,
      typeof limits.value,
    ],
  (given) => {
    [words.value, timing.value, conditions.value, rule.value, limits.value] = given;
  },
  () => {
    emit('close');
  },
);

const FIELDS = [
  { key: 'name', label: 'Name of the method' },
  { key: 'start', label: 'A run starts at' },
  { key: 'startLevel', label: 'Start level, %' },
  { key: 'records', label: 'Written down at each check' },
  { key: 'stops', label: 'It stops' },
  { key: 'goodFor', label: 'Good for' },
  { key: 'weakAt', label: 'Weak at' },
] as const;

const LIMITS = [
  { key: 'stall', label: 'Minutes without gain that count as a stall', wrong: 'Write 5 to 1440 minutes.' },
  { key: 'hot', label: `Called hot above, ${shownUnit('°C')}`, wrong: `Write ${trimmed(shownIn('°C', 25))} to ${temperature(60, 0)}.` },
] as const;

const SAYS: Readonly<Record<(typeof ENDINGS)[number], string>> = {
  full: 'the display shows 100 %',
  power: 'power has died away',
  window: 'the window is over',
  list: 'a list has been tried through',
};
const ENDS = ENDINGS.map((value) => ({ value, title: SAYS[value] }));

const KINDS: { value: CadenceText['kind']; title: string }[] = [
  { value: 'fixed', title: 'at even intervals' },
  { value: 'marks', title: 'at given times' },
  { value: 'coarse then fine', title: 'at intervals, finer from a level on' },
  { value: 'sampled', title: 'by a meter that samples' },
  { value: 'spot', title: 'once, when it has settled' },
];

async function keep(): Promise<void> {
  const read = readCadence(timing.value);
  const found: Record<string, string> = 'error' in read ? { cadence: read.error } : {};
  const { startLevel, ...rest } = words.value;
  try {
    const method = ownMethodSchema.validateSync(
      {
        ...rest,
        ...(startLevel.trim() && { startLevel: startLevel.replace(',', '.') }),
        id: isKnown.value ? props.base.id : nanoid(10),
        cadence: 'cadence' in read ? read.cadence : undefined,
        conditions: conditions.value,
        rule: { ...rule.value, stall: readDecimal(limits.value.stall) * 60, hot: keptFrom('°C', readDecimal(limits.value.hot)) },
      },
      { abortEarly: false },
    ) as OwnMethod;
    if (Object.keys(found).length === 0) {
      await methods.put(method);
      offer.drop();
      emit('kept', method);
    }
  } catch (error) {
    if (error instanceof ValidationError) for (const { path, message } of error.inner) found[path ?? ''] ??= message;
    else found.name = troubleOf(error, 'The method was not saved.');
  }
  errors.value = found;
  if (Object.keys(found).length > 0) void focusFirstError();
}
</script>

<template>
  <v-dialog :model-value="true" max-width="640" scrollable aria-labelledby="method-title" @update:model-value="close">
    <v-card>
      <form novalidate @submit.prevent="keep">
        <h2 id="method-title">A method of my own</h2>
        <DraftOffer :draft="offer" />
        <v-text-field
          v-for="{ key, label } in FIELDS"
          :key="key"
          v-model="words[key]"
          :label="label"
          :error-messages="errors[key]"
          density="compact"
        />
        <v-select v-model="timing.kind" :items="KINDS" label="It is read" density="compact" />
        <CadenceFields v-model="timing" :error="errors.cadence ?? ''" />
        <v-select v-model="rule.ends" :items="ENDS" label="What ends a run" density="compact" />
        <v-select v-model="rule.wants" :items="[...WANTS]" label="Required at each check" multiple chips density="compact" />
        <v-text-field
          v-for="{ key, label, wrong } in LIMITS"
          :key="key"
          v-model="limits[key]"
          :label="label"
          inputmode="decimal"
          :error-messages="errors[`rule.${key}`] && wrong"
          density="compact"
        />
        <v-text-field
          v-model="rule.due"
          label="Said while a check is due, if anything"
          :error-messages="errors['rule.due']"
          density="compact"
        />
        <v-text-field
          v-model="rule.between"
          label="Said between checks, if anything"
          :error-messages="errors['rule.between']"
          density="compact"
        />
        <ConditionsTable :conditions="conditions" @change="(changed: Condition[]) => (conditions = changed)" />
        <div class="ends">
          <v-btn variant="text" @click="end">Cancel</v-btn>
          <v-btn type="submit" variant="flat" color="primary">Save the method</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
  max-height: 85vh;
  padding: 1.25rem 1.5rem;
  overflow: auto;
}

form > section {
  padding: 1rem 0 0;
}

.ends {
  display: flex;
  gap: 0.5rem;
  justify-content: end;
}
</style>
