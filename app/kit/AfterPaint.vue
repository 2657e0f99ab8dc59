<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { afterPaint } from './afterPaint';

/** What can wait until the page has been painted without it. */
const isPainted = ref(false);
onMounted(() => {
  afterPaint(() => (isPainted.value = true));
});
</script>

<template>
  <slot v-if="isPainted" />
</template>
