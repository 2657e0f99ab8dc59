<script setup lang="ts">
import { computed } from 'vue';
import type { Work } from './work';

/** A long work: what is being done, how far it is, and a slot for what calls it off. Counted where it is said of what; else a share. */
const props = defineProps<{ does: string; at: Work; name?: string; counts?: string }>();

const share = computed(() => (props.at.of > 0 ? props.at.done / props.at.of : 0));
const amount = (count: number) => (props.counts === 'MB' ? (count / 1e6).toFixed(1) : String(Math.round(count)));
const says = computed(() => {
  const { does, at, counts } = props;
  // Of how many is not known yet.
  if (at.of === 0) return does;
  return `${does}, ${counts ? `${amount(at.done)} of ${amount(at.of)} ${counts}` : `${Math.round(share.value * 100)} %`}`;
});
</script>

<template>
  <p class="work">
    <v-progress-linear :model-value="share * 100" :aria-label="name ?? does" />
    <span role="status">{{ says }}</span>
    <slot />
  </p>
</template>

<style scoped>
.work {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
}
</style>
