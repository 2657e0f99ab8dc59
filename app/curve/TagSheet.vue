<script setup lang="ts">
import { computed, ref } from 'vue';
import { vFocus } from '../kit/vFocus';
import FormSheet from '../logbook/FormSheet.vue';
import { useInkActs } from '../logbook/inkActs';
import { useLogbook } from '../logbook/runs';

/** Tags of one run or of several, and the note on one. What several already have of their own stays. */
const props = defineProps<{ ids: readonly string[] }>();
const open = defineModel<boolean>({ required: true });

const logbook = useLogbook();
const MOST_TAGS = 12;
const runs = logbook.summaries.filter(({ id }) => props.ids.includes(id));
const [only] = runs.length === 1 ? runs : [];
/** Tags that all of them have. */
const shared = (runs[0]?.tags ?? []).filter((tag) => runs.every(({ tags = [] }) => tags.includes(tag)));
const tags = ref<string[]>([...shared]);
const note = ref(only?.note ?? '');
const known = computed(() => [...new Set(logbook.summaries.flatMap((run) => run.tags ?? []))]);

async function save(): Promise<string | undefined> {
  const given = [...new Set(tags.value.map((tag) => tag.trim()).filter(Boolean))];
  if (given.some((tag) => tag.length > 40)) return 'Keep each tag within 40 characters.';
  await useInkActs().writeToAll(props.ids, (id) => {
    const run = runs.find((each) => each.id === id);
    const own = (run?.tags ?? []).filter((tag) => !shared.includes(tag));
    const all = [...new Set([...own, ...given])].slice(0, MOST_TAGS);
    return { kind: 'label', at: Date.now(), tags: all, text: only ? note.value.trim() : (run?.note ?? '') };
  });
  return undefined;
}
</script>

<template>
  <FormSheet
    v-model="open"
    name="tag"
    :title="only ? `Tags of ${only.device} on ${only.charger}` : `Tags of ${runs.length} runs`"
    action="Save"
    :task="save"
  >
    <v-combobox v-model="tags" v-focus :items="known" label="Tags" hint="Enter after each" persistent-hint multiple chips closable-chips />
    <v-text-field v-if="only" v-model="note" label="Note" maxlength="300" />
  </FormSheet>
</template>
