<script setup lang="ts">
import { max } from 'd3-array';
import { format } from 'date-fns';
import { computed, defineAsyncComponent, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { type Summary } from '@core/curve';
import { endingWord } from '@core/ink';
import { spell } from '@core/quantity';
import type { SetAside } from '../ledger/ledger';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import InkStrip from '../strip/InkStrip.vue';
import PenNib from '../strip/PenNib.vue';
import { outlineOf } from '../strip/trace';

const ImportSheet = defineAsyncComponent(() => import('./ImportSheet.vue'));
const SetAsideRuns = defineAsyncComponent(() => import('../logbook/SetAside.vue'));

/** Every finished run in a list; choose some to lay over each other, take the logbook out, bring files in. */
const router = useRouter();
const logbook = useLogbook();
const lanes = useLanes();
const search = ref('');
const picked = ref<string[]>([]);
const importing = ref(false);
const exported = ref<number>();

const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean);
  return logbook.summaries.filter(({ device, charger }) => words.every((word) => `${device} ${charger}`.toLowerCase().includes(word)));
});
const longest = computed(() => Math.max(600, max(found.value, ({ end }) => end) ?? 0));
const ROW = 58;

function readsOf({ reads, startLevel, lastLevel }: Summary): string {
  if (reads !== undefined) return reads;
  return lastLevel === undefined ? '—' : `${startLevel ?? '?'} → ${lastLevel} %`;
}

function toggle(id: string, on: boolean | null): void {
  picked.value = on ? [...picked.value, id] : picked.value.filter((each) => each !== id);
}

function compare(): void {
  void router.push({ path: '/compare', query: { runs: picked.value.join('.') } });
}

/** Runs that could not be read, and are not in the file that was saved. */
const leftOut = shallowRef<SetAside[]>([]);
let export_ = new AbortController();

async function exportFile(): Promise<void> {
  exported.value = 0;
  export_ = new AbortController();
  try {
    const { saveLogbook } = await import('../exports/saveLogbook');
    leftOut.value = await saveLogbook((share) => (exported.value = share), export_.signal);
  } finally {
    exported.value = undefined;
  }
}

function callOff(): void {
  export_.abort();
  exported.value = undefined;
}
</script>

<template>
  <section class="sheet list">
    <header>
      <h1>Runs</h1>
      <p class="soft">every finished run, and what its readings say</p>
      <div class="actions">
        <v-btn :disabled="picked.length < 2" @click="compare">Compare{{ picked.length > 1 ? ` ${picked.length} runs` : '' }}</v-btn>
        <v-btn @click="importing = true">Import a file</v-btn>
        <v-btn to="/run/paper">From paper</v-btn>
        <v-btn v-if="logbook.summaries.length + lanes.records.length > 0" :loading="exported !== undefined" @click="exportFile"
          >Export the logbook</v-btn
        >
      </div>
      <p v-if="exported !== undefined" class="working">
        <v-progress-linear :model-value="exported * 100" aria-label="Taking the logbook out" />
        <v-btn size="small" @click="callOff">Stop</v-btn>
      </p>
      <p v-if="leftOut.length > 0" class="due" role="alert">
        The file was saved without {{ leftOut.length === 1 ? 'a run that' : `${leftOut.length} runs that` }} cannot be read:
        {{ leftOut.map(({ name, why }) => `${name} (${why})`).join('; ') }}
      </p>
    </header>
    <SetAsideRuns v-if="lanes.aside.size > 0" />
    <div v-if="logbook.summaries.length === 0" class="first-step">
      <h2>No finished runs yet</h2>
      <p>Runs come here when they are stopped. A meter’s log can be imported as a run too.</p>
      <v-btn to="/run" variant="flat" color="primary">Go to Run</v-btn>
    </div>
    <template v-else>
      <div class="search">
        <v-text-field
          v-model="search"
          label="Find a device or charger"
          type="search"
          density="compact"
          clearable
          @click:clear="search = ''"
        />
      </div>
      <p v-if="found.length === 0" class="first-step">No run has “{{ search }}” in its device or charger.</p>
      <div v-else role="table" aria-label="Finished runs" :aria-rowcount="found.length + 1" class="table">
        <div role="rowgroup">
          <div role="row" class="row head">
            <span role="columnheader"><span class="unseen-text">Pick</span></span>
            <span role="columnheader">Setup</span>
            <span role="columnheader" class="wide">Plugged in</span>
            <span role="columnheader" class="wide">Strip</span>
            <span role="columnheader" class="right">Read</span>
            <span role="columnheader" class="right">To 80 %</span>
            <span role="columnheader" class="right">To 100 %</span>
            <span role="columnheader" class="wide">Ended</span>
          </div>
        </div>
        <v-virtual-scroll :items="found" :item-height="ROW" role="rowgroup" class="rows">
          <template #default="{ item, index }">
            <div role="row" class="row" :aria-rowindex="index + 2">
              <span role="cell">
                <v-checkbox
                  :model-value="picked.includes(item.id)"
                  :aria-label="`Pick ${item.device} on ${item.charger}`"
                  density="compact"
                  @update:model-value="(on) => toggle(item.id, on)"
                />
              </span>
              <span role="cell"
                ><RouterLink class="setup" :to="`/curve/${item.id}`">
                  <PenNib :pen="item.pen" />
                  <span class="name"
                    >{{ item.device }}<br /><span class="soft">{{ item.charger }}</span></span
                  >
                </RouterLink></span
              >
              <span role="cell" class="wide soft">{{ format(item.plugInAt, 'd MMM, HH:mm') }}<br />{{ spell(item.end) }}</span>
              <span role="cell" class="wide mini"
                ><InkStrip
                  :traces="[outlineOf(item)]"
                  size="row"
                  :until="longest"
                  :caption="`Outline of ${item.device} on ${item.charger}`"
              /></span>
              <span role="cell" class="right figures">{{ readsOf(item) }}</span>
              <span role="cell" class="right figures">{{ item.timeTo80 }}</span>
              <span role="cell" class="right figures">{{ item.timeTo100 }}</span>
              <span role="cell" class="wide soft">{{ item.stop ? endingWord({ because: item.stop }) : 'never stopped' }}</span>
            </div>
          </template>
        </v-virtual-scroll>
      </div>
    </template>
    <ImportSheet v-if="importing" v-model="importing" />
  </section>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.search {
  padding: 0.75rem 1.5rem;
  max-width: 24rem;
}

.table {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 12rem;
}

.rows {
  flex: 1;
}

.row {
  display: grid;
  grid-template-columns: 2.5rem minmax(9rem, 1.4fr) 8rem minmax(8rem, 1fr) 7.5rem 7rem 7rem 6.5rem;
  gap: 0 0.75rem;
  align-items: center;
  min-height: 58px;
  padding-inline: 1rem 1.5rem;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  font-size: 0.9rem;
}

.head {
  min-height: 2.2rem;
  font-weight: 600;
  font-size: 0.82rem;
  color: rgb(var(--v-theme-soft));
  border-bottom-color: rgb(var(--v-theme-line));
}

.right {
  text-align: end;
}

.setup {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-width: 0;
  text-decoration: none;
  line-height: 1.25;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.setup:hover .name {
  text-decoration: underline;
}

.mini {
  height: 44px;
}

@media (max-width: 900px) {
  .row {
    grid-template-columns: 2.5rem minmax(0, 1fr) 5.2rem 4.2rem 4.2rem;
    gap: 0 0.4rem;
    padding-inline: 0.5rem;
    font-size: 0.82rem;
  }

  .wide {
    display: none;
  }
}
</style>
