<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, shallowRef, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { type RunRecord } from '@core/ink';
import { LANE_LETTERS } from '@core/run';
import { useDueLine } from '../entry/dueLine';
import { useKeys } from '../kit/shortcuts';
import MoreActions from '../kit/MoreActions.vue';
import { useBoard } from '../logbook/board';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import LaneEntry from './LaneEntry.vue';
import LiveLane from './LiveLane.vue';

const FirstPath = defineAsyncComponent(() => import('../logbook/FirstPath.vue'));
const GhostField = defineAsyncComponent(() => import('./GhostField.vue'));
const DragList = defineAsyncComponent(() => import('../kit/DragList.vue'));
const SetAside = defineAsyncComponent(() => import('../logbook/SetAside.vue'));

/** The board: every live run in a lane of its own, or one lane that fills it. */
const lanes = useLanes();
const board = useBoard();
const line = useDueLine();
const shelf = useShelf();
const logbook = useLogbook();
const studies = useStudies();
const route = useRoute();
const router = useRouter();
const alone = computed(() => lanes.records.find(({ header }) => header.id === route.query.lane));
const shown = computed(() => (alone.value ? [alone.value] : board.shown));
const container = useTemplateRef<HTMLElement>('container');
const canDrag = shallowRef(false);
const rankOf = (runId: string) => board.shown.findIndex(({ header }) => header.id === runId);

onMounted(async () => {
  canDrag.value = true;
  await board.load();
  if (lanes.records.some(({ header }) => header.study)) await studies.load();
});

function fill(run: RunRecord | undefined): void {
  void router.replace({ query: run ? { lane: run.header.id } : {} });
}

const MOVES: Readonly<Record<string, number>> = { ArrowUp: -1, ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1 };
function moveByKey(event: KeyboardEvent, runId: string): void {
  const by = MOVES[event.key];
  if (by === undefined) return;
  event.preventDefault();
  board.move(runId, rankOf(runId) + by);
}

useKeys({
  o: (event) => {
    event.preventDefault();
    fill(alone.value ? undefined : line.record);
  },
});
</script>

<template>
  <section class="sheet board">
    <header>
      <h1>Live</h1>
      <p class="soft">
        {{
          lanes.records.length === 0
            ? 'log a charge from plug-in to full'
            : lanes.records.length === 1
              ? 'one lane'
              : `${lanes.records.length} lanes`
        }}{{ lanes.records.length >= LANE_LETTERS.length ? ', the most there can be' : '' }}
      </p>
      <div class="actions">
        <v-btn v-if="alone" @click="fill(undefined)">All lanes</v-btn>
        <MoreActions>
          <v-btn to="/live/rehearse" variant="text">Rehearse</v-btn>
          <template v-if="shelf.isStocked">
            <v-btn to="/live/paper" variant="text">From paper</v-btn>
            <v-btn to="/live/footage" variant="text">From footage</v-btn>
            <v-btn to="/live/spot" variant="text">Spot check</v-btn>
          </template>
        </MoreActions>
        <v-btn to="/live/new" variant="flat" color="primary">Start a run</v-btn>
      </div>
    </header>
    <SetAside v-if="lanes.aside.size > 0" />
    <div
      v-if="lanes.records.length > 0"
      ref="container"
      class="lanes"
      :class="{ paired: shown.length > 6 }"
      :style="{ '--rows': Math.ceil(shown.length / 2) }"
    >
      <LiveLane
        v-for="run in shown"
        :key="run.header.id"
        :data-run="run.header.id"
        :run="run"
        :letter="lanes.letterOf(run.header.id)"
        :is-slim="shown.length > 4"
        :is-alone="alone !== undefined"
        :is-only="shown.length === 1"
        :ghost="board.ghostUnder(run.header.id)"
      >
        <template #tools>
          <button
            v-if="!alone && shown.length > 1"
            type="button"
            class="tool grip"
            :aria-label="`Move lane ${lanes.letterOf(run.header.id)}: drag it, or press an arrow key`"
            @keydown="moveByKey($event, run.header.id)"
          >
            ⠿
          </button>
          <button
            v-if="!alone"
            type="button"
            class="tool"
            :aria-label="`Fill the board with lane ${lanes.letterOf(run.header.id)}`"
            @click="fill(run)"
          >
            ⤢
          </button>
        </template>
        <template #entry>
          <LaneEntry
            v-if="lanes.records.length > 1 || alone"
            :run-id="run.header.id"
            :letter="lanes.letterOf(run.header.id)"
            :is-mine="lanes.isMine(run.header.id)"
            :is-alone="alone !== undefined"
          />
          <GhostField v-if="alone" :run="run" />
        </template>
      </LiveLane>
      <DragList
        v-if="canDrag && !alone && container && lanes.records.length > 1"
        :container="container"
        handle=".grip"
        items=".lane"
        @moved="(item, to) => board.move(item.dataset.run ?? '', to)"
      />
    </div>
    <FirstPath v-if="lanes.records.length === 0 && logbook.summaries.length === 0" />
    <div v-else-if="lanes.records.length === 0" class="first-step">
      <h2>Nothing is charging</h2>
      <p>Start a run, press one key as you plug in, and read the display when the due line calls.</p>
      <v-btn to="/live/new" variant="flat" color="primary">Start a run</v-btn>
      <RouterLink to="/runs">See the finished runs ({{ logbook.summaries.length }})</RouterLink>
    </div>
  </section>
</template>

<style scoped>
.board {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.board > header {
  flex: none;
}

.lanes {
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  min-height: 0;
}

/* More lanes than fit under each other stand side by side, so that none is out of sight across the room; their fields widen when typed into. */
@media (min-width: 71.875em) {
  .paired {
    display: grid;
    grid: repeat(var(--rows), minmax(auto, 1fr)) / auto-flow minmax(0, 1fr);
  }

  .paired > .lane {
    --what: 14rem;
    --when: 10.5rem;

    border-inline-end: 1px solid rgb(var(--v-theme-line));
  }
}

.tool {
  padding: 0 0.3rem;
  font: inherit;
  color: rgb(var(--v-theme-soft));
  background: none;
  border: 0;
  border-radius: 4px;
  cursor: pointer;
}

.tool:first-of-type {
  margin-inline-start: auto;
}

.tool:hover {
  color: rgb(var(--v-theme-ink));
}

.grip {
  cursor: grab;
  touch-action: none;
}
</style>
