<script setup lang="ts">
/** The name of a field, and what is only said with it: its unit, or which of several rows it belongs to. */
defineProps<{ name: string; said?: string }>();
</script>

<template>
  {{ name }}<span v-if="said" class="said">{{ said }}</span>
</template>

<style scoped>
/* In the line, so that it is said as one name: a box of its own would be set apart from it by a blank. */
.said {
  font-size: 0;
}
</style>
