<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { undoLast, undoNote } from '../kit/undo';
import { report } from '../kit/failures';

/** What was done last, for a while, with the key that takes it back. */
const SHOWN = 9000;
const isHeld = ref(false);
let timer: ReturnType<typeof setTimeout> | undefined;
function wait(): void {
  clearTimeout(timer);
  timer = setTimeout(() => {
    if (isHeld.value) wait();
    else undoNote.value = undefined;
  }, SHOWN);
}
watch(undoNote, (now) => now && wait(), { immediate: true });
onBeforeUnmount(() => {
  clearTimeout(timer);
});
const undo = () => undoLast().catch(report);
</script>

<template>
  <p v-if="undoNote" class="did" @pointerenter="isHeld = true" @pointerleave="isHeld = false">
    <span role="status">{{ undoNote.says }}</span>
    <v-btn v-if="undoNote.canUndo" variant="text" size="small" @click="undo">Undo <kbd>Ctrl Z</kbd></v-btn>
  </p>
</template>

<style scoped>
.did {
  display: flex;
  gap: 0.75rem;
  align-items: center;
  justify-content: end;
  min-height: 2.4rem;
  padding: 0.1rem 1.5rem;
  border-top: 1px solid rgb(var(--v-theme-line));
  background: rgb(var(--v-theme-paper));
  font-size: 0.88rem;
}

kbd {
  margin-inline-start: 0.4rem;
}

@media (hover: none) {
  kbd {
    display: none;
  }
}
</style>
