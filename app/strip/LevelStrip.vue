<script setup lang="ts">
import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { max } from 'd3-array';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import { fixed } from '@core/quantity';
import { useSettings } from '../kit/settings';
import { PALETTES } from '../kit/theme';
import { penOf } from './pens';

/** Power by level: percent to the right, watts upwards, for charges that are compared at what the battery holds rather than at a time. */
const props = defineProps<{ points: [level: number, watts: number][]; pen: number; caption: string }>();

Chart.register(LineController, LineElement, PointElement, LinearScale);
const settings = useSettings();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
let chart: Chart | undefined;

function draw(): void {
  chart?.destroy();
  if (!canvas.value) return;
  const palette = PALETTES[settings.theme];
  const pen = penOf(props.pen, settings.theme);
  const font = { family: "'Atkinson Hyperlegible Mono Variable', monospace", size: 12 };
  const scale = (title: string, top: number) => ({
    type: 'linear' as const,
    min: 0,
    max: top,
    grid: { color: palette.grid },
    border: { display: false },
    title: { display: true, text: title, color: palette.soft },
    ticks: { color: palette.soft, font },
  });
  const top = max(props.points, ([, watts]) => watts) ?? 1;
  chart = new Chart(canvas.value, {
    type: 'line',
    data: {
      datasets: [
        {
          data: props.points.map(([x, y]) => ({ x, y })),
          borderColor: pen.colour,
          borderWidth: 2,
          pointRadius: props.points.length > 60 ? 0 : 3.5,
          pointBackgroundColor: pen.hollow ? palette.paper : pen.colour,
          pointBorderColor: pen.colour,
        },
      ],
    },
    options: {
      animation: false,
      parsing: false,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      scales: { x: scale('level, %', 100), y: scale('watts at the cable', Math.ceil((top * 1.08) / 5) * 5) },
      layout: { padding: { top: 12, right: 14, bottom: 18, left: 4 } },
    },
  });
}
onMounted(draw);
watch([() => props.points, () => settings.theme], draw);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <figure class="strip">
    <div class="tools chosen-of"><slot /></div>
    <div class="paper"><canvas ref="canvas" role="img" :aria-label="caption" /></div>
    <table class="unseen-text">
      <caption>
        {{
          caption
        }}
      </caption>
      <tbody>
        <tr v-for="([level, watts], index) in points.slice(0, 60)" :key="index">
          <th scope="row">{{ fixed(level) }} %</th>
          <td>{{ fixed(watts, 1) }} W</td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
.strip {
  position: relative;
  width: 100%;
  height: 100%;
  margin: 0;
  overflow: hidden;
  display: flex;
  flex-direction: column;
}

.tools {
  display: flex;
  justify-content: end;
  min-height: 2.3rem;
  padding: 0.25rem 0.9rem 0 0.5rem;
}

.paper {
  position: relative;
  flex: 1;
  min-height: 0;
}
</style>
