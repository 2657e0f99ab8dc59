<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { dayText } from '../kit/dates';
import { report } from '../kit/failures';
import { usePieces } from '../logbook/pieces';
import UnreadNote from '../logbook/UnreadNote.vue';

/** Everything that was written up: what it is of, and whether it was published. */
const pieces = usePieces();
const isLoaded = ref(false);
onMounted(() => pieces.load().finally(() => (isLoaded.value = true)));
const day = (at: number) => dayText(at, { year: true });
const remove = (id: string) => pieces.remove(id).catch(report);
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Pieces</h1>
      <p class="soft">what you publish: text, tables and pictures that follow the ink</p>
    </header>
    <UnreadNote :unread="pieces.unread" />
    <div v-if="isLoaded && pieces.all.length === 0" class="first-step">
      <h2>No pieces yet</h2>
      <p>
        Compare some runs, or open a study that has some, and choose <strong>Write it up</strong>: the short answer, tables, curves, how it
        was done and what it cannot tell stand there at once, to be changed as you like.
      </p>
      <v-btn variant="flat" color="primary" to="/compare">Compare runs</v-btn>
    </div>
    <ul v-else class="body">
      <li v-for="{ id, name, from, runs, published, corrections, at } in pieces.all" :key="id">
        <RouterLink :to="`/pieces/${id}`"
          ><strong>{{ name }}</strong></RouterLink
        >
        <span class="soft"
          >{{ runs.length === 1 ? '1 run' : `${runs.length} runs` }}{{ from ? `, from ${from}` : '' }}; last changed {{ day(at) }}</span
        >
        <span class="figures state"
          >{{ published ? `published ${day(published.at)}` : 'draft' }}{{ corrections ? `, ${corrections.length} corrected` : '' }}</span
        >
        <v-btn size="small" variant="text" :aria-label="`Remove ${name}`" @click="remove(id)">Remove</v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 0 1rem;
  align-items: center;
  padding: 0.7rem 0.25rem;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  overflow-wrap: anywhere;
}

li .soft {
  grid-row: 2;
}

li .state,
li .v-btn {
  grid-row: 1 / 3;
}

@media (max-width: 40em) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  li .state {
    grid-row: 3;
    grid-column: 1;
  }
}
</style>
