<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { headlineOf, questionOf } from '@core/advise';
import { useLogbook } from './runs';
import { useShelf } from './shelf';
import type { Beside } from '../workers/opened';
import HeadlineNote from './HeadlineNote.vue';

/** What the runs of a study come to so far, by what the study is about. */
const props = defineProps<{ ids: readonly string[] }>();

const logbook = useLogbook();
const shelf = useShelf();

const laid = shallowRef<Beside[]>([]);
const isLaying = ref(false);
watch(
  () => JSON.stringify(props.ids),
  async (_asked, _before, onCleanup) => {
    let isAsked = true;
    onCleanup(() => (isAsked = false));
    const { ids } = props;
    isLaying.value = true;
    const found = await logbook.openForComparison(ids, () => undefined).finally(() => (isLaying.value = false));
    if (isAsked) laid.value = ids.flatMap((id) => found.get(id) ?? []);
  },
  { immediate: true },
);

const headline = computed(() => headlineOf(questionOf(laid.value, shelf.everything())));
</script>

<template>
  <HeadlineNote v-if="headline" :headline="headline" />
  <p v-else-if="isLaying" class="laying soft" role="status">Reading the runs of this study …</p>
</template>

<style scoped>
.laying {
  padding: 0.9rem 1.5rem;
}
</style>
