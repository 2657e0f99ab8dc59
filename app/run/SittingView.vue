<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { type Charger } from '@core/bench';
import { compatibility, sourceKey } from '@core/compare';
import { type Draft } from '@core/ink';
import { useNow } from '../kit/clock';
import { useLanes } from '../logbook/lanes';
import { useShelf } from '../logbook/shelf';
import CompatibilityTable from '../strip/CompatibilityTable.vue';
import SecondLook from './SecondLook.vue';
import TrialCard from './TrialCard.vue';

/** A spot check that is going on: the list, the charger in hand, and the table as it grows. */
const props = defineProps<{ id: string }>();

const router = useRouter();
const lanes = useLanes();
const shelf = useShelf();
const now = useNow();
const run = computed(() => lanes.records.find(({ header }) => header.id === props.id));
const rows = computed(() => (run.value ? compatibility(run.value) : []));
const list = computed(() => {
  const wanted = run.value?.header.list ?? [];
  return wanted.flatMap((id) => shelf.chargers.find((each) => each.id === id) ?? []);
});
const triedOf = (charger: Charger) => rows.value.find(({ key }) => key === sourceKey({ charger }));
/** The charger in hand: the one picked, else the first that was not tried. */
const picked = shallowRef<Charger>();
const inHand = computed(() => picked.value ?? list.value.find((charger) => !triedOf(charger)));
/** The next is plugged in, so the last no longer is. */
const isNext = ref(false);
/** The last trial, while it is still plugged in: a second look at its level can tell more. */
const open = computed(() => {
  if (isNext.value) return undefined;
  const last = run.value?.trials.at(-1);
  const open = rows.value.flatMap(({ awake, asleep }) => [awake, asleep]).find((tried) => tried?.trial.id === last?.id);
  return open && !open.isSure && open.trial.percent !== undefined ? open.trial : undefined;
});

// The run is over once it is filed: its table stands with it.
watch(
  run,
  (there) => {
    if (!there) void router.replace(`/curve/${props.id}`);
  },
  { immediate: true },
);

async function log(draft: Draft): Promise<void> {
  await lanes.write(props.id, draft);
  isNext.value = false;
  picked.value = undefined;
  // Hands stay on the keys: the field of the next is ready, or the same one again.
  await nextTick();
  document.getElementById('trial-line')?.focus();
}
</script>

<template>
  <section v-if="run" class="sheet">
    <header>
      <h1>Spot check of {{ run.header.device.name }}</h1>
      <p class="soft">{{ rows.length }} of {{ list.length }} tried</p>
    </header>
    <div class="body">
      <ol class="list" aria-label="Chargers to try">
        <li v-for="charger in list" :key="charger.id">
          <button type="button" :aria-current="charger === inHand" @click="picked = charger">
            <span>{{ charger.name }}</span>
            <span class="soft">{{ triedOf(charger)?.awake?.status ?? triedOf(charger)?.asleep?.status ?? '' }}</span>
          </button>
        </li>
      </ol>
      <div>
        <SecondLook v-if="open" :key="open.id" :run="run" :trial="open" :now="now" :log="log" />
        <TrialCard v-if="inHand" :key="inHand.id" :run="run" :charger="inHand" :now="now" :log="log" @plugged="isNext = true" />
        <p v-else>All of them were tried. Pick one from the list to try it again, asleep perhaps; or press <kbd>S</kbd> to stop.</p>
      </div>
    </div>
    <div class="body table"><CompatibilityTable :rows="rows" /></div>
  </section>
  <section v-else class="sheet first-step"><p>Opening the spot check …</p></section>
</template>

<style scoped>
.body {
  display: grid;
  grid-template-columns: 16rem minmax(0, 1fr);
  gap: 2rem;
}

.table {
  display: block;
}

.list {
  list-style: none;
  border-top: 1px solid rgb(var(--v-theme-grid));
}

.list button {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
  width: 100%;
  padding: 0.3rem 0.5rem;
  font: inherit;
  color: inherit;
  text-align: start;
  background: none;
  border: 0;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  cursor: pointer;
}

.list button[aria-current='true'] {
  font-weight: 700;
  background: rgb(var(--v-theme-desk));
}

@media (max-width: 900px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
    gap: 1rem;
  }

  .list {
    order: 2;
  }
}
</style>
