<script setup lang="ts">
import { nanoid } from 'nanoid';
import { computed, defineAsyncComponent, onMounted } from 'vue';
import { useRouter } from 'vue-router';
import { progressOf } from '@core/plan';
import MoreActions from '../kit/MoreActions.vue';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import UnreadNote from '../logbook/UnreadNote.vue';

const FirstPath = defineAsyncComponent(() => import('../logbook/FirstPath.vue'));

/** Every study: its question, and how far it has come. */
const studies = useStudies();
const shelf = useShelf();
const router = useRouter();
onMounted(() => studies.load());

const rows = computed(() =>
  studies.all.map((study) => {
    const cells = progressOf(study, studies.made(study.id)).filter(({ state }) => state !== 'crossed');
    const [done, asked] = [
      cells.reduce((sum, each) => sum + Math.min(each.done, each.of), 0),
      cells.reduce((sum, each) => sum + each.of, 0),
    ];
    return { study, done, asked, runs: studies.runsOf(study.id).map(({ id }) => id) };
  }),
);
const begin = () => void router.push(`/plan/${nanoid(10)}`);
</script>

<template>
  <section class="sheet">
    <header>
      <h1>Plan</h1>
      <p class="soft">studies that will answer their question</p>
      <div class="actions">
        <MoreActions v-if="rows.length > 0" is-folded />
        <v-btn v-if="shelf.isStocked && rows.length > 0" variant="flat" color="primary" @click="begin">Begin a study</v-btn>
      </div>
    </header>
    <UnreadNote :unread="studies.unread" />
    <template v-if="!shelf.isStocked">
      <p class="empty">A study sets devices against chargers, so it needs one of each first.</p>
      <FirstPath />
    </template>
    <div v-else-if="rows.length === 0" class="first-step">
      <h2>No studies yet</h2>
      <p>Begin with the question. The methods that fit it, the runs it takes and what they will be able to tell follow from there.</p>
      <v-btn variant="flat" color="primary" @click="begin">Begin a study</v-btn>
    </div>
    <ul v-else class="body">
      <li v-for="{ study, done, asked, runs } in rows" :key="study.id">
        <RouterLink :to="`/plan/${study.id}`"
          ><strong>{{ study.name }}</strong></RouterLink
        >
        <span class="soft">{{ study.question }}</span>
        <span class="figures">{{ done }} of {{ asked }} runs made</span>
        <RouterLink v-if="asked > 0 && done >= asked && runs.length > 1" :to="{ path: '/compare', query: { runs: runs.join('.') } }"
          >See what came of it</RouterLink
        >
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
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 1rem;
  padding: 0.7rem 0.25rem;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  overflow-wrap: anywhere;
}

li .soft {
  grid-row: 2;
}

li .figures {
  grid-row: 1 / 3;
  grid-column: 2;
  align-self: center;
}
</style>
