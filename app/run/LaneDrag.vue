<script setup lang="ts">
import { useDraggable } from 'vue-draggable-plus';

/** Lets lanes be dragged by their grips. Draws nothing; loaded after the first picture. */
const props = defineProps<{ container: HTMLElement }>();
const emit = defineEmits<{ moved: [runId: string, to: number] }>();

useDraggable(props.container, {
  handle: '.grip',
  draggable: '.lane',
  animation: 0,
  onEnd: ({ item, oldDraggableIndex, newDraggableIndex }) => {
    if (newDraggableIndex !== undefined && newDraggableIndex !== oldDraggableIndex)
      emit('moved', item.dataset.run ?? '', newDraggableIndex);
  },
});
</script>

<template><span hidden /></template>
