<script setup lang="ts">
import { computed } from 'vue';
import { CAUTIONS } from '@core/advise';
import type { Notice, Remark } from '@core/curve';

/** What is worth a look in a run: a line for each kind with what it does to the figures, and under it each of them, leading to its place. */
const props = defineProps<{ remarks: Remark[]; noticed: Notice | undefined }>();
const emit = defineEmits<{ point: [notice: Notice] }>();

/** How many of a kind are listed: a log whose display jumps about has thousands. */
const MOST_LISTED = 50;
/** So few of a kind are shown at once. */
const SHOWN_AT_ONCE = 3;
const isHot = computed(() => props.remarks.some(({ kind }) => kind === 'hot'));
</script>

<template>
  <section class="remarks">
    <h2>Worth a look</h2>
    <details v-for="{ kind, title, effect, notices } in remarks" :key="kind" :open="notices.length <= SHOWN_AT_ONCE">
      <summary>{{ title }}</summary>
      <ul>
        <li v-for="notice in notices.slice(0, MOST_LISTED)" :key="`${notice.from}${notice.text}`">
          <button type="button" :aria-pressed="noticed === notice" @click="emit('point', notice)">{{ notice.text }}</button>
        </li>
        <li v-if="notices.length > MOST_LISTED" class="soft">and {{ notices.length - MOST_LISTED }} more of the kind</li>
      </ul>
      <p class="soft">Its effect: {{ effect }}.</p>
    </details>
    <p v-if="isHot" class="caution">{{ CAUTIONS.hot }}</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.85rem;
}

details {
  padding: 0.25rem 0;
  font-size: 0.88rem;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
}

summary {
  padding-block: 0.3rem;
  cursor: pointer;
}

ul {
  list-style: none;
}

button {
  padding: 0.15rem 0;
  text-align: start;
  font: inherit;
  color: rgb(var(--v-theme-due));
  background: none;
  border: 0;
  cursor: pointer;
}

button[aria-pressed='true'] {
  text-decoration: underline;
}

.caution {
  padding-top: 0.5rem;
  font-size: 0.85rem;
}
</style>
