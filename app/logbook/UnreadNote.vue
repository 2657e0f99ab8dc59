<script setup lang="ts">
/** Says that some things of a kind are stored and cannot be read: they stay where they are. */
defineProps<{ unread: readonly string[] }>();
</script>

<template>
  <p v-if="unread.length > 0" class="due unread" role="alert">
    {{
      unread.length === 1 ? 'One thing that is stored here cannot be read' : `${unread.length} things that are stored here cannot be read`
    }}
    and {{ unread.length === 1 ? 'stays as it is' : 'stay as they are' }}: {{ unread[0] }}
  </p>
</template>

<style scoped>
.unread {
  padding: 0.5rem 1.5rem;
}
</style>
