<script setup lang="ts">
import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { max } from 'd3-array';
import { computed, onBeforeUnmount, onMounted, shallowRef, useTemplateRef, watch } from 'vue';
import type { Quantity } from '@core/quantity';
import { useSettings } from '../kit/settings';
import { stripConfig, type Size, type StripLook } from './config';
import StripTable from './StripTable.vue';
import type { Trace } from './trace';

/**
 * The strip: paper band, time to the right. The one picture of a run, at every size. It draws when ink arrives; the line of the
 * present moment lies over it in the page.
 */
const props = defineProps<{
  traces: Trace[];
  size: Size;
  caption: string;
  /** Left edge in seconds; by default plug-in. */
  from?: number | undefined;
  /** Right edge in seconds; by default the end of the longest run. */
  until?: number | undefined;
  /** The present moment, seconds from plug-in. */
  now?: number | undefined;
  band?: StripLook['band'];
  penned?: boolean;
  tracks?: readonly Quantity[];
  stages?: StripLook['stages'];
  marks?: StripLook['marks'];
}>();

const emit = defineEmits<{ measured: [area: { left: number; right: number; top: number; bottom: number }] }>();

Chart.register(LineController, LineElement, PointElement, LinearScale, annotation);

const settings = useSettings();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const area = shallowRef({ left: 0, right: 0, top: 0, bottom: 0 });
let chart: Chart<'line', { x: number; y: number }[]> | undefined;

const edge = computed(() => props.until ?? Math.max(600, max(props.traces, ({ end }) => end) ?? 0) * 1.02);
const look = computed<StripLook>(() => ({
  size: props.size,
  theme: settings.theme,
  from: props.from,
  until: edge.value,
  band: props.band,
  penned: props.penned,
  tracks: props.tracks,
  stages: props.stages,
  marks: props.marks,
}));
const nowAt = computed(() => {
  const { left, right } = area.value;
  return props.now === undefined || props.now > edge.value ? undefined : left + (props.now / edge.value) * (right - left);
});

/** What the chart was made of. */
let drawn: { traces: Trace[]; look: StripLook } | undefined;
function isSameBut(changed: readonly (keyof StripLook)[], one: StripLook, other: StripLook): boolean {
  const keys = Object.keys({ ...one, ...other }) as (keyof StripLook)[];
  return keys.every((key) => changed.includes(key) || one[key] === other[key]);
}

function draw(): void {
  if (!canvas.value) return;
  const config = stripConfig(props.traces, look.value);
  const isSame = chart && drawn && drawn.traces === props.traces && isSameBut(['from', 'until'], drawn.look, look.value);
  drawn = { traces: props.traces, look: look.value };
  // Another stretch of the same lines needs no other chart: only its edges move.
  if (chart && isSame) {
    chart.data = config.data;
    chart.options = config.options ?? {};
    chart.update('none');
    return;
  }
  chart?.destroy();
  const measure = {
    id: 'measure',
    afterLayout: ({ chartArea: { left, right, top, bottom } }: Chart) => {
      const was = area.value;
      if (was.left === left && was.right === right && was.top === top && was.bottom === bottom) return;
      area.value = { left, right, top, bottom };
      emit('measured', area.value);
    },
  };
  chart = new Chart(canvas.value, { ...config, plugins: [...(config.plugins ?? []), measure] });
}

onMounted(() => {
  draw();
  // Figures on the paper are measured anew once our own type has loaded.
  void document.fonts.ready.then(() => chart?.update('none'));
});
watch([() => props.traces, look], draw);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <figure class="strip">
    <canvas ref="canvas" role="img" :aria-label="caption" />
    <div
      v-if="nowAt !== undefined"
      class="now"
      :style="{ left: `${nowAt}px`, top: `${area.top}px`, height: `${area.bottom - area.top}px` }"
    />
    <StripTable v-if="size !== 'row'" :traces="traces" :caption="caption" :is-of-many="size === 'lane'" />
  </figure>
</template>

<style scoped>
.strip {
  position: relative;
  margin: 0;
  width: 100%;
  height: 100%;
  min-width: 0;
  overflow: hidden;
}

.strip canvas {
  display: block;
}

.now {
  position: absolute;
  width: 1.5px;
  background: rgb(var(--v-theme-ink));
}
</style>
