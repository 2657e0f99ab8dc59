<script setup lang="ts">
import { ref } from 'vue';
import { troubleOf } from './trouble';

/** A small form over the page: it is closed once its task is done, and says why where it is not. */
const props = defineProps<{
  /** Its id in the page: what it is called by. */
  name: string;
  title: string;
  /** What its button does. */
  action: string;
  width?: number;
  /** What it does; where something must be put right first, says what. */
  task: () => Promise<string | undefined>;
}>();
const open = defineModel<boolean>({ required: true });

const error = ref('');
const busy = ref(false);

async function act(): Promise<void> {
  busy.value = true;
  try {
    error.value = (await props.task()) ?? '';
    if (!error.value) open.value = false;
  } catch (cause) {
    error.value = troubleOf(cause);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog v-model="open" :max-width="width ?? 460" :aria-labelledby="`${name}-title`">
    <v-card>
      <form novalidate @submit.prevent="act">
        <h2 :id="`${name}-title`">{{ title }}</h2>
        <slot />
        <p v-if="error" class="due" role="alert">{{ error }}</p>
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary" :loading="busy">{{ action }}</v-btn>
          <v-btn @click="open = false">Cancel</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>
