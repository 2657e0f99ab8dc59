<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { fromPlugIn, type Draft, type LaidLog, type RunInk } from '@core/ink';
import { quantityOf, spell } from '@core/quantity';
import { troubleOf } from '../logbook/trouble';
import { later, type Trace } from '../strip/trace';
import type { Apart } from '../workers/opener';
import PlaceField from './PlaceField.vue';

/** The logs of a run and where they lie: matched by their steps, or taken by hand on the strip. What is stored is where they lie; their times never change. */
const props = defineProps<{ run: RunInk; write: (draft: Draft) => Promise<void> }>();
/** What is drawn while a log is moved, and nothing else. */
const emit = defineEmits<{ moving: [traces: Trace[] | undefined] }>();

/** The log that is in hand, and by how much it was moved. */
const held = shallowRef<LaidLog>();
const parted = shallowRef<Apart>();
const by = ref(0);
const busy = ref<string>();
const said = ref('');

const logPlace = ({ zero, drift }: LaidLog) =>
  `begins ${fromPlugIn(zero)}${drift ? `, clock ${drift > 0 ? '+' : '−'}${Math.abs(drift)} ppm` : ''}`;
const holds = ({ quantities }: LaidLog) => quantities.map((each) => quantityOf(each).named).join(', ');
const keyOf = ({ log }: LaidLog) => log ?? '';
const isHeld = (log: LaidLog) => held.value !== undefined && keyOf(held.value) === keyOf(log);
const heldAt = computed(() => (held.value ? `begins ${fromPlugIn(held.value.zero + by.value)}` : ''));

async function place({ log }: LaidLog, zero: number, drift: number): Promise<void> {
  const at = props.run.header.plugInAt + Math.round(zero * 1000);
  await props.write({ kind: 'place', at, ...(log !== undefined && { log }), ...(Math.round(drift) !== 0 && { drift: Math.round(drift) }) });
}

async function working(log: LaidLog, work: () => Promise<void>): Promise<void> {
  [busy.value, said.value] = [keyOf(log), ''];
  try {
    await work();
  } catch (error) {
    said.value = troubleOf(error);
  } finally {
    busy.value = undefined;
  }
}

const match = (log: LaidLog) =>
  working(log, async () => {
    const { alignAgain } = await import('../workers/openRun');
    const found = await alignAgain(props.run.header.id, log.log);
    if (!found) said.value = 'Nothing that rises and falls was read both in this log and beside it. Move it by hand.';
    else if (found.doubt !== undefined)
      said.value = `Its steps fit best where it begins ${fromPlugIn(found.zero)}, but ${found.doubt}. Move it by hand.`;
    else {
      await place(log, found.zero, found.drift);
      said.value = `Matched by ${quantityOf(found.by).named}: it begins ${fromPlugIn(found.zero)} ± ${spell(found.margin, 1)}.`;
    }
  });

const take = (log: LaidLog) =>
  working(log, async () => {
    const { runApart } = await import('../workers/openRun');
    parted.value = await runApart(props.run.header.id, log);
    [held.value, by.value] = [log, 0];
    draw();
  });

function draw(): void {
  const { value: both } = parted;
  emit('moving', both && held.value ? [both.rest, later(both.own, by.value)] : undefined);
}

/** Moves the log that is in hand. */
function shift(seconds: number): void {
  by.value += seconds;
  draw();
}

function drop(): void {
  [held.value, parted.value] = [undefined, undefined];
  draw();
}

const leave = (log: LaidLog) =>
  working(log, async () => {
    if (by.value !== 0) await place(log, log.zero + by.value, log.drift);
    drop();
  });

defineExpose({ shift, drop });
</script>

<template>
  <section v-if="run.logs.length > 0" class="logs">
    <h2>{{ run.logs.length === 1 ? 'Log' : 'Logs' }}</h2>
    <div v-for="log in run.logs" :key="keyOf(log)" class="log">
      <p class="name" :title="log.name">{{ log.name }}</p>
      <p class="soft">{{ isHeld(log) ? heldAt : logPlace(log) }}; {{ holds(log) }}</p>
      <div v-if="isHeld(log)" class="hand">
        <v-btn
          v-for="step in [-10, -1, 1, 10]"
          :key="step"
          size="small"
          :aria-label="`${Math.abs(step)} s ${step < 0 ? 'earlier' : 'later'}`"
          @click="shift(step)"
          >{{ step < 0 ? '−' : '+' }}{{ Math.abs(step) }} s</v-btn
        >
        <v-btn size="small" variant="flat" color="primary" :loading="busy === keyOf(log)" @click="leave(log)">Leave it here</v-btn>
        <v-btn size="small" variant="text" @click="drop">Cancel</v-btn>
        <span class="soft">Drag it on the strip, use its arrows, or write where it begins.</span>
        <PlaceField class="typed" @place="(seconds) => seconds !== undefined && shift(seconds - log.zero - by)" />
      </div>
      <p v-else class="hand">
        <v-btn size="small" variant="text" :loading="busy === keyOf(log)" :aria-label="`Move ${log.name}`" @click="take(log)">Move</v-btn>
        <v-btn size="small" variant="text" :disabled="busy !== undefined" :aria-label="`Match ${log.name} by its steps`" @click="match(log)"
          >Match by its steps</v-btn
        >
      </p>
    </div>
    <p v-if="said" role="status">{{ said }}</p>
  </section>
</template>

<style scoped>
.logs {
  padding-top: 0.75rem;
}

h2 {
  font-size: 0.85rem;
}

.log {
  padding: 0.35rem 0;
  border-bottom: 1px solid rgb(var(--v-theme-grid));
  font-size: 0.85rem;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.typed {
  flex: 1 1 100%;
}

.hand {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem;
  align-items: center;
}
</style>
