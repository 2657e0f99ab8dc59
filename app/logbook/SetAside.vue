<script setup lang="ts">
import { ref } from 'vue';
import { fileName, saveFile } from '../kit/saveFile';
import { remove as removeRun } from '../ledger/acts';
import { rawRun } from '../ledger/filed';
import type { SetAside } from '../ledger/live';
import { useLanes } from './lanes';

/** Runs that could not be read or filed, each with why, and with what can be done: the others are all there. */
const lanes = useLanes();
const busy = ref<string>();
const removing = ref<string>();

async function working(id: string, work: () => Promise<unknown>): Promise<void> {
  busy.value = id;
  try {
    await work();
  } finally {
    busy.value = undefined;
  }
}

/** All that is stored of it, as it is stored; what is no number or text in it is left out. */
async function save({ id, name }: SetAside): Promise<void> {
  const raw = JSON.stringify(await rawRun(id), (_key, value: unknown) => (value instanceof Float64Array ? Array.from(value) : value), 1);
  saveFile(`${fileName(name, 'as stored')}.json`, raw, 'application/json');
}

async function remove(id: string): Promise<void> {
  await removeRun(id);
  await (await import('../ledger/sweep')).sweepRemoved();
  await lanes.forget(id);
  removing.value = undefined;
}
</script>

<template>
  <section v-if="lanes.aside.size > 0" class="aside" role="alert" aria-label="Runs set aside">
    <h2>{{ lanes.aside.size === 1 ? 'One run is set aside' : `${lanes.aside.size} runs are set aside` }}</h2>
    <p class="soft">What is stored of {{ lanes.aside.size === 1 ? 'it' : 'them' }} is kept as it is; everything else is open.</p>
    <ul>
      <li v-for="run in lanes.aside.values()" :key="run.id">
        <p>
          <strong>{{ run.name }}</strong>: {{ run.why }}
        </p>
        <div class="actions">
          <v-btn size="small" :loading="busy === run.id" @click="working(run.id, () => lanes.tryAgain(run.id))">Try again</v-btn>
          <v-btn size="small" @click="save(run)">Save it as a file</v-btn>
          <template v-if="removing === run.id">
            <v-btn size="small" color="primary" variant="flat" @click="working(run.id, () => remove(run.id))">Remove it for good</v-btn>
            <v-btn size="small" variant="text" @click="removing = undefined">Keep it</v-btn>
          </template>
          <v-btn v-else size="small" variant="text" @click="removing = run.id">Remove</v-btn>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.aside {
  padding: 0.75rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-line));
  border-inline-start: 4px solid rgb(var(--v-theme-due));
}

ul {
  list-style: none;
  display: grid;
  gap: 0.5rem;
  padding-top: 0.5rem;
}

li {
  overflow-wrap: anywhere;
}

.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  padding-top: 0.2rem;
}
</style>
