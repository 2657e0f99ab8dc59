<script setup lang="ts">
import { defineAsyncComponent, ref, shallowRef, useTemplateRef } from 'vue';
import { tableIn } from '../kit/copy';
import type { PictureBody, PictureText } from './picture';

/** Takes a picture of what it stands at: what it is given, else the table. */
const props = defineProps<{ name: string; text: PictureText; body?: PictureBody }>();

const PictureSheet = defineAsyncComponent(() => import('./PictureSheet.vue'));
const place = useTemplateRef<HTMLElement>('place');
const open = ref(false);
const pictured = shallowRef<{ body: PictureBody; seen: { width: number; height: number } }>();
async function press(): Promise<void> {
  const around = place.value?.closest('[data-copied]');
  const { clientWidth: width = 900, clientHeight: height = 420 } = around ?? {};
  const table = around?.querySelector('table');
  const body = props.body ?? (table && (await import('./tablePicture')).tableBody(tableIn(table, props.name)));
  if (!body) return;
  pictured.value = { body, seen: { width, height } };
  open.value = true;
}
</script>

<template>
  <span ref="place" data-acts>
    <v-btn size="small" variant="text" :aria-label="`Picture of ${name}`" @click="press">Picture</v-btn>
    <PictureSheet v-if="open && pictured" v-model="open" :text="text" :body="pictured.body" :seen="pictured.seen" />
  </span>
</template>
