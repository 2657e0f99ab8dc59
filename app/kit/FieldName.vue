<script setup lang="ts">
/** The name of a field, and what is only said with it: its unit, or which of several rows it belongs to. */
defineProps<{ name: string; said?: string }>();
</script>

<template>
  {{ name }}<span v-if="said" class="unseen-text">{{ said }}</span>
</template>
