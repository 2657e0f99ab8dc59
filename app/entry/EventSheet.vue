<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import {
  EVENTS,
  eventSays,
  LIGHT_WAS,
  momentOf,
  POWER_COMES,
  POWER_GOES,
  type Draft,
  type EventId,
  type Header,
  type RunRecord,
  sourceAt,
  type Source,
  whatChanged,
  type Score,
} from '@core/ink';
import { spell, readDecimal } from '@core/quantity';
import DraftOffer from '../kit/DraftOffer.vue';
import { useDraft } from '../kit/drafts';
import { vFocus } from '../kit/vFocus';
import BetweenFields from '../logbook/BetweenFields.vue';
import GearField from '../logbook/GearField.vue';
import { useInkActs } from '../logbook/inkActs';
import { useLanes } from '../logbook/lanes';
import { useShelf } from '../logbook/shelf';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';
import { useDueLine } from './dueLine';

/** What happened: one key each. The moment is the one at which this sheet was opened, or that was marked. */
const props = defineProps<{ run: RunRecord; at: number }>();
const open = defineModel<boolean>({ required: true });

const lanes = useLanes();
const acts = useInkActs();
const line = useDueLine();
const shelf = useShelf();
const trouble = ref('');
/** While one is being stored, keys are not for this sheet any more. */
const busy = ref(false);
/** An event that wants more than its key. */
const asking = ref<EventId>();
const remark = ref('');
const charger = ref<string>();
const between = shallowRef<Pick<Header, 'port' | 'cable' | 'meter' | 'feed'>>({});
const scores = ref<{ name: string; value: string; unit: string; better: Score['better'] }[]>([]);

/** The charge light is out: it is asked whether that was seen. */
const isLight = ref(false);
const isAway = computed(() => props.run.unplugged.at(-1)?.to === Infinity);
const offered = computed<readonly { id: EventId; key: string; says: string }[]>(() => {
  if (isLight.value) return LIGHT_WAS;
  const hidden: readonly EventId[] = isAway.value ? POWER_GOES : POWER_COMES;
  return EVENTS.filter(({ id, key }) => key && !hidden.includes(id)).map((each) =>
    each.id === 'light off' ? { ...each, says: 'charge light out' } : each,
  );
});
/** It happened to every lane: a power strip that was switched off. */
const toAll = ref(false);
const others = computed(() => lanes.records.length - 1);
const chosen = computed(() => shelf.chargers.find(({ id }) => id === charger.value));
/** What it charges from before the swap: only what changes need be said. */
const now = computed(() => sourceAt(props.run, elapsed.value));
const lying = ({ port, cable, feed }: Source) => ({ ...(port !== undefined && { port }), ...(cable && { cable }), ...(feed && { feed }) });
const elapsed = computed(() => (props.at - props.run.header.plugInAt) / 1000);

function pick(id: EventId): void {
  if (id === 'swapped' || id === 'work started' || id === 'work ended') {
    asking.value = id;
    if (id === 'swapped') [charger.value, between.value] = [now.value.charger.id, lying(now.value)];
    if (id === 'work ended') {
      remark.value = props.run.events.findLast(({ event }) => event === 'work started')?.remark ?? '';
      scores.value = [{ name: '', value: '', unit: '', better: 'more' }];
    }
  } else if (id === 'light off' && !isLight.value) isLight.value = true;
  else void write({ kind: 'event', at: props.at, event: id });
}

const { offer, close, end } = useDraft(
  `event/${props.run.header.id}`,
  () => [asking.value, remark.value, charger.value, between.value, scores.value] as const,
  (given) => {
    [asking.value, remark.value, charger.value, between.value] = given;
    scores.value = [...given[4]];
  },
  () => {
    open.value = false;
  },
);

function press(event: KeyboardEvent): void {
  if (busy.value || asking.value || event.ctrlKey || event.metaKey || event.altKey) return;
  const named = offered.value.find(({ key }) => key === event.key.toLowerCase());
  if (!named) return;
  event.preventDefault();
  pick(named.id);
}

// On the window, for a quick hand is on the next key before the sheet has taken the focus.
useEventListener(window, 'keydown', press);

function writeAsked(): void {
  const { value: id } = asking;
  if (!id) return;
  trouble.value = '';
  const given = scores.value.filter(({ name, value }) => name.trim() || value.trim());
  const { port, cable, feed } = between.value;
  const source = chosen.value && { charger: chosen.value, port, cable, ...(feed && { feed }) };
  const changed = source ? whatChanged(now.value, source) : [];
  if (id === 'swapped' && !source) trouble.value = 'Choose what it charges from now.';
  else if (id === 'swapped' && changed.length === 0)
    trouble.value = 'That is what it charges from already: choose another charger, port, cable or feeder.';
  else if (id === 'work started' && !remark.value.trim()) trouble.value = 'Name the workload.';
  else if (given.some(({ name, value }) => !name.trim() || !value.trim() || !Number.isFinite(readDecimal(value))))
    trouble.value = 'A score needs a name and a number. Empty rows are left out.';
  if (trouble.value) return;
  const happened = { kind: 'event' as const, at: props.at, ...(remark.value.trim() && { remark: remark.value.trim() }) };
  if (id === 'swapped') {
    // Another charger is named by its source; of the same one it is said what changed.
    const isOther = source?.charger.id !== now.value.charger.id;
    void write({ ...happened, event: id, ...(!isOther && { remark: changed.join(', ') }), ...(source && { source }) });
  } else if (id === 'work ended')
    void write({
      ...happened,
      event: id,
      ...(given.length > 0 && { scores: given.map((each) => ({ ...each, name: each.name.trim(), value: readDecimal(each.value) })) }),
    });
  else void write({ ...happened, event: id });
}

async function write(noted: Extract<Draft, { kind: 'event' }>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  try {
    if (toAll.value) {
      // By one wall clock: the moments of runs differ where a clock was changed.
      const wall = noted.at + props.run.shift;
      await acts.writeTogether(lanes.records.map((run) => ({ runId: run.header.id, draft: { ...noted, at: momentOf(run, wall) } })));
    } else await acts.writeLive(props.run.header.id, noted);
    const where = toAll.value ? `all ${lanes.records.length} lanes` : props.run.header.device.name;
    line.say(`Noted at ${spell(elapsed.value, 1)} on ${where}: ${eventSays(noted.event)}.`);
    end();
  } catch (error) {
    trouble.value = troubleOf(error);
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="open" max-width="560" aria-labelledby="event-title" @update:model-value="close">
    <v-card>
      <h2 id="event-title">What happened at {{ spell(elapsed, 1) }} on {{ run.header.device.name }}?</h2>
      <DraftOffer :draft="offer" />
      <v-checkbox v-if="others > 0 && !asking" v-model="toAll" label="on all lanes at once" density="compact" hide-details />
      <p v-if="isLight">The charge light is out: it was</p>
      <ul v-if="!asking">
        <li v-for="({ id, key, says }, index) in offered" :key="id">
          <button v-if="index === 0" v-focus type="button" @click="pick(id)">
            <kbd>{{ key.toUpperCase() }}</kbd> {{ says }}
          </button>
          <button v-else type="button" @click="pick(id)">
            <kbd>{{ key.toUpperCase() }}</kbd> {{ says }}
          </button>
        </li>
      </ul>
      <form v-else @submit.prevent="writeAsked">
        <template v-if="asking === 'swapped'">
          <GearField v-model="charger" v-focus of="charger" label="Now charging from" />
          <BetweenFields v-if="chosen" :key="chosen.id" v-model="between" :device="run.header.device" :charger="chosen" without-meter />
        </template>
        <v-text-field v-else v-model="remark" v-focus label="Workload" maxlength="120" />
        <template v-if="asking === 'work ended'">
          <div v-for="(score, index) in scores" :key="index" class="score">
            <v-text-field v-model="score.name" :label="`Score ${index + 1}`" density="compact" maxlength="60" />
            <v-text-field v-model="score.value" label="Value" density="compact" inputmode="decimal" />
            <v-text-field v-model="score.unit" label="Unit" density="compact" maxlength="20" />
            <v-select v-model="score.better" :items="['more', 'less']" label="Better when" density="compact" />
          </div>
          <v-btn variant="text" @click="scores.push({ name: '', value: '', unit: '', better: 'more' })">Another score</v-btn>
        </template>
        <div class="buttons">
          <v-btn type="submit" variant="flat" color="primary">Note it</v-btn>
          <v-btn @click="end">Cancel</v-btn>
        </div>
      </form>
      <TroubleNote v-if="trouble" :trouble="trouble" />
    </v-card>
  </v-dialog>
</template>

<style scoped>
ul {
  columns: 2;
  list-style: none;
}

li {
  break-inside: avoid;
}

li button {
  width: 100%;
  padding: 0.4rem 0.2rem;
  font: inherit;
  color: inherit;
  text-align: start;
  background: none;
  border: 0;
  cursor: pointer;
}

form {
  display: grid;
  gap: 0.8rem;
}

.score {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr 1fr;
  gap: 0.4rem;
}

@media (max-width: 40em) {
  ul {
    columns: 1;
  }

  .score {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
