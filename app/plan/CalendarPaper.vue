<script setup lang="ts">
import { computed, useTemplateRef } from 'vue';
import type { Appointment, PlannedRun, Stretch } from '@core/plan';
import { momentOnPaper, calendarPaperOf } from './paper';
import PlannedMark from './PlannedMark.vue';

/** A calendar as lanes on paper: days under one another, hours to the right, runs in pencil. Its table twin is the list under it. */
const props = defineProps<{
  agenda: readonly Appointment[];
  windows: readonly Stretch[];
  moved: ReadonlySet<string>;
  titleOf: (appointment: Appointment) => string;
  penOf: (run: PlannedRun) => number;
}>();
const emit = defineEmits<{ move: [key: string, at: number]; pick: [key: string] }>();

const paper = computed(() => calendarPaperOf(props.agenda, props.windows));
const hours = computed(() => Array.from({ length: paper.value.to - paper.value.from + 1 }, (_, index) => paper.value.from + index));
const days = useTemplateRef<HTMLElement[]>('days');

/** Drops a run at the left edge it was dragged to, on the day under the pointer. */
function drop(key: string, left: number, pointer: { x: number; y: number }): void {
  const index = (days.value ?? []).findIndex((day) => {
    const { top, bottom } = day.getBoundingClientRect();
    return pointer.y >= top && pointer.y < bottom;
  });
  const [day, box] = [paper.value.days[index], days.value?.[index]?.getBoundingClientRect()];
  if (day && box) emit('move', key, momentOnPaper(paper.value, day.midnight, (left - box.left) / box.width));
}
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Calendar">
    <div class="paper" :style="{ '--hours': hours.length - 1 }">
      <div class="ruler figures" aria-hidden="true">
        <span v-for="hour in hours" :key="hour">{{ hour }}</span>
      </div>
      <template v-for="day in paper.days" :key="day.midnight">
        <h3>{{ day.name }}</h3>
        <div ref="days" class="day" :style="{ height: `${day.rows * 3.1 + 0.4}rem` }">
          <span
            v-for="(stretch, index) in day.attended"
            :key="index"
            class="attended"
            :style="{ left: `${stretch.left * 100}%`, width: `${stretch.width * 100}%` }"
          />
          <PlannedMark
            v-for="mark in day.marks"
            :key="`${mark.appointment.key}/${mark.isStart}`"
            :mark="mark"
            :title="titleOf(mark.appointment)"
            :pens="mark.appointment.runs.map(penOf)"
            :is-moved="moved.has(mark.appointment.key)"
            @drop="(left, pointer) => drop(mark.appointment.key, left, pointer)"
            @pick="emit('pick', mark.appointment.key)"
          />
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.paper {
  display: grid;
  grid-template-columns: 5.6rem minmax(42rem, 1fr);
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.ruler {
  display: flex;
  grid-column: 2;
  justify-content: space-between;
  font-size: 0.72rem;
  color: rgb(var(--v-theme-soft));
}

.ruler span {
  width: 0;
  text-align: center;
  white-space: nowrap;
  direction: rtl;
}

h3 {
  padding: 0.4rem 0.4rem 0 0;
  font-size: 0.85rem;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

.day {
  position: relative;
  background: rgb(var(--v-theme-desk));
  border-top: 1px solid rgb(var(--v-theme-rule));
  border-inline: 1px solid rgb(var(--v-theme-rule));
}

.day::after {
  position: absolute;
  inset: 0;
  pointer-events: none;
  content: '';
  background: repeating-linear-gradient(to right, rgb(var(--v-theme-rule)) 0 1px, transparent 1px calc(100% / var(--hours)));
  opacity: 0.5;
}

.attended {
  position: absolute;
  top: 0;
  bottom: 0;
  background: rgb(var(--v-theme-paper));
}
</style>
