<script setup lang="ts">
import { Chart, Filler, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { computed, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import type { Ahead } from '@core/compare';
import { fixed, nominal, spell } from '@core/quantity';
import { useDrawnTheme } from '../strip/drawnTheme';
import { PALETTES } from '../kit/theme';
import { penOf } from '../strip/pens';
import { timeRules } from '../strip/trace';

/** By how much setups are ahead of the baseline all along, in % of level, each with its margin as a band. Inside the band of the baseline nothing is told. */
const props = defineProps<{ lines: { name: string; pen: number; ahead: readonly Ahead[] }[]; baseline: string; caption: string }>();

Chart.register(LineController, LineElement, PointElement, LinearScale, Filler);
const theme = useDrawnTheme();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
let chart: Chart | undefined;

const end = computed(() => Math.max(60, ...props.lines.flatMap(({ ahead }) => ahead.at(-1)?.seconds ?? 0)));

function draw(): void {
  chart?.destroy();
  if (!canvas.value) return;
  const palette = PALETTES[theme.value];
  const ticks = { color: palette.soft, font: { family: "'Atkinson Hyperlegible Mono Variable', monospace", size: 12 } };
  chart = new Chart(canvas.value, {
    type: 'line',
    data: {
      datasets: props.lines.flatMap(({ name, pen, ahead }) => {
        const { colour, dash } = penOf(pen, theme.value);
        const edge = { borderWidth: 0, pointRadius: 0, borderColor: 'transparent' };
        return [
          { ...edge, label: `${name}, least`, data: ahead.map(({ seconds, value, margin }) => ({ x: seconds, y: value - margin })) },
          {
            ...edge,
            label: `${name}, most`,
            data: ahead.map(({ seconds, value, margin }) => ({ x: seconds, y: value + margin })),
            fill: '-1',
            backgroundColor: `${colour}26`,
          },
          {
            label: name,
            data: ahead.map(({ seconds, value }) => ({ x: seconds, y: value })),
            borderColor: colour,
            borderDash: dash,
            borderWidth: 2,
            pointRadius: 0,
          },
        ];
      }),
    },
    options: {
      animation: false,
      parsing: false,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: { top: 12, right: 14, bottom: 4, left: 4 } },
      scales: {
        x: {
          type: 'linear',
          min: 0,
          max: end.value,
          border: { display: false },
          grid: { color: palette.grid },
          afterBuildTicks: (axis) => {
            const step = timeRules(end.value, 10).fine;
            axis.ticks = Array.from({ length: Math.floor(end.value / step) + 1 }, (_, index) => ({ value: index * step }));
          },
          ticks: { ...ticks, callback: (value) => (Number(value) === 0 ? '0' : nominal(Number(value))) },
        },
        y: {
          type: 'linear',
          border: { display: false },
          title: { display: true, text: `% ahead of ${props.baseline}`, color: palette.soft },
          grid: { color: ({ tick }) => (tick.value === 0 ? palette.ink : palette.grid) },
          ticks: { ...ticks, callback: (value) => `${Number(value) > 0 ? '+' : ''}${fixed(Number(value))} %` },
        },
      },
      plugins: { legend: { display: false } },
    },
  });
}
onMounted(draw);
watch([() => props.lines, theme], draw);
onBeforeUnmount(() => chart?.destroy());

/** Where it stands at the quarters of the time, for who cannot see it. */
const told = computed(() =>
  props.lines.map(({ name, ahead }) => ({
    name,
    at: [0.25, 0.5, 0.75, 1].flatMap((share) => {
      const found = ahead[Math.round((ahead.length - 1) * share)];
      if (!found) return [];
      const says = found.isTold ? `${found.value > 0 ? '+' : ''}${fixed(found.value)} ± ${fixed(found.margin)} %` : 'not told apart';
      return [`${spell(found.seconds)}: ${says}`];
    }),
  })),
);
</script>

<template>
  <figure>
    <div class="paper"><canvas ref="canvas" role="img" :aria-label="caption" /></div>
    <table class="unseen-text">
      <caption>
        {{
          caption
        }}
      </caption>
      <tbody>
        <tr v-for="line in told" :key="line.name">
          <th scope="row">{{ line.name }}</th>
          <td v-for="each in line.at" :key="each">{{ each }}</td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
figure {
  position: relative;
  height: 100%;
  margin: 0;
  overflow: hidden;
}

.paper {
  position: relative;
  height: 100%;
}
</style>
