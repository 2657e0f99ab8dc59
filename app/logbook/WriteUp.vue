<script setup lang="ts">
import { useRouter } from 'vue-router';
import { report } from '../kit/failures';
import { usePieces, type PieceSource } from './pieces';

/** Writes runs up: a draft that is ready at once. */
const props = defineProps<{ name: string; source: PieceSource }>();

const router = useRouter();
const pieces = usePieces();
async function begin(): Promise<void> {
  try {
    const { id } = await pieces.begin(props.name, props.source);
    await router.push(`/pieces/${id}`);
  } catch (error) {
    report(error);
  }
}
</script>

<template><v-btn variant="text" title="Text, tables and pictures of it, to publish" @click="begin">Write it up</v-btn></template>
