<script setup lang="ts">
/** The place of a figure, before it. It is said and copied as a rank, so that nobody reads 3 and 21 % as 321 %. */
defineProps<{ place: string }>();
</script>

<template>
  <span class="rank"><span class="said">rank </span>{{ place }}<span class="said">: </span></span>
</template>

<style scoped>
/* In the line, so that it is copied in one line with its figure. */
.said {
  font-size: 0;
}

.rank {
  margin-inline-end: 0.4rem;
  font-size: 0.85em;
  font-weight: 400;
  color: rgb(var(--v-theme-soft));
}
</style>
