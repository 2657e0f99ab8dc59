<script setup lang="ts">
import { ref } from 'vue';

/** Saves the whole logbook as a file: the way on whenever something has failed. */
const share = ref<number>();
const said = ref('');

async function save(): Promise<void> {
  share.value = 0;
  said.value = '';
  try {
    const [{ exportFile }, { WHOLE }] = await Promise.all([import('../exports/exportFile'), import('../exports/target')]);
    const { aside } = await exportFile('logbook', WHOLE, (done) => (share.value = done));
    said.value = aside.length === 0 ? 'Saved.' : `Saved without ${aside.map(({ name }) => name).join(', ')}.`;
  } catch (error) {
    said.value = `It could not be saved: ${error instanceof Error ? error.message : String(error)}`;
  } finally {
    share.value = undefined;
  }
}
</script>

<template>
  <v-btn :loading="share !== undefined" @click="save">Save the logbook as a file</v-btn>
  <span v-if="said" role="status" class="said">{{ said }}</span>
</template>

<style scoped>
.said {
  padding-inline: 0.6rem;
  overflow-wrap: anywhere;
}
</style>
