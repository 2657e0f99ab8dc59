<script setup lang="ts">
import { useDraggable } from 'vue-draggable-plus';

/** Lets the items of a list be dragged by their grips. Draws nothing; loaded after the first picture. */
const props = defineProps<{ container: HTMLElement; handle: string; items: string }>();
const emit = defineEmits<{ moved: [item: HTMLElement, to: number] }>();

useDraggable(props.container, {
  handle: props.handle,
  draggable: props.items,
  animation: 0,
  onEnd: ({ item, oldDraggableIndex, newDraggableIndex }) => {
    if (newDraggableIndex !== undefined && newDraggableIndex !== oldDraggableIndex) emit('moved', item, newDraggableIndex);
  },
});
</script>

<template><span hidden /></template>
