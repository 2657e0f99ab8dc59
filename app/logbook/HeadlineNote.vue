<script setup lang="ts">
import type { Headline } from '@core/advise';

/** The answer of a comparison or a study: who should buy what, how sure that is and what it goes by. */
defineProps<{ headline: Headline }>();
</script>

<template>
  <section class="headline" aria-label="In short">
    <p v-for="(sentence, index) in headline.says" :key="sentence" :class="{ first: index === 0 }">{{ sentence }}</p>
    <p class="soft">{{ headline.sure }}</p>
  </section>
</template>

<style scoped>
.headline {
  padding: 0.9rem 1.5rem 1rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
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
