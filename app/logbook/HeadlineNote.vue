<script setup lang="ts">
import type { Headline } from '@core/advise';
import CopyButton from '../kit/CopyButton.vue';

/** The answer of a comparison or a study: who should buy what, how sure that is and what it goes by. */
const props = defineProps<{ headline: Headline }>();
const taken = () => ({ text: [...props.headline.says, props.headline.sure].join('\n') });
</script>

<template>
  <section class="headline" aria-label="In short" data-copied>
    <p v-for="(sentence, index) in headline.says" :key="sentence" :class="{ first: index === 0 }">{{ sentence }}</p>
    <p class="soft">{{ headline.sure }}</p>
    <CopyButton name="the answer in short" :take="taken" />
  </section>
</template>

<style scoped>
.headline {
  position: relative;
  padding: 0.9rem 5.5rem 1rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}

.copy {
  position: absolute;
  inset-block-start: 0.6rem;
  inset-inline-end: 1rem;
}

p {
  max-width: 60rem;
  margin-block: 0 0.2rem;
}

.first {
  font-size: 1.15rem;
  font-weight: 700;
}

.soft {
  font-size: 0.88rem;
}
</style>
