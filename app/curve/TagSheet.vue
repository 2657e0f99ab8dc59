<script setup lang="ts">
import { computed, ref } from 'vue';
import { vFocus } from '../kit/vFocus';
import { useLogbook } from '../logbook/runs';
import { troubleOf } from '../logbook/trouble';

/** Tags of one run or of several, and the note on one. What several already have of their own stays. */
const props = defineProps<{ ids: readonly string[] }>();
const open = defineModel<boolean>({ required: true });

const logbook = useLogbook();
const MOST = 12;
const runs = logbook.summaries.filter(({ id }) => props.ids.includes(id));
const [only] = runs.length === 1 ? runs : [];
/** Tags that all of them have. */
const shared = (runs[0]?.tags ?? []).filter((tag) => runs.every(({ tags = [] }) => tags.includes(tag)));
const tags = ref<string[]>([...shared]);
const note = ref(only?.note ?? '');
const known = computed(() => [...new Set(logbook.summaries.flatMap((run) => run.tags ?? []))]);
const error = ref('');
const busy = ref(false);

async function save(): Promise<void> {
  const given = [...new Set(tags.value.map((tag) => tag.trim()).filter(Boolean))];
  error.value = given.some((tag) => tag.length > 40) ? 'Keep each tag within 40 characters.' : '';
  if (error.value) return;
  busy.value = true;
  try {
    await logbook.writeToAll(props.ids, (id) => {
      const run = runs.find((each) => each.id === id);
      const own = (run?.tags ?? []).filter((tag) => !shared.includes(tag));
      const all = [...new Set([...own, ...given])].slice(0, MOST);
      return { kind: 'label', at: Date.now(), tags: all, text: only ? note.value.trim() : (run?.note ?? '') };
    });
    open.value = false;
  } catch (cause) {
    error.value = troubleOf(cause);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog v-model="open" max-width="460" aria-labelledby="tag-title">
    <v-card>
      <form @submit.prevent="save">
        <h2 id="tag-title">{{ only ? `Tags of ${only.device} on ${only.charger}` : `Tags of ${runs.length} runs` }}</h2>
        <v-combobox
          v-model="tags"
          v-focus
          :items="known"
          label="Tags"
          hint="Enter after each"
          persistent-hint
          multiple
          chips
          closable-chips
        />
        <v-text-field v-if="only" v-model="note" label="Note" maxlength="300" />
        <p v-if="error" class="due" role="alert">{{ error }}</p>
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary" :loading="busy">Save</v-btn>
          <v-btn @click="open = false">Cancel</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
