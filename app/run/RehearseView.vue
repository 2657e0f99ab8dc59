<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef } from 'vue';
import { foldRun, type Draft, type Entry, type RunRecord } from '@core/ink';
import { readDecimal, spell } from '@core/quantity';
import { castOf, dueOf, inOrderOfDue, LANE_LETTERS, MOST_ACTORS, scoreOf, standIn, type Actor } from '@core/run';
import { seeded } from '@core/simulate';
import { useTypedLine } from '../entry/typedLine';
import { useKeys } from '../kit/shortcuts';
import LiveLane from './LiveLane.vue';
import ScoreTable from './ScoreTable.vue';
import StandInScreen from './StandInScreen.vue';

/** A rehearsal: simulated devices to read from, at any speed, typed by you or by a stand-in, and scored. Kept apart from runs: nothing of it is stored. */
const SPEEDS = [1, 5, 10, 20, 60, 200, 600];
/** How often the picture moves on, in milliseconds. */
const FRAME = 100;

const count = ref(1);
const speed = ref(10);
const everyMinutes = ref('5');
const isStandIn = ref(false);
const error = ref('');

interface Played {
  actor: Actor;
  entries: Entry[];
  record: RunRecord;
}
const cast = shallowRef<Played[]>([]);
/** The time of the rehearsal, epoch milliseconds. */
const now = ref(0);
const isOver = ref(false);
let [realAt, noise, timer]: [number, () => number, ReturnType<typeof setInterval> | undefined] = [0, seeded(1), undefined];
/** What the stand-in is about to read: by lane, the check, and when. */
const plans = new Map<string, { due: number; at: number | undefined; read: ReturnType<typeof standIn>['read'] }>();

const text = ref('');
const said = ref('');
const typed = useTypedLine(text);
const picked = ref<string>();
const markedAt = ref<number>();

const records = computed(() => cast.value.map(({ record }) => record));
const due = computed(() => inOrderOfDue(records.value, now.value));
const turn = computed(() => records.value.find(({ header }) => header.id === (picked.value ?? due.value[0]?.runId)) ?? records.value[0]);
const letterOf = (run: RunRecord) => LANE_LETTERS[records.value.indexOf(run)] ?? '';
const scores = computed(() =>
  cast.value.map(({ actor, record }) => ({
    name: actor.header.device.name,
    score: scoreOf(record, actor, (now.value - actor.header.plugInAt) / 1000),
  })),
);

function begin(): void {
  const every = readDecimal(everyMinutes.value) * 60;
  if (!(every >= 30 && every <= 3600)) {
    error.value = 'Write minutes between readings, from half a minute to an hour.';
    return;
  }
  const seed = Date.now() % 100_000;
  error.value = '';
  noise = seeded(seed);
  plans.clear();
  now.value = Date.now();
  cast.value = castOf(count.value, seed, now.value, every).map((actor) => played(actor, []));
  [isOver.value, said.value, text.value, picked.value, markedAt.value] = [false, '', '', undefined, undefined];
  realAt = performance.now();
  clearInterval(timer);
  timer = setInterval(goOn, FRAME);
}

const played = (actor: Actor, entries: Entry[]): Played => ({ actor, entries, record: foldRun(actor.header, entries) });

function goOn(): void {
  const real = performance.now();
  now.value += (real - realAt) * speed.value;
  realAt = real;
  if (isStandIn.value) for (const each of cast.value) read(each);
  if (cast.value.every(({ record }) => record.tracks.percent.values[record.tracks.percent.values.length - 1] === 100)) end();
}

/** The stand-in reads a lane, once it is time to. */
function read({ actor, record }: Played): void {
  const { id, plugInAt } = actor.header;
  const next = dueOf(record, now.value);
  if (!next || next.wait > 0) return;
  const elapsed = (now.value - plugInAt) / 1000;
  let plan = plans.get(id);
  if (plan?.due !== next.due) {
    const { after, read: values } = standIn(noise);
    plan = { due: next.due, at: after === undefined ? undefined : next.due + after, read: values };
    plans.set(id, plan);
  }
  if (plan.at === undefined || elapsed < plan.at) return;
  // Seen when it was planned to be, however far the picture has moved on since.
  write(id, { kind: 'reading', at: Math.round(plugInAt + plan.at * 1000), ...plan.read(actor.sight(plan.at)) });
}

function write(runId: string, draft: Draft): void {
  cast.value = cast.value.map((each) => {
    if (each.actor.header.id !== runId) return each;
    const seq = each.entries.length + 1;
    return played(each.actor, [...each.entries, { ...draft, seq, id: `${runId}-${seq}`, written: Math.round(now.value) }]);
  });
}

function submit(): void {
  const run = turn.value;
  if (!run) return;
  const assessed = typed.assess(run, Math.round(now.value), markedAt.value);
  if ('says' in assessed) said.value = assessed.says;
  else {
    write(run.header.id, assessed.draft);
    said.value = `Read at ${spell((assessed.draft.at - run.header.plugInAt) / 1000, 1)} on ${run.header.device.name}.`;
    [text.value, picked.value, markedAt.value] = ['', undefined, undefined];
    typed.forget();
  }
}

function strike(): void {
  const run = turn.value;
  const newest = run?.readings.at(-1)?.reading;
  if (!run || !newest) return;
  write(run.header.id, { kind: 'strike', at: Math.round(now.value), target: newest.id, reason: 'slipped' });
  said.value = `Struck the last reading of ${run.header.device.name}.`;
}

const line = useTemplateRef<HTMLInputElement>('line');
/** Keys on the page are those of the rehearsal: a figure lands in its line. */
useKeys(
  Object.fromEntries(
    [...'0123456789', 'Space', 'x', ...LANE_LETTERS.toLowerCase()].map((key) => [
      key,
      (event: KeyboardEvent) => {
        if (!line.value || event.target === line.value) return;
        line.value.focus();
        if (/^\d$/.test(event.key)) {
          text.value += event.key;
          event.preventDefault();
        } else press(event);
      },
    ]),
  ),
);

function press(event: KeyboardEvent): void {
  if (text.value !== '' || event.ctrlKey || event.metaKey || event.altKey) return;
  const index = LANE_LETTERS.toLowerCase().indexOf(event.key.toLowerCase());
  const lane = event.key.length === 1 && index >= 0 ? records.value[index] : undefined;
  if (lane) picked.value = lane.header.id;
  else if (event.key === ' ') markedAt.value = Math.round(now.value);
  else if (event.key.toLowerCase() === 'x') strike();
  else return;
  event.preventDefault();
}

function end(): void {
  clearInterval(timer);
  isOver.value = true;
}

onBeforeUnmount(() => {
  clearInterval(timer);
});
</script>

<template>
  <section class="sheet rehearsal">
    <header>
      <h1>Rehearsal</h1>
      <p class="stamp">not a run: made-up devices, nothing is saved</p>
      <div class="actions">
        <v-btn v-if="cast.length > 0 && !isOver" @click="end">End the rehearsal</v-btn>
        <v-btn v-if="isOver" @click="cast = []">Rehearse again</v-btn>
      </div>
    </header>
    <form v-if="cast.length === 0" class="body stacked" novalidate @submit.prevent="begin">
      <p>Practise without gear: read the screens and the meter as they change, and log them as they fall due.</p>
      <v-select v-model="count" :items="Array.from({ length: MOST_ACTORS }, (_, index) => index + 1)" label="Devices" />
      <v-text-field v-model="everyMinutes" label="Minutes between readings" inputmode="decimal" :error-messages="error" />
      <v-select v-model="speed" :items="SPEEDS.map((value) => ({ value, title: `${value} ×` }))" label="Speed" />
      <v-checkbox v-model="isStandIn" label="Read automatically" density="compact" hide-details />
      <v-btn type="submit" variant="flat" color="primary" size="large">Plug in</v-btn>
    </form>
    <template v-else>
      <div class="screens">
        <StandInScreen
          v-for="{ actor } in cast"
          :key="actor.header.id"
          :name="actor.header.device.name"
          :sight="actor.sight((now - actor.header.plugInAt) / 1000)"
        />
      </div>
      <div class="at">
        <v-select
          v-model="speed"
          :items="SPEEDS.map((value) => ({ value, title: `${value} ×` }))"
          label="Speed"
          density="compact"
          hide-details
        />
        <v-checkbox v-model="isStandIn" label="Read automatically" density="compact" hide-details />
        <form v-if="!isOver" @submit.prevent="submit">
          <label for="rehearsed"> Rehearsed reading of {{ turn?.header.device.name }}<template v-if="markedAt"> · marked</template> </label>
          <input
            id="rehearsed"
            ref="line"
            v-model="text"
            class="figures"
            autocomplete="off"
            spellcheck="false"
            placeholder="e.g. 42 26.1w 31.5c"
            @keydown="press"
          />
          <v-btn type="submit">Log</v-btn>
          <p class="soft"><kbd>Space</kbd> mark · <kbd>X</kbd> strike the last · <kbd>A</kbd>… pick a lane</p>
        </form>
        <p v-if="said" role="status">{{ said }}</p>
      </div>
      <ScoreTable v-if="isOver" :rows="scores" is-over />
      <LiveLane v-for="run in records" :key="run.header.id" :run="run" :letter="letterOf(run)" :at="now" :is-slim="records.length > 2" />
      <ScoreTable v-if="!isOver" :rows="scores" :is-over="false" />
    </template>
  </section>
</template>

<style scoped>
.rehearsal > header {
  background: repeating-linear-gradient(-45deg, transparent 0 14px, rgb(var(--v-theme-desk)) 14px 28px);
}

.stamp {
  padding: 0.1rem 0.6rem;
  font-weight: 600;
  background: rgb(var(--v-theme-paper));
  border: 1.5px dashed rgb(var(--v-theme-pencil));
}

.screens {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  padding: 1rem 1.5rem 0.25rem;
}

.at {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.5rem;
  align-items: center;
  padding: 0.75rem 1.5rem;
}

.at > :deep(.v-select) {
  flex: 0 0 11rem;
}

.at > form {
  display: grid;
  grid-template-columns: minmax(12rem, 22rem) auto;
  gap: 0.1rem 0.75rem;
}

.at label,
.at form p {
  grid-column: 1 / -1;
  font-size: 0.85rem;
}

.at input {
  padding: 0.3rem 0.7rem;
  font-size: 1.3rem;
  color: inherit;
  background: rgb(var(--v-theme-desk));
  border: 0;
  border-bottom: 2px dashed rgb(var(--v-theme-pencil));
}
</style>
