<script setup lang="ts">
import { max, min, nice, tickIncrement } from 'd3-array';
import { computed } from 'vue';
import type { Ahead } from '@core/compare';
import { fixed, spell } from '@core/quantity';
import DrawnPicture from '../strip/DrawnPicture.vue';
import { momentLabel } from '../strip/layers/frame';
import type { PictureText } from '../strip/picture';
import PictureButton from '../strip/PictureButton.vue';
import { plotBody } from '../strip/plot';
import { timeRules } from '../strip/trace';

/** By how much setups are ahead of the baseline all along, in % of level, each with its margin as a band. Inside the band of the baseline nothing is told. */
const props = defineProps<{
  lines: { name: string; pen: number; ahead: readonly Ahead[] }[];
  baseline: string;
  caption: string;
  /** The title and caption around its picture. */
  text: PictureText;
}>();

const end = computed(() => Math.max(60, ...props.lines.flatMap(({ ahead }) => ahead.at(-1)?.seconds ?? 0)));
/** Points of level, with their sign. */
const points = (value: number) => `${value > 0 ? '+' : ''}${fixed(value)} %`;
const body = computed(() => {
  const all = props.lines.flatMap(({ ahead }) => ahead);
  const [low, high] = nice(
    min([0, ...all.map(({ value, margin }) => value - margin)]) ?? 0,
    max([1, ...all.map(({ value, margin }) => value + margin)]) ?? 1,
    6,
  );
  const step = Math.max(1, tickIncrement(low, high, 6));
  return plotBody({
    across: { title: 'since plug-in', min: 0, max: end.value, step: timeRules(end.value, 10).fine, write: momentLabel },
    left: { title: `% ahead of ${props.baseline}`, min: low, max: high, step, write: points },
    zero: 0,
    lines: props.lines.map(({ name, pen, ahead }) => ({
      name,
      pen,
      points: ahead.map(({ seconds, value }) => [seconds, value]),
      margins: ahead.map(({ margin }) => margin),
    })),
  });
});

/** Where it stands at the quarters of the time, for who cannot see it. */
const told = computed(() =>
  props.lines.map(({ name, ahead }) => ({
    name,
    at: [0.25, 0.5, 0.75, 1].flatMap((share) => {
      const found = ahead[Math.round((ahead.length - 1) * share)];
      if (!found) return [];
      const says = found.isDistinguishable ? `${points(found.value).replace(' %', '')} ± ${fixed(found.margin)} %` : 'not told apart';
      return [`${spell(found.seconds)}: ${says}`];
    }),
  })),
);
</script>

<template>
  <figure data-copied>
    <div class="tools chosen-of"><PictureButton :name="caption" :text="text" :body="body" /></div>
    <DrawnPicture :body="body" :caption="caption" />
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
  display: flex;
  flex-direction: column;
  height: 100%;
  margin: 0;
  overflow: hidden;
}

.tools {
  display: flex;
  justify-content: end;
  padding: 0 0.9rem 0 0.5rem;
}

@media (max-width: 40em) {
  .tools {
    order: 2;
  }

  figure {
    height: auto;
  }
}
</style>
