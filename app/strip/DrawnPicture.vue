<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { onMounted, useTemplateRef, watch } from 'vue';
import { printsAs } from '../kit/printing';
import { surfaceOn } from './layers/canvasSurface';
import { useDrawnTheme } from './drawnTheme';
import { svgOf } from './layers/svgSurface';
import type { PictureBody } from './picture';

/** What layers draw, as wide as its place; on paper drawn anew. */
const props = defineProps<{ body: PictureBody; height: number; caption: string }>();

const theme = useDrawnTheme();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const box = useTemplateRef<HTMLElement>('box');
const { width } = useElementSize(box);

function draw(): void {
  const to = canvas.value && width.value > 0 ? surfaceOn(canvas.value, width.value, props.height) : undefined;
  if (to) props.body(to, theme.value, { left: 0, top: 0, right: width.value, bottom: props.height });
}
watch([width, theme, () => props.body, () => props.height], draw, { flush: 'post' });
onMounted(() => {
  draw();
  void document.fonts.ready.then(draw);
  const PRINTED = 720;
  if (box.value)
    printsAs(box.value, {
      html: () =>
        svgOf(props.caption, PRINTED, props.height, (to) => {
          props.body(to, 'paper', { left: 0, top: 0, right: PRINTED, bottom: props.height });
        }),
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
