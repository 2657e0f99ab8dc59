<script setup lang="ts">
import { mdiPin } from '@mdi/js';
import { useDraggable } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { wallTime } from '../kit/clock';
import PenNib from '../strip/PenNib.vue';
import type { Mark } from './paper';

/** A planned run on the paper, in pencil. It can be dragged to another time or day. */
const props = defineProps<{ mark: Mark; title: string; pens: number[]; isMoved: boolean }>();
const emit = defineEmits<{ drop: [left: number, pointer: { x: number; y: number }]; pick: [] }>();

const element = useTemplateRef<HTMLElement>('element');
const from = ref({ x: 0, y: 0 });
/** A drag ends with a click that is none. */
const wasDragged = ref(false);
const { x, y, isDragging } = useDraggable(element, {
  disabled: !props.mark.isStart,
  // A finger scrolls; it moves a run in the list.
  pointerTypes: ['mouse', 'pen'],
  onStart: () => {
    wasDragged.value = false;
    const box = element.value?.getBoundingClientRect();
    if (box) [from.value, x.value, y.value] = [{ x: box.left, y: box.top }, box.left, box.top];
  },
  onEnd: (position, event) => {
    const isMove = Math.hypot(position.x - from.value.x, position.y - from.value.y) > 4;
    wasDragged.value = isMove;
    if (isMove) emit('drop', position.x, { x: event.clientX, y: event.clientY });
  },
});
const time = (seconds: number) => wallTime(seconds * 1000);
const percent = (share: number) => `${share * 100}%`;
const style = computed(() => ({
  left: percent(props.mark.left),
  width: percent(props.mark.width),
  top: `${props.mark.row * 3.1 + 0.35}rem`,
  ...(isDragging.value && { transform: `translate(${x.value - from.value.x}px, ${y.value - from.value.y}px)`, zIndex: 3 }),
}));
const said = computed(() => (props.mark.isStart ? time(props.mark.appointment.plugIn) : `until ${time(props.mark.appointment.end)}`));
/** Where it is to be read, as ticks along its foot. */
const ticks = computed(() => {
  const { at, end, visits } = props.mark.appointment;
  return visits.map((visit) => `M${((visit.from - at) / (end - at)) * 1000} 0V6`).join('');
});
</script>

<template>
  <span
    v-if="mark.ready < mark.left"
    class="ready"
    :style="{ left: percent(mark.ready), width: percent(mark.left - mark.ready), top: `${mark.row * 3.1 + 1.6}rem` }"
  />
  <button
    ref="element"
    type="button"
    class="mark"
    :class="{ pinned: mark.appointment.isPinned, moved: isMoved, dragged: isDragging }"
    :style="style"
    :title="`${title}: plug in ${time(mark.appointment.plugIn)}, packed up ${time(mark.appointment.end)}`"
    @click="wasDragged || emit('pick')"
  >
    <span class="name"><PenNib v-for="(pen, index) in pens" :key="index" :pen="pen" />{{ title }}</span>
    <span class="figures time">
      {{ said }}<svg v-if="mark.appointment.isPinned" viewBox="0 0 24 24" role="img" aria-label="pinned"><path :d="mdiPin" /></svg>
    </span>
    <svg
      v-if="mark.isStart && !mark.appointment.overnight"
      class="ticks"
      viewBox="0 0 1000 6"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path :d="ticks" vector-effect="non-scaling-stroke" />
    </svg>
  </button>
</template>

<style scoped>
.mark {
  position: absolute;
  height: 2.7rem;
  padding: 0.1rem 0.3rem;
  overflow: hidden;
  font: inherit;
  font-size: 0.78rem;
  line-height: 1.25;
  color: rgb(var(--v-theme-ink));
  text-align: start;
  background: rgb(var(--v-theme-paper));
  border: 1.5px dashed rgb(var(--v-theme-pencil));
  border-radius: 4px;
  cursor: grab;
}

.mark.pinned {
  border-style: solid;
  border-color: rgb(var(--v-theme-ink));
}

.mark.moved {
  border-inline-start: 4px solid rgb(var(--v-theme-due));
}

.mark.dragged {
  cursor: grabbing;
  opacity: 0.85;
}

.name {
  display: flex;
  gap: 0.2rem;
  align-items: center;
  overflow: hidden;
  white-space: nowrap;
}

.time {
  display: flex;
  gap: 0.2rem;
  align-items: center;
  color: rgb(var(--v-theme-pencil));
}

.time svg {
  width: 0.85rem;
  fill: rgb(var(--v-theme-ink));
}

.ticks {
  position: absolute;
  inset: auto 0 0;
  width: 100%;
  height: 5px;
}

.ticks path {
  stroke: rgb(var(--v-theme-pencil));
  stroke-width: 1;
}

.ready {
  position: absolute;
  border-top: 2px dotted rgb(var(--v-theme-pencil));
}
</style>
