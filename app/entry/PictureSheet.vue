<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { pictureOf } from '../ledger/pictures';

/** A picture that was taken as evidence. */
const props = defineProps<{ picture: string; title: string }>();
const emit = defineEmits<{ close: [] }>();

const address = ref('');
const isGone = ref(false);
const letGo = () => {
  URL.revokeObjectURL(address.value);
};
watch(
  () => props.picture,
  async (id) => {
    letGo();
    const found = await pictureOf(id);
    isGone.value = !found;
    address.value = found ? URL.createObjectURL(found) : '';
  },
  { immediate: true },
);
onBeforeUnmount(letGo);
</script>

<template>
  <v-dialog :model-value="true" max-width="900" aria-labelledby="picture-title" @update:model-value="emit('close')">
    <v-card>
      <h2 id="picture-title">{{ title }}</h2>
      <img v-if="address" :src="address" :alt="title" />
      <p v-if="isGone" role="alert">This picture is not in this logbook: the run came in without it.</p>
      <div class="buttons"><v-btn @click="emit('close')">Close</v-btn></div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
img {
  max-width: 100%;
  max-height: 70vh;
  object-fit: contain;
}
</style>
