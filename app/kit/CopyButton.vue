<script setup lang="ts">
import { onBeforeUnmount, ref, useTemplateRef } from 'vue';
import { copy, tableIn, type Copied } from './copy';

/** Copies what it stands at: what it is given, else the table beside it. */
const props = defineProps<{
  /** What is copied, in a word or two: it names the button. */
  name: string;
  take?: () => Copied | Promise<Copied>;
  /** It stands in a row of its own, above the right end of what it copies. */
  isRow?: boolean;
}>();

const place = useTemplateRef<HTMLElement>('place');
const said = ref('');
let timer: ReturnType<typeof setTimeout> | undefined;
onBeforeUnmount(() => {
  clearTimeout(timer);
});

function beside(): Copied {
  const table = (place.value?.closest('[data-copied]') ?? place.value?.parentElement)?.querySelector('table');
  if (!table) throw new Error('There is no table here.');
  return { table: tableIn(table, props.name) };
}

async function press(): Promise<void> {
  try {
    await copy(await (props.take ? props.take() : beside()));
    said.value = 'Copied';
  } catch (error) {
    said.value = error instanceof Error ? error.message : String(error);
  }
  clearTimeout(timer);
  timer = setTimeout(() => (said.value = ''), 4000);
}
</script>

<template>
  <span ref="place" class="copy" :class="{ row: isRow }" data-acts>
    <span role="status" class="soft">{{ said }}</span>
    <slot />
    <v-btn size="small" variant="text" data-copies :aria-label="`Copy ${name}`" @click="press">Copy</v-btn>
  </span>
</template>

<style scoped>
.copy {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
  justify-content: flex-end;
  font-size: 0.85rem;
}

/* However wide a table is. */
.row {
  position: sticky;
  inset-inline: 0;
  display: flex;
}
</style>
