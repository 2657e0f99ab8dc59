<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, onMounted, useTemplateRef, watch } from 'vue';
import { printsAs } from '../kit/printing';
import { surfaceOn } from './layers/canvasSurface';
import { useDrawnTheme } from './drawnTheme';
import { svgOf } from './layers/svgSurface';
import type { PictureBody } from './picture';

/** What layers draw, as wide as its place, and as high where nothing else is said; on paper drawn anew. */
const props = defineProps<{ body: PictureBody; height?: number; caption: string }>();

const theme = useDrawnTheme();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const box = useTemplateRef<HTMLElement>('box');
const { width, height: room } = useElementSize(box);
const height = computed(() => props.height ?? room.value);

function draw(): void {
  const isRoom = width.value > 0 && height.value > 0;
  const to = canvas.value && isRoom ? surfaceOn(canvas.value, width.value, height.value) : undefined;
  if (to) props.body(to, theme.value, { left: 0, top: 0, right: width.value, bottom: height.value });
}
watch([width, height, theme, () => props.body], draw, { flush: 'post' });
onMounted(() => {
  draw();
  void document.fonts.ready.then(draw);
  const [wide, high] = [720, props.height ?? 400];
  if (box.value)
    printsAs(box.value, {
      html: () =>
        svgOf(props.caption, wide, high, (to) => {
          props.body(to, 'paper', { left: 0, top: 0, right: wide, bottom: high });
        }),
    });
});
</script>

<template>
  <div ref="box" class="box" :class="{ filling: !props.height }" :style="{ height: props.height ? `${props.height}px` : undefined }">
    <canvas ref="canvas" role="img" :aria-label="caption" />
  </div>
</template>

<style scoped>
/* Its size is that of its place: what is drawn never makes room for itself. */
.box {
  position: relative;
  min-width: 0;
  min-height: 0;
}

.filling {
  flex: 1;
}

/* On a phone its place is as high as it is. */
@media (max-width: 40em) {
  .filling {
    flex: none;
    height: clamp(14rem, 45vh, 22rem);
  }
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
