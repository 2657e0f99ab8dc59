<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core';
import { max } from 'd3-array';
import { computed, onMounted, shallowRef, useTemplateRef, watch } from 'vue';
import type { Quantity } from '@core/quantity';
import { printsAs } from '../kit/printing';
import { useDrawnTheme } from './drawnTheme';
import { surfaceOn } from './layers/canvasSurface';
import { drawStrip } from './layers/draw';
import { svgOf } from './layers/svgSurface';
import type { Size, StripLook } from './layers/look';
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

const theme = useDrawnTheme();
const box = useTemplateRef<HTMLElement>('box');
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const area = shallowRef({ left: 0, right: 0, top: 0, bottom: 0 });
/** In pixels of the page. */
let [width, height] = [0, 0];

const edge = computed(() => props.until ?? Math.max(600, max(props.traces, ({ end }) => end) ?? 0) * 1.02);
const look = computed<StripLook>(() => ({
  size: props.size,
  theme: theme.value,
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

function draw(): void {
  const to = canvas.value && width > 0 && height > 0 ? surfaceOn(canvas.value, width, height) : undefined;
  if (!to) return;
  const { left, right, top, bottom } = drawStrip(to, props.traces, look.value, { width, height }).frame;
  const was = area.value;
  if (was.left === left && was.right === right && was.top === top && was.bottom === bottom) return;
  area.value = { left, right, top, bottom };
  emit('measured', area.value);
}

/** Draws it in its place, where that is another than before. */
function fit(to: { width: number; height: number }): void {
  if (to.width === width && to.height === height) return;
  ({ width, height } = to);
  draw();
}
useResizeObserver(box, ([entry]) => {
  if (entry) fit(entry.contentRect);
});
onMounted(() => {
  if (box.value)
    printsAs(box.value, {
      html: () => {
        const wide = props.size === 'row' ? 300 : 960;
        const high = Math.max(24, Math.round(props.size === 'sheet' ? 480 : (wide * height) / Math.max(width, 1)));
        return svgOf(props.caption, wide, high, (to) => {
          drawStrip(to, props.traces, { ...look.value, theme: 'paper' }, { width: wide, height: high });
        });
      },
    });
  if (box.value) fit(box.value.getBoundingClientRect());
  // Words on the paper are measured anew once our own type has loaded.
  if (document.fonts.status === 'loading') void document.fonts.ready.then(draw);
});
watch([() => props.traces, look], draw);
</script>

<template>
  <figure ref="box" class="strip">
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

/* Its size is that of its place: it never makes room for itself. */
.strip canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.now {
  position: absolute;
  width: 1.5px;
  background: rgb(var(--v-theme-ink));
}
</style>
