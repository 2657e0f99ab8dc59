<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import CopyButton from '../kit/CopyButton.vue';
import { fileName, saveBlob } from '../kit/saveFile';
import { useSettings } from '../kit/settings';
import { pageWidth } from './layers/canvasSurface';
import {
  asSeen,
  GROUNDS,
  pictureCanvas,
  picturePng,
  pictureSvg,
  PICTURE_SHAPES,
  type Ground,
  type PictureJob,
  type PictureBody,
  type PictureText,
} from './picture';

/** Takes a picture of what stands on the screen: a shape, a ground, and out of the program as PNG or SVG. What is shown is what is saved. */
const props = defineProps<{ text: PictureText; body: PictureBody; seen: { width: number; height: number } }>();
const open = defineModel<boolean>({ required: true });

const settings = useSettings();
const shapes = computed(() => [asSeen(props.seen), ...PICTURE_SHAPES]);
const shapeId = ref('wide');
const ground = ref<Ground>(settings.theme === 'paper' ? 'paper' : 'dark');
/** How words stand in an SVG: as text they can be changed and found, as outlines they look alike everywhere. */
const WORDS = ['text', 'outlines'] as const;
const words = ref<(typeof WORDS)[number]>('text');
const error = ref('');
const picture = computed<PictureJob>(() => ({
  shape: shapes.value.find(({ id }) => id === shapeId.value) ?? asSeen(props.seen),
  text: props.text,
  ground: ground.value,
  body: props.body,
}));

const place = useTemplateRef<HTMLElement>('place');
const { width: room } = useElementSize(place);
/** How large it is shown, in pixels: as large as the sheet has room. */
const SHOWN = { width: 640, height: 420 };
function show(): void {
  const { width, height } = picture.value.shape;
  const share = Math.min(SHOWN.width / width, SHOWN.height / height, (room.value || SHOWN.width) / width);
  const canvas = pictureCanvas(picture.value, share * (window.devicePixelRatio || 1));
  canvas.style.width = `${width * share}px`;
  canvas.setAttribute('role', 'img');
  canvas.setAttribute('aria-label', `${props.text.title}, as it will be saved`);
  place.value?.replaceChildren(canvas);
}
onMounted(show);
watch([picture, room], show);

async function save(ending: string, make: () => Promise<Blob>): Promise<void> {
  error.value = '';
  try {
    saveBlob(`${fileName(props.text.title, picture.value.shape.id)}.${ending}`, await make());
  } catch (cause) {
    error.value = cause instanceof Error ? cause.message : String(cause);
  }
}
async function svg(): Promise<Blob> {
  const outline = words.value === 'outlines' ? await (await import('./layers/outlines')).fetchOutlines() : undefined;
  return new Blob([pictureSvg(picture.value, pageWidth(), outline)], { type: 'image/svg+xml;charset=utf-8' });
}
</script>

<template>
  <v-dialog v-model="open" max-width="720" aria-labelledby="picture-title">
    <v-card>
      <h2 id="picture-title">Take a picture</h2>
      <div ref="place" class="place" :class="ground" />
      <v-select v-model="shapeId" :items="shapes" item-title="says" item-value="id" label="Shape" density="compact" />
      <v-radio-group v-model="ground" inline hide-details label="Ground">
        <v-radio v-for="each in GROUNDS" :key="each" :value="each" :label="each" />
      </v-radio-group>
      <v-radio-group v-model="words" inline hide-details label="Words in an SVG">
        <v-radio v-for="each in WORDS" :key="each" :value="each" :label="each" />
      </v-radio-group>
      <p v-if="error" class="due" role="alert">{{ error }}</p>
      <div class="buttons">
        <v-btn variant="flat" color="primary" @click="save('png', () => picturePng(picture))">Save as PNG</v-btn>
        <v-btn @click="save('svg', svg)">Save as SVG</v-btn>
        <CopyButton name="the picture" :take="() => ({ picture: picturePng(picture) })" />
        <v-btn @click="open = false">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.place {
  display: grid;
  place-items: center;
  min-width: 0;
  overflow: hidden;
  padding: 0.5rem;
  background: rgb(var(--v-theme-desk));
}

/* What shows through is shown as such. */
.place.transparent {
  background: repeating-conic-gradient(rgb(var(--v-theme-desk)) 0 25%, rgb(var(--v-theme-paper)) 0 50%) 0 0 / 16px 16px;
}
</style>
