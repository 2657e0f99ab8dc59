<script setup lang="ts">
import { ref, useTemplateRef } from 'vue';
import { ImportError } from '@core/exchange';
import { type Draft } from '@core/ink';
import { troubleOf } from '../logbook/trouble';

/** Takes a picture by camera or from the gallery as evidence of an entry. The picture is stored before its ink. */
const props = defineProps<{ target: string; at: number; label: string; write: (draft: Draft) => Promise<unknown> }>();
const emit = defineEmits<{ said: [text: string] }>();

const field = useTemplateRef<HTMLInputElement>('field');
const busy = ref(false);

async function take(event: Event): Promise<void> {
  const file = event.target instanceof HTMLInputElement ? event.target.files?.[0] : undefined;
  if (!file) return;
  busy.value = true;
  try {
    const { at, target } = props;
    const { keepPicture } = await import('../ledger/pictures');
    await keepPicture(file, (picture) => props.write({ kind: 'picture', at, picture, target }));
    emit('said', 'Picture saved with the reading.');
  } catch (error) {
    emit('said', error instanceof ImportError ? error.message : troubleOf(error, 'The picture was not saved.'));
  } finally {
    busy.value = false;
    if (field.value) field.value.value = '';
  }
}

defineExpose({ open: () => field.value?.click() });
</script>

<template>
  <span>
    <input ref="field" class="unseen-text" type="file" accept="image/*" tabindex="-1" :aria-label="label" @change="take" />
    <slot :busy="busy" :open="() => field?.click()" />
  </span>
</template>
