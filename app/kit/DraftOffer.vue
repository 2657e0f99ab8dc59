<script setup lang="ts">
/** Offers what was half filled in when a form was last closed. */
defineProps<{ draft: { isOffered: { value: boolean }; goOn: () => void; drop: () => void } }>();
</script>

<template>
  <p v-if="draft.isOffered.value" class="offer" role="status">
    This was half filled in when it was last closed.
    <v-btn size="small" @click="draft.goOn">Go on with it</v-btn>
    <v-btn size="small" variant="text" @click="draft.drop">Begin anew</v-btn>
  </p>
</template>

<style scoped>
.offer {
  padding-block: 0.3rem 0.6rem;
  color: rgb(var(--v-theme-due));
}
</style>
