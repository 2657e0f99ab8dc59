<script setup lang="ts">
import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { max, min } from 'd3-array';
import { computed, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import { fixed, inUnit, quantityOf, shownIn, shownUnit, TEMPERATURES, type Quantity } from '@core/quantity';
import { useDrawnTheme } from './drawnTheme';
import { PALETTES } from '../kit/theme';
import { penOf } from './pens';

/** Power and heat by level: percent to the right, watts upwards, degrees at the right edge, for what a charge does at what the battery holds rather than at a time. */
const props = defineProps<{
  lines: {
    of: Quantity;
    name: string;
    points: [level: number, value: number][];
    /** Where several runs are drawn, that of its own. */
    pen?: number | undefined;
  }[];
  pen: number;
  /** Whether temperatures are drawn as what they rose by. */
  isRise?: boolean;
  caption: string;
}>();

Chart.register(LineController, LineElement, PointElement, LinearScale);
const theme = useDrawnTheme();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
let chart: Chart | undefined;

/** Dashes that tell the lines of heat apart. */
const DASHES = [
  [6, 3],
  [2, 3],
  [10, 4],
  [4, 2, 1, 2],
];

const isHeat = (of: Quantity) => TEMPERATURES.includes(of);
const heats = computed(() => props.lines.filter(({ of }) => isHeat(of)));
type Line = (typeof props.lines)[number];
const penFor = ({ pen = props.pen }: Line) => penOf(pen, theme.value);
function dashOf(line: Line): number[] {
  if (line.pen !== undefined) return penFor(line).dash;
  return isHeat(line.of) ? (DASHES[heats.value.findIndex((each) => each.of === line.of) % DASHES.length] ?? []) : [];
}
const colourOf = (line: Line): string => (isHeat(line.of) && line.pen === undefined ? PALETTES[theme.value].soft : penFor(line).colour);

function draw(): void {
  chart?.destroy();
  if (!canvas.value) return;
  const palette = PALETTES[theme.value];
  const font = { family: "'Atkinson Hyperlegible Mono Variable', monospace", size: 12 };
  const scale = (title: string, range: { min: number; max: number }, position: 'left' | 'right' | 'bottom') => ({
    type: 'linear' as const,
    position,
    ...range,
    grid: { color: palette.grid, drawOnChartArea: position !== 'right' },
    border: { display: false },
    title: { display: true, text: title, color: palette.soft },
    ticks: { color: palette.soft, font },
  });
  const shown = (of: Quantity, value: number) => shownIn(quantityOf(of).unit, value);
  const degrees = heats.value.flatMap(({ of, points }) => points.map(([, value]) => shown(of, value)));
  const top = max(props.lines.find(({ of }) => of === 'watts')?.points ?? [], ([, watts]) => watts) ?? 1;
  const tens = { min: Math.floor((min(degrees) ?? 20) / 10) * 10, max: Math.ceil((max(degrees) ?? 40) / 10) * 10 };
  chart = new Chart(canvas.value, {
    type: 'line',
    data: {
      datasets: props.lines.map((line) => {
        const { of, name, points } = line;
        const pen = penFor(line);
        return {
          label: name,
          yAxisID: isHeat(of) ? 'heat' : 'y',
          data: points.map(([x, value]) => ({ x, y: shown(of, value) })),
          borderColor: colourOf(line),
          borderDash: dashOf(line),
          borderWidth: isHeat(of) ? 1.5 : 2,
          pointRadius: isHeat(of) || points.length > 60 ? 0 : 3.5,
          pointBackgroundColor: pen.hollow ? palette.paper : pen.colour,
          pointBorderColor: pen.colour,
        };
      }),
    },
    options: {
      animation: false,
      parsing: false,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      scales: {
        x: scale('level, %', { min: 0, max: 100 }, 'bottom'),
        ...(heats.value.length < props.lines.length && {
          y: scale('watts at the cable', { min: 0, max: Math.ceil((top * 1.08) / 5) * 5 }, 'left'),
        }),
        ...(heats.value.length > 0 && {
          heat: scale(
            `${props.isRise ? 'rise, ' : ''}${shownUnit('°C')}`,
            tens,
            heats.value.length < props.lines.length ? 'right' : 'left',
          ),
        }),
      },
      layout: { padding: { top: 12, right: 14, bottom: 18, left: 4 } },
    },
  });
}
onMounted(draw);
watch([() => props.lines, theme], draw);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <figure class="strip">
    <div class="tools chosen-of">
      <p v-if="lines.length > 1" class="legend soft" aria-hidden="true">
        <span v-for="(line, index) in lines" :key="index"
          ><svg width="26" height="6">
            <line x1="0" x2="26" y1="3" y2="3" :stroke="colourOf(line)" stroke-width="2" :stroke-dasharray="dashOf(line).join(' ')" />
          </svg>
          {{ line.name }}</span
        >
      </p>
      <slot />
    </div>
    <div class="paper"><canvas ref="canvas" role="img" :aria-label="caption" /></div>
    <table class="unseen-text">
      <caption>
        {{
          caption
        }}
      </caption>
      <tbody>
        <template v-for="(line, at) in lines" :key="at">
          <tr v-for="([level, value], index) in line.points.slice(0, 60)" :key="index">
            <th scope="row">{{ line.name }} at {{ fixed(level) }} %</th>
            <td>{{ inUnit(value, quantityOf(line.of).unit, 1) }}</td>
          </tr>
        </template>
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

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 1.25rem;
  font-size: 0.85rem;
}

.tools {
  display: flex;
  gap: 1.5rem;
  align-items: center;
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
