<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { onMounted, useTemplateRef, watch } from 'vue';
import { escapeHtml } from '@core/quantity';
import { printsAs } from '../kit/printing';
import { canvasSurface } from './layers/canvasSurface';
import { useDrawnTheme } from './drawnTheme';
import { svgSurface } from './layers/svgSurface';
import { pageWidth, type PictureBody } from './picture';

/** What layers draw, as wide as its place; on paper drawn anew. */
const props = defineProps<{ body: PictureBody; height: number; caption: string }>();

const theme = useDrawnTheme();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const box = useTemplateRef<HTMLElement>('box');
const { width } = useElementSize(box);

function draw(): void {
  const ctx = canvas.value?.getContext('2d');
  if (!canvas.value || !ctx || width.value === 0) return;
  const dense = window.devicePixelRatio || 1;
  [canvas.value.width, canvas.value.height] = [Math.round(width.value * dense), Math.round(props.height * dense)];
  ctx.scale(dense, dense);
  props.body(canvasSurface(ctx), theme.value, { left: 0, top: 0, right: width.value, bottom: props.height });
}
watch([width, theme, () => props.body, () => props.height], draw, { flush: 'post' });
onMounted(() => {
  draw();
  void document.fonts.ready.then(draw);
  const PRINTED = 720;
  if (box.value)
    printsAs(box.value, {
      html: () => {
        const { body, ...to } = svgSurface(pageWidth());
        props.body(to, 'paper', { left: 0, top: 0, right: PRINTED, bottom: props.height });
        return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PRINTED} ${props.height}" role="img" aria-label="${escapeHtml(props.caption)}">${body()}</svg>`;
      },
    });
});
</script>

<template>
  <div ref="box" class="box">
    <canvas ref="canvas" role="img" :aria-label="caption" :style="{ width: '100%', height: `${height}px` }" />
  </div>
</template>

<style scoped>
.box {
  min-width: 0;
}

canvas {
  display: block;
}
</style>
