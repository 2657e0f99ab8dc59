<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { max, min, ticks } from 'd3-array';
import { computed, useTemplateRef } from 'vue';
import type { Plotted } from '@core/advise';
import { spell } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import { spreadOut } from '../strip/layers/names';
import PenNib from '../strip/PenNib.vue';

/** Setups by two figures, the better end of each to the left and up, with their margins; on the dashed line none is beaten. */
const props = defineProps<{
  caption: string;
  /** What lies to the right, and how it is written. */
  across: string;
  write: (x: number) => string;
  points: Plotted[];
  /** Of each setup of the group, by its place. */
  pens: number[];
}>();

const HEIGHT = 300;
/** Of so many the names stand in a column of their own, each with a line to its point. */
const MANY = 8;
const isMany = computed(() => props.points.length > MANY);
const EDGE = { top: 14, bottom: 40, left: 62 };
const right = computed(() => (isMany.value ? Math.min(170, width.value * 0.36) : 16));
const box = useTemplateRef<HTMLElement>('box');
const { width: measured } = useElementSize(box);
const width = computed(() => Math.max(260, Math.round(measured.value) || 480));

const widest = (low: number, high: number): [number, number] => {
  const room = Math.max((high - low) * 0.08, high * 0.04, 1e-6);
  return [Math.max(0, low - room), high + room];
};
const across = computed(() =>
  widest(min(props.points, (each) => each.x - each.xMargin) ?? 0, max(props.points, (each) => each.x + each.xMargin) ?? 1),
);
const down = computed(() =>
  widest(min(props.points, (each) => each.y - each.yMargin) ?? 0, max(props.points, (each) => each.y + each.yMargin) ?? 1),
);
const left = (x: number) =>
  EDGE.left + ((x - across.value[0]) / (across.value[1] - across.value[0])) * (width.value - EDGE.left - right.value);
/** Sooner is higher. */
const top = (y: number) => EDGE.top + ((y - down.value[0]) / (down.value[1] - down.value[0])) * (HEIGHT - EDGE.top - EDGE.bottom);

const xTicks = computed(() => ticks(...across.value, Math.max(3, Math.round(width.value / 110))));
const STEPS = [60, 120, 300, 600, 900, 1800, 3600, 7200];
const yTicks = computed(() => {
  const [from, to] = down.value;
  const step = STEPS.find((each) => (to - from) / each <= 7) ?? 14_400;
  return Array.from({ length: Math.floor(to / step) - Math.ceil(from / step) + 1 }, (_, index) => (Math.ceil(from / step) + index) * step);
});

const line = computed(() =>
  [...props.points]
    .filter(({ isOn }) => isOn)
    .sort((one, other) => one.x - other.x)
    .map(({ x, y }) => `${left(x)},${top(y)}`)
    .join(' '),
);

/** Names beside their points, on the side that has room, or in a column of their own; none on another. */
const labels = computed(() => {
  const spread = (own: readonly Plotted[], raise: number, isRight: boolean) => {
    const within = { low: EDGE.top + 8, high: HEIGHT - EDGE.bottom - 4 };
    const tops = spreadOut(
      own.map(({ y }) => top(y) + raise),
      15,
      within,
    );
    return own.map((each, index) => ({
      ...each,
      isRight,
      at: tops[index] ?? 0,
      from: isMany.value ? width.value - right.value + 12 : left(each.x) + (isRight ? 11 : -11),
    }));
  };
  if (isMany.value) return spread(props.points, 4, true);
  const middle = width.value * 0.62;
  return [true, false].flatMap((isRight) =>
    spread(
      props.points.filter(({ x }) => left(x) < middle === isRight),
      -8,
      isRight,
    ),
  );
});
const short = (name: string) => (name.length > (isMany.value ? 22 : 26) ? `${name.slice(0, isMany.value ? 21 : 25)}…` : name);
</script>

<template>
  <figure ref="box" data-copied>
    <CopyButton name="its figures" is-row />
    <figcaption class="soft">{{ caption }}</figcaption>
    <svg :width="width" :height="HEIGHT" role="img" :aria-label="caption">
      <g class="grid">
        <line v-for="x in xTicks" :key="`x${x}`" :x1="left(x)" :x2="left(x)" :y1="EDGE.top" :y2="HEIGHT - EDGE.bottom" />
        <line v-for="y in yTicks" :key="`y${y}`" :x1="EDGE.left" :x2="width - right" :y1="top(y)" :y2="top(y)" />
      </g>
      <text class="across" :x="width - right" :y="HEIGHT - 6" text-anchor="end">{{ props.across }}</text>
      <g class="ticks figures">
        <text v-for="x in xTicks" :key="`x${x}`" :x="left(x)" :y="HEIGHT - EDGE.bottom + 16" text-anchor="middle">{{ write(x) }}</text>
        <text v-for="y in yTicks" :key="`y${y}`" :x="EDGE.left - 8" :y="top(y) + 4" text-anchor="end">{{ spell(y) }}</text>
      </g>
      <polyline v-if="line.includes(' ')" class="frontier" :points="line" />
      <g class="whiskers">
        <template v-for="{ index, x, y, xMargin, yMargin } in points" :key="index">
          <line v-if="yMargin > 0" :x1="left(x)" :x2="left(x)" :y1="top(y - yMargin)" :y2="top(y + yMargin)" />
          <line v-if="xMargin > 0" :x1="left(x - xMargin)" :x2="left(x + xMargin)" :y1="top(y)" :y2="top(y)" />
        </template>
      </g>
      <g v-for="{ index, name, x, y, at, from, isRight, isOn } in labels" :key="index">
        <line v-if="isMany" class="leader" :x1="left(x)" :y1="top(y)" :x2="from - 4" :y2="at - 4" />
        <PenNib :pen="pens[index] ?? 0" :x="left(x) - 7" :y="top(y) - 7" />
        <text class="name" :class="{ on: isOn }" :x="from" :y="at" :text-anchor="isRight ? 'start' : 'end'">
          {{ short(name) }}
        </text>
      </g>
    </svg>
    <table class="unseen-text">
      <caption>
        {{
          caption
        }}
      </caption>
      <tbody>
        <tr v-for="{ index, name, x, y, yMargin, isOn } in points" :key="index">
          <th scope="row">{{ name }}</th>
          <td>{{ write(x) }}</td>
          <td>{{ spell(y) }} ± {{ spell(yMargin) }}</td>
          <td>{{ isOn ? 'not beaten' : 'beaten' }}</td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
figure {
  position: relative;
  margin: 0;
  min-width: 0;
  overflow: hidden;
}

figcaption {
  font-size: 0.85rem;
}

.grid line {
  stroke: rgb(var(--v-theme-grid));
}

.across,
.ticks text {
  font-size: 12px;
  fill: rgb(var(--v-theme-soft));
}

.frontier {
  fill: none;
  stroke: rgb(var(--v-theme-pencil));
  stroke-width: 1.5;
  stroke-dasharray: 3 4;
}

.leader {
  stroke: rgb(var(--v-theme-line));
}

.whiskers line {
  stroke: rgb(var(--v-theme-ink));
  stroke-width: 1.5;
}

.name {
  font-size: 13px;
  paint-order: stroke;
  stroke: rgb(var(--v-theme-paper));
  stroke-width: 3px;
  fill: rgb(var(--v-theme-soft));
}

.name.on {
  font-weight: 700;
  fill: rgb(var(--v-theme-ink));
}
</style>
