<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { howMany } from '@core/quantity';
import type { Work } from '../kit/work';
import WorkBar from '../kit/WorkBar.vue';
import { useLogbook } from '../logbook/runs';
import { troubleOf } from '../logbook/trouble';
import type { Exported } from './exporter';
import { exportFile, readyExporter } from './exportFile';
import { exportsOf, type ExportId } from './exports';
import { amountOf, sizeSays, writeSize, type Amount } from './size';
import type { Target } from './target';

/** One sheet for all that leaves: what, as what, how large and what is in it. */
const props = defineProps<{
  /** What can be exported here: what stands first is chosen at first. */
  targets: readonly Target[];
}>();
const open = defineModel<boolean>({ required: true });

const logbook = useLogbook();
const chosen = ref(0);
const target = computed(() => props.targets[chosen.value] ?? props.targets[0]);
const offered = computed(() => (target.value ? exportsOf(target.value) : []));
const asked = ref<ExportId>();
const row = computed(() => offered.value.find(({ id }) => id === asked.value) ?? offered.value[0]);
const as = computed(() => row.value?.id as ExportId | undefined);

const amount = shallowRef<Amount>();
watch(
  target,
  async (now, _before, onCleanup) => {
    let isAsked = true;
    onCleanup(() => (isAsked = false));
    amount.value = undefined;
    if (!now || now.of === 'shelf' || now.of === 'calendar' || now.of === 'piece') return;
    const only = now.runs && new Set(now.runs);
    const found = await amountOf(logbook.summaries.filter(({ id }) => !only || only.has(id))).catch(() => undefined);
    if (isAsked) amount.value = found;
  },
  { immediate: true },
);
const size = computed(() => (row.value && amount.value ? sizeSays(row.value, amount.value) : ''));

const work = shallowRef<Work>();
const error = ref('');
const made = shallowRef<Exported & { name: string }>();
let calling = new AbortController();

async function act(): Promise<void> {
  if (!target.value || !as.value || work.value) return;
  [error.value, made.value, work.value] = ['', undefined, { done: 0, of: 0 }];
  calling = new AbortController();
  const { signal } = calling;
  try {
    const done = await exportFile(as.value, target.value, (at, of) => (work.value = { done: at, of }), signal);
    if (!signal.aborted) made.value = done;
  } catch (cause) {
    if (!signal.aborted) error.value = troubleOf(cause, 'Nothing was saved.');
  } finally {
    if (!signal.aborted) work.value = undefined;
  }
}

function callOff(): void {
  calling.abort();
  work.value = undefined;
}

/** What is in the file that was saved. */
const says = computed(() => {
  if (!made.value) return '';
  const { file, count, name } = made.value;
  const held = [
    count.runs > 0 && howMany(count.runs, 'run'),
    count.entries > 0 && howMany(count.entries, 'entry of ink', 'entries of ink'),
    count.values > 0 && howMany(count.values, 'value of meters', 'values of meters'),
  ].filter(Boolean);
  return `Saved ${name}, ${writeSize(file.size)}${held.length > 0 ? `: ${held.join(', ')}` : ''}.`;
});
/** What is not in it. */
const lacks = computed(() => [
  ...(made.value?.aside ?? []).map(({ name, why }) => `Without ${name}: ${why}`),
  ...(made.value?.leftOut ?? []),
]);

const putAway = readyExporter();
// Closed while it works, it is called off.
onBeforeUnmount(() => {
  callOff();
  putAway();
});
</script>

<template>
  <v-dialog v-model="open" max-width="620" aria-labelledby="export-title">
    <v-card>
      <form novalidate @submit.prevent="act">
        <h2 id="export-title">Export</h2>
        <fieldset v-if="targets.length > 1">
          <legend>What</legend>
          <label v-for="(each, index) in targets" :key="each.says" class="choice">
            <input v-model="chosen" type="radio" name="export-what" :value="index" /> {{ each.says }}
          </label>
        </fieldset>
        <p v-else class="soft">{{ target?.says }}</p>
        <fieldset>
          <legend>As</legend>
          <label v-for="each in offered" :key="each.id" class="choice">
            <input type="radio" name="export-as" :value="each.id" :checked="each.id === as" @change="asked = each.id as ExportId" />
            <span
              ><strong>{{ each.name }}</strong> <span class="soft">{{ each.says }}</span></span
            >
          </label>
        </fieldset>
        <p v-if="size" class="soft">{{ size }}</p>
        <WorkBar v-if="work" does="Writing the file" :at="work" counts="runs">
          <v-btn size="small" @click="callOff">Stop</v-btn>
        </WorkBar>
        <p v-if="says" role="status" class="said">{{ says }}</p>
        <p v-if="lacks.length > 0" class="due" role="alert">
          <span v-for="each in lacks" :key="each" class="lack">{{ each }}</span>
        </p>
        <p v-if="error" class="due" role="alert">{{ error }}</p>
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary" :disabled="work !== undefined || !row">Export</v-btn>
          <v-btn @click="open = false">{{ made ? 'Close' : 'Cancel' }}</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
fieldset {
  min-width: 0;
  margin: 0 0 0.6rem;
  padding: 0;
  border: 0;
}

legend {
  font-weight: 600;
}

.choice {
  display: grid;
  grid-template-columns: 1.6rem minmax(0, 1fr);
  align-items: baseline;
  padding-block: 0.35rem;
  overflow-wrap: anywhere;
}

.choice strong + .soft {
  padding-inline-start: 0.3rem;
}

.said,
.lack {
  overflow-wrap: anywhere;
}

.lack {
  display: block;
}
</style>
