<script setup lang="ts">
import { computed } from 'vue';
import { readDecimal } from '@core/quantity';
import FigureField from '../kit/FigureField.vue';
import { useSettings } from '../kit/settings';

/** Which figures are worked out beside the usual ones, and from when times are counted. What was asked for once stays asked for, of every run. */
defineProps<{ isSampled: boolean }>();

const settings = useSettings();
const ORIGINS = [
  { title: 'plug-in', value: 'plug-in' },
  { title: 'the first level shown (boot)', value: 'boot' },
  { title: 'a level', value: 'level' },
];
const origin = computed({
  get: () => (typeof settings.countFrom === 'number' ? 'level' : settings.countFrom),
  set: (chosen) => (settings.countFrom = chosen === 'level' ? 20 : (chosen as 'plug-in' | 'boot')),
});
const isLevel = (level: number) => level >= 1 && level <= 100;

/** Typed figures of a list, those that can be. */
function figuresIn(typed: readonly (string | number)[], isPossible: (figure: number) => boolean): number[] {
  return [...new Set(typed.map((each) => Math.round(readDecimal(String(each)))).filter(isPossible))]
    .sort((one, other) => one - other)
    .slice(0, 12);
}
const levels = computed({
  get: () => settings.levels.map(String),
  set: (typed) => (settings.levels = figuresIn(typed, isLevel)),
});
const minutes = computed({
  get: () => settings.marks.map((seconds) => String(seconds / 60)),
  set: (typed) => (settings.marks = figuresIn(typed, (each) => each >= 1 && each <= 10_000).map((each) => each * 60)),
});

/** Half a figure while it is typed is none yet. */
function projectTo(typed: string): void {
  const level = Number(typed);
  if (isLevel(level)) settings.projectTo = level;
}
function timeAbove(typed: string): void {
  const watts = readDecimal(typed);
  settings.watts = typed.trim() !== '' && watts > 0 && watts <= 5000 ? watts : undefined;
}
function countFrom(typed: string): void {
  const level = Math.round(Number(typed));
  if (isLevel(level)) settings.countFrom = level;
}
const says = computed(() =>
  [
    settings.levels.length > 0 && `also at ${settings.levels.join(', ')} %`,
    settings.marks.length > 0 && `after ${settings.marks.map((each) => each / 60).join(', ')} min`,
    settings.watts !== undefined && `time above ${settings.watts} W`,
    settings.countFrom !== 'plug-in' && `counted from ${typeof settings.countFrom === 'number' ? `${settings.countFrom} %` : 'boot'}`,
    settings.isCharging && 'by charging time',
  ]
    .filter(Boolean)
    .join('; '),
);
</script>

<template>
  <FigureField
    v-if="isSampled"
    :model-value="settings.projectTo"
    name="Energy sample carried on to"
    unit="%"
    density="compact"
    @update:model-value="projectTo"
  />
  <details data-acts class="ask">
    <summary>
      Figures to work out <span v-if="says" class="soft">{{ says }}</span>
    </summary>
    <v-combobox v-model="levels" label="Also at these levels, %" multiple chips closable-chips density="compact" hint="Enter after each" />
    <v-combobox v-model="minutes" label="Gains also after, min" multiple chips closable-chips density="compact" hint="Enter after each" />
    <FigureField
      :model-value="settings.watts ?? ''"
      name="Time above this power"
      unit="W"
      density="compact"
      @update:model-value="timeAbove"
    />
    <v-select v-model="origin" :items="ORIGINS" label="Times are counted from" density="compact" />
    <FigureField
      v-if="typeof settings.countFrom === 'number'"
      :model-value="settings.countFrom"
      name="From this level"
      unit="%"
      density="compact"
      @update:model-value="countFrom"
    />
    <v-checkbox v-model="settings.isCharging" label="Leave out the time without power" density="compact" hide-details />
  </details>
</template>

<style scoped>
.ask {
  padding-bottom: 0.9rem;
  font-size: 0.88rem;
}

summary {
  padding-block: 0.3rem;
  cursor: pointer;
}
</style>
