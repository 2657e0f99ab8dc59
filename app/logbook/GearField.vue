<script setup lang="ts">
import { nanoid } from 'nanoid';
import { computed, ref } from 'vue';
import type { Kept } from '@core/bench';
import { useShelf } from './shelf';
import { troubleOf } from './trouble';

/** Chooses a device or a charger off the shelf, by its id. A name that is not there is put there: its facts can follow. */
const props = defineProps<{ of: 'device' | 'charger' }>();
const chosen = defineModel<string | undefined>({ required: true });

const NEW = 'new ';
const shelf = useShelf();
const typed = ref('');
const trouble = ref('');
const offered = computed(() => (props.of === 'device' ? shelf.devices : shelf.chargers));
const items = computed(() => {
  const name = typed.value.trim();
  const isKnown = offered.value.some((each) => each.name.toLowerCase() === name.toLowerCase());
  const all = offered.value.map(({ id, name: title }) => ({ id, title }));
  return name && !isKnown ? [...all, { id: `${NEW}${name}`, title: `Add “${name}” as a new ${props.of}` }] : all;
});
const matches = (title: string, query: string, item?: { value: unknown }) =>
  String(item?.value).startsWith(NEW) || title.toLowerCase().includes(query.toLowerCase());

/** Nothing was typed since the field was entered, or since something was chosen: what stands there is replaced by the first letter, not added to. */
let isFresh = false;
function replaceFirst(event: KeyboardEvent): void {
  if (isFresh && event.key.length === 1 && !event.ctrlKey && !event.metaKey && event.target instanceof HTMLInputElement) {
    event.target.select();
    isFresh = false;
  }
}

async function choose(id: string | undefined): Promise<void> {
  isFresh = true;
  if (!id?.startsWith(NEW)) {
    chosen.value = id;
    return;
  }
  trouble.value = '';
  const gear = { id: nanoid(10), name: id.slice(NEW.length, NEW.length + 80), kind: 'other' as const };
  try {
    await shelf.put({ shelf: props.of, gear } as Kept);
    chosen.value = gear.id;
  } catch (error) {
    trouble.value = troubleOf(error, 'It was not put on the shelf.');
  }
}
</script>

<template>
  <v-autocomplete
    v-model:search="typed"
    :model-value="chosen"
    :items="items"
    item-value="id"
    :custom-filter="matches as never"
    auto-select-first
    no-data-text="Type its name"
    v-bind="trouble ? { errorMessages: trouble } : {}"
    @update:model-value="choose"
    @focusin="isFresh = true"
    @keydown="replaceFirst"
  >
    <template v-if="$slots.label" #label><slot name="label" /></template>
  </v-autocomplete>
</template>
