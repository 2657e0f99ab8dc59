<script setup lang="ts">
import { computed, ref } from 'vue';
import { fixed, price, readDecimal, temperature, trimmed } from '@core/quantity';
import { momentText } from '../kit/dates';
import FigureField from '../kit/FigureField.vue';
import { useSettings } from '../kit/settings';
import BackupFields from '../exports/backup/BackupFields.vue';
import CallFields from '../run/CallFields.vue';

/** What a person chooses about the program: how figures are written, how it calls, and what is taken for granted. */
const settings = useSettings();

const CHOICES = [
  {
    key: 'scale',
    label: 'Temperatures in',
    choices: [
      ['°C', '°C'],
      ['°F', '°F'],
    ],
  },
  {
    key: 'decimal',
    label: 'Decimals after',
    choices: [
      ['browser', 'as the browser does'],
      ['.', 'a point: 26.1'],
      [',', 'a comma: 26,1'],
    ],
  },
  {
    key: 'dates',
    label: 'Dates',
    choices: [
      ['browser', 'as the browser does'],
      ['day', 'day first: 26/11/2026'],
      ['month', 'month first: 11/26/2026'],
      ['year', 'year first: 2026-11-26'],
    ],
  },
  {
    key: 'hours',
    label: 'Clock',
    choices: [
      ['browser', 'as the browser does'],
      ['24', '24 hours: 14:05'],
      ['12', '12 hours: 2:05 pm'],
    ],
  },
] as const;

const PERCENTS = [
  {
    key: 'spread',
    label: 'Spread between repeats of one setup',
    min: 0.5,
    max: 20,
    hint: 'a standard deviation; counts until your own repeats tell it; usually 3',
  },
  {
    key: 'realUse',
    label: 'Real use, as a share of claimed hours',
    min: 5,
    max: 100,
    hint: 'hours of use gained = claimed hours × this × gain; a habit is 40',
  },
] as const;
const typed = ref<Record<string, string>>({
  spread: trimmed(settings.spread * 100),
  realUse: trimmed(settings.realUse * 100),
  projectTo: trimmed(settings.projectTo),
  projectFrom: trimmed(settings.projectFrom),
});
const errors = ref<Record<string, string>>({});

/** Half a figure while it is typed is none yet: it counts once it can be. */
function write(key: 'spread' | 'realUse' | 'projectTo' | 'projectFrom', text: string, min: number, max: number, share: number): void {
  typed.value[key] = text;
  const value = readDecimal(text);
  const fits = text.trim() !== '' && value >= min && value <= max;
  errors.value = { ...errors.value, [key]: fits ? '' : `Write ${trimmed(min)} to ${trimmed(max)} %.` };
  if (fits) settings[key] = value * share;
}

const example = computed(() =>
  [`${fixed(26.1, 1)} W`, temperature(37), price(19.5), momentText(new Date(2026, 10, 26, 14, 5).getTime(), { year: true })].join(' · '),
);
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Settings</h1>
      <p class="soft">kept in this logbook; a choice counts at once</p>
    </header>
    <div class="body columns">
      <section aria-labelledby="written">
        <h2 id="written">How figures are written</h2>
        <v-select
          v-for="{ key, label, choices } in CHOICES"
          :key="key"
          v-model="settings[key]"
          :label="label"
          :items="choices.map(([value, title]) => ({ value, title }))"
        />
        <v-text-field v-model="settings.currency" label="Sign of your currency" placeholder="as where you are" maxlength="4" />
        <p class="figures soft" role="status">{{ example }}</p>
      </section>
      <section aria-labelledby="whose">
        <h2 id="whose">Whose logbook this is</h2>
        <v-text-field
          v-model="settings.owner"
          label="Owner"
          placeholder="e.g. Ada"
          maxlength="60"
          hint="Stays with your runs where somebody else imports them."
          persistent-hint
        />
      </section>
      <section aria-labelledby="assumed">
        <h2 id="assumed">What is taken for granted</h2>
        <FigureField
          v-for="{ key, label, min, max, hint } in PERCENTS"
          :key="key"
          :model-value="typed[key]"
          :name="label"
          unit="%"
          :hint="hint"
          persistent-hint
          :error-messages="errors[key]"
          @update:model-value="(text: string) => write(key, text, min, max, 0.01)"
        />
        <FigureField
          :model-value="typed.projectTo"
          name="Energy samples are carried on to"
          unit="%"
          :error-messages="errors.projectTo"
          @update:model-value="(text: string) => write('projectTo', text, 1, 100, 1)"
        />
        <FigureField
          :model-value="typed.projectFrom"
          name="Setups are compared by them from"
          unit="%"
          hint="one level for all, whatever each run began at"
          persistent-hint
          :error-messages="errors.projectFrom"
          @update:model-value="(text: string) => write('projectFrom', text, 0, 99, 1)"
        />
      </section>
      <section aria-labelledby="backup">
        <h2 id="backup">Backup</h2>
        <BackupFields />
      </section>
      <section aria-labelledby="look">
        <h2 id="look">Look and keys</h2>
        <v-select
          v-model="settings.theme"
          label="Theme"
          :items="[
            { value: 'paper', title: 'light' },
            { value: 'darkRoom', title: 'dark' },
          ]"
        />
        <v-checkbox v-model="settings.singleKeys" label="Listen to single keys (Enter and Esc always work)" />
      </section>
      <section aria-labelledby="calls">
        <h2 id="calls">Calls when a reading is due</h2>
        <CallFields />
      </section>
    </div>
  </section>
</template>

<style scoped>
.columns {
  columns: 24rem 3;
  column-gap: 3rem;
  max-width: 96rem;
}

section section {
  display: grid;
  gap: 0.8rem;
  break-inside: avoid;
  padding-bottom: 1.8rem;
}
</style>
