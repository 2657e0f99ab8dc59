<script setup lang="ts">
import { computed } from 'vue';
import { sourceSays, type RunRecord } from '@core/ink';
import { spell } from '@core/quantity';
import { decidedAt, type Forecast } from '@core/run';
import InkStrip from '../strip/InkStrip.vue';
import { ghostDots, tracedWithPencil } from '../strip/trace';
import type { Opened } from '../workers/opened';

/** The growing strip of a lane, with the charge to expect under it. Drawn when ink arrives, and when a check has turned out missed. */
const props = defineProps<{
  run: RunRecord;
  elapsed: number;
  coming: Forecast[];
  ghost?: Opened | undefined;
  isAlone?: boolean | undefined;
}>();

const HALF_HOUR = 1800;

const header = computed(() => props.run.header);
/** The paper is as long as the next half hour, so that it is drawn anew twice an hour and when ink arrives. */
const until = computed(() => (Math.floor((props.elapsed + 300) / HALF_HOUR) + 1) * HALF_HOUR);
/** The strip looks no further than the last moment at which a check could turn out missed, so that it is not drawn every second. */
const settled = computed(() => decidedAt(props.run, props.elapsed));
const traces = computed(() => [
  { ...tracedWithPencil(props.run, settled.value, props.coming), ghost: ghostDots(props.run, props.ghost?.sketch.tracks.percent) },
]);
const caption = computed(() => {
  const level = props.run.tracks.percent.values[props.run.tracks.percent.values.length - 1];
  const shown = level === undefined ? 'level unknown' : `${level} %`;
  return `${header.value.device.name} on ${sourceSays(header.value)}, ${shown} after ${spell(props.elapsed)}`;
});
</script>

<template>
  <InkStrip :traces="traces" :size="isAlone ? 'sheet' : 'lane'" :until="until" :now="elapsed" :caption="caption" />
</template>
