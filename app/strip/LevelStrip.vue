<script setup lang="ts">
import { computed } from 'vue';
import { fixed, inUnit, quantityOf, shownIn, shownUnit, TEMPERATURES, trimmed, type Quantity } from '@core/quantity';
import DrawnPicture from './DrawnPicture.vue';
import { scaleOf } from './layers/frame';
import type { PictureText } from './picture';
import PictureButton from './PictureButton.vue';
import { plotBody, type PlotLine } from './plot';

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
  /** The title and caption around its picture. */
  text: PictureText;
}>();

/** Dashes that tell the lines of heat apart. */
const DASHES = [
  [6, 3],
  [2, 3],
  [10, 4],
  [4, 2, 1, 2],
] as const;
/** Of more points than that none was read by hand alone: they have no nibs. */
const MOST_NIBS = 60;

const isHeat = (of: Quantity) => TEMPERATURES.includes(of);
const heats = computed(() => props.lines.filter(({ of }) => isHeat(of)));
const plotted = computed(() =>
  props.lines.map(({ of, name, points, pen }): PlotLine => {
    const dash = DASHES[heats.value.findIndex((each) => each.of === of) % DASHES.length] ?? [];
    return {
      name,
      points: points.map(([level, value]) => [level, shownIn(quantityOf(of).unit, value)]),
      pen: pen ?? (isHeat(of) ? { dash } : props.pen),
      isRight: isHeat(of),
      isRead: !isHeat(of) && points.length <= MOST_NIBS,
    };
  }),
);
const valuesOf = (isRight: boolean) =>
  plotted.value.filter((line) => line.isRight === isRight).flatMap(({ points }) => points.map(([, y]) => y));
const axis = (of: Quantity, title: string, isRight: boolean) => {
  const values = valuesOf(isRight);
  const { track, unit } = quantityOf(of);
  return values.length === 0
    ? undefined
    : { title, ...scaleOf(track?.axis ?? 'from zero', values, { unit, isRise: props.isRise }), write: (value: number) => trimmed(value) };
};
const body = computed(() =>
  plotBody({
    across: { title: 'level, %', min: 0, max: 100, step: 10, write: String },
    left: axis('watts', 'watts at the cable', false),
    right: axis('celsius', `${props.isRise ? 'rise, ' : ''}${shownUnit('°C')}`, true),
    lines: plotted.value,
  }),
);
</script>

<template>
  <figure class="strip" data-copied>
    <div class="tools chosen-of">
      <slot />
      <PictureButton :name="caption" :text="text" :body="body" />
    </div>
    <DrawnPicture :body="body" :caption="caption" />
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

.tools {
  display: flex;
  gap: 1.5rem;
  align-items: center;
  justify-content: end;
  min-height: 2.3rem;
  padding: 0.25rem 0.9rem 0 0.5rem;
}

@media (max-width: 40em) {
  .tools {
    order: 2;
  }

  .strip {
    height: auto;
  }
}
</style>
