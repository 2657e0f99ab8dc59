<script setup lang="ts">
import { computed } from 'vue';
import type { Plotted } from '@core/advise';
import { spell } from '@core/quantity';
import CopyButton from '../kit/CopyButton.vue';
import { dayText } from '../kit/dates';
import DrawnPicture from '../strip/DrawnPicture.vue';
import PictureButton from '../strip/PictureButton.vue';
import { scatterBody } from './scatter';

/** Setups by two figures, the better end of each to the left and up, with their margins; on the dashed line none is beaten. */
const props = defineProps<{
  caption: string;
  /** What lies to the right, and how it is written. */
  across: string;
  write: (x: number) => string;
  points: Plotted[];
  /** Of each setup of the group, by its place. */
  pens: number[];
}>();

const HEIGHT = 300;
const body = computed(() => scatterBody(props));
const text = computed(() => ({ title: props.caption, lines: [], foot: dayText(Date.now(), { year: true }) }));
</script>

<template>
  <figure data-copied>
    <CopyButton name="its figures" is-row>
      <PictureButton :name="caption" :text="text" :body="body" />
    </CopyButton>
    <figcaption class="soft">{{ caption }}</figcaption>
    <DrawnPicture :body="body" :height="HEIGHT" :caption="caption" />
    <table class="unseen-text">
      <caption>
        {{
          caption
        }}
      </caption>
      <tbody>
        <tr v-for="{ index, name, x, y, yMargin, isOn } in points" :key="index">
          <th scope="row">{{ name }}</th>
          <td>{{ write(x) }}</td>
          <td>{{ spell(y) }} ± {{ spell(yMargin) }}</td>
          <td>{{ isOn ? 'not beaten' : 'beaten' }}</td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
figure {
  position: relative;
  margin: 0;
  min-width: 0;
  overflow: hidden;
}

figcaption {
  font-size: 0.85rem;
}
</style>
