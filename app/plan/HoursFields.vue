<script setup lang="ts">
import { ref } from 'vue';
import { CAUTIONS } from '@core/advise';
import { DAYS, readHours, writeHours, type Calendar } from '@core/plan';
import { trimmed } from '@core/quantity';
import DateField from '../kit/DateField.vue';
import FigureField from '../kit/FigureField.vue';

/** When somebody is there, and what a run takes of them and of the gear. */
const props = defineProps<{ calendar: Calendar; errors: readonly string[]; needsLength: boolean }>();
const emit = defineEmits<{ change: [part: Partial<Calendar>] }>();

const typed = ref(DAYS.map((_, index) => writeHours(props.calendar.hours, index + 1)));
const wrong = ref<Record<number, string>>({});

function writeDay(index: number, text: string): void {
  typed.value[index] = text;
  const read = readHours(text, index + 1);
  wrong.value = { ...wrong.value, [index]: 'error' in read ? read.error : '' };
  if ('hours' in read) emit('change', { hours: [...props.calendar.hours.filter(({ day }) => day !== index + 1), ...read.hours] });
}

/** Amounts as they are asked for: what is kept, its label, and how many of what is kept make one of what is typed. */
const AMOUNTS = [
  { key: 'reading', label: 'A reading takes, s', per: 1 },
  { key: 'setUp', label: 'Setting up takes, min', per: 60 },
  { key: 'packUp', label: 'Packing up takes, min', per: 60 },
  { key: 'drain', label: 'Draining before a run, min', per: 60 },
  { key: 'sockets', label: 'Sockets of the power strip', per: 1 },
  { key: 'allowance', label: 'Room for slower runs, %', per: 0.01 },
] as const;

const shown = (value: number | undefined, per: number) => (value === undefined || Number.isNaN(value) ? '' : trimmed(value / per));
const amount = (text: string, per: number) =>
  text.trim() === '' ? Number.NaN : Math.round(Number(text.replace(',', '.')) * per * 1000) / 1000;
</script>

<template>
  <form class="fields" aria-label="Hours" @submit.prevent>
    <DateField
      :model-value="calendar.from"
      label="First day"
      type="date"
      density="compact"
      @update:model-value="(from: string) => emit('change', { from })"
    />
    <fieldset>
      <legend>When you are there</legend>
      <v-text-field
        v-for="(name, index) in DAYS"
        :key="name"
        :model-value="typed[index]"
        :label="name"
        placeholder="not there"
        density="compact"
        :error-messages="wrong[index]"
        @update:model-value="(text: string) => writeDay(index, text)"
      />
    </fieldset>
    <v-text-field
      v-for="{ key, label, per } in AMOUNTS"
      :key="key"
      :model-value="shown(calendar[key], per)"
      :label="label"
      inputmode="decimal"
      density="compact"
      @update:model-value="(text: string) => emit('change', { [key]: amount(text, per) })"
    />
    <FigureField
      v-if="needsLength || calendar.otherwise !== undefined"
      :model-value="shown(calendar.otherwise, 60)"
      name="Assume this long if unknown"
      unit="min"
      density="compact"
      @update:model-value="(text: string) => emit('change', { otherwise: text.trim() === '' ? undefined : amount(text, 60) })"
    />
    <v-checkbox
      :model-value="calendar.nights"
      label="Long runs may continue unattended"
      @update:model-value="(nights: boolean | null) => emit('change', { nights: nights === true })"
    />
    <ul v-if="calendar.nights" class="due" aria-label="Cautions">
      <li v-for="caution in CAUTIONS.unattended" :key="caution">{{ caution }}</li>
    </ul>
    <p v-for="error in errors" :key="error" class="due" role="alert">{{ error }}</p>
  </form>
</template>

<style scoped>
.fields,
fieldset {
  display: grid;
  gap: 0.7rem;
  align-content: start;
}

.fields {
  padding: 1.25rem 1.5rem 2rem;
}

fieldset {
  padding: 0;
  border: 0;
}

legend {
  padding-bottom: 0.4rem;
  font-weight: 700;
  font-size: 0.95rem;
}

li {
  margin-inline-start: 1.1rem;
  font-size: 0.9rem;
}
</style>
