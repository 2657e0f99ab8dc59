<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { momentOf, SETTLE, sourceSays, STATUSES, type Draft, type RunRecord, type StatusId } from '@core/ink';
import { clock, parseEntryLine, readDecimal, writeEntryLine } from '@core/quantity';
import { assessTrial, statusOf, type InHand, type Sights } from '@core/run';
import { wallNow } from '../kit/clock';
import { troubleOf } from '../logbook/trouble';
import TroubleNote from '../logbook/TroubleNote.vue';
import { useTypedLine } from './typedLine';

/**
 * One source in hand: plug in, let it settle, say what it does, and on to the next. In the empty field a letter is a command; figures are text. A trial
 * that is written again stands in the card as it was.
 */
const props = defineProps<{ run: RunRecord; hand: InHand; now: number; log: (draft: Draft) => Promise<void> }>();
const emit = defineEmits<{ plugged: []; turnState: [] }>();

const { instead } = props.hand;
const field = useTemplateRef<HTMLInputElement>('field');
const text = ref(instead ? writeEntryLine({ ...instead, note: instead.remark }) : '');
const pluggedAt = ref<number>();
const status = ref<StatusId | undefined>(instead?.status);
const sights = ref<Partial<Record<'chime' | 'icon' | 'meter', boolean>>>({
  chime: instead?.chime,
  icon: instead?.icon,
  meter: instead?.meter,
});
const typedOf = (value: number | undefined) => (value === undefined ? '' : String(value));
const chimes = ref(typedOf(instead?.chimes));
const voltsBefore = ref(typedOf(instead?.voltsBefore));
const wattsOut = ref(typedOf(instead?.wattsOut));
const isAssumed = ref(instead?.wattsOutAssumed ?? false);
const error = ref('');
const trouble = ref('');
const busy = ref(false);
const typed = useTypedLine(text, true);

const SIGHTS = [
  { name: 'chime', key: 'k', says: 'chime' },
  { name: 'icon', key: 'i', says: 'charge icon' },
  { name: 'meter', key: 'm', says: 'meter shows current' },
] as const;

onMounted(() => field.value?.focus());

const name = computed(() => sourceSays(props.hand.source));
const passesOn = computed(() => props.hand.source.charger.kind === 'pad' || props.hand.source.feed !== undefined);
const settle = computed(() => (props.hand.source.charger.kind === 'pad' ? SETTLE.pad : SETTLE.plug));
const left = computed(() =>
  pluggedAt.value === undefined ? undefined : Math.min(settle.value, settle.value - (props.now - pluggedAt.value) / 1000),
);
/** What was chosen, else what the figures make likely. */
const shown = computed(() => {
  const line = parseEntryLine(text.value, props.run.header.device);
  return statusOf({ state: props.hand.state, status: status.value }, line.ok ? line.values : {}, props.run.header.device);
});

function plugIn(): void {
  pluggedAt.value = wallNow();
  emit('plugged');
  void nextTick(() => field.value?.focus());
}

function turn(sight: (typeof SIGHTS)[number]['name']): void {
  const { [sight]: before } = sights.value;
  // Not noted, then yes, then no.
  sights.value = { ...sights.value, [sight]: before === undefined ? true : before ? false : undefined };
}

const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };
/** Arrows go through what it does, as through any group of which one is chosen. */
function turnStatus(event: KeyboardEvent): void {
  const step = STEPS[event.key];
  const group = event.currentTarget;
  if (step === undefined || !(group instanceof HTMLElement)) return;
  event.preventDefault();
  const at = Math.max(
    0,
    STATUSES.findIndex(({ id }) => id === shown.value),
  );
  const next = (at + step + STATUSES.length) % STATUSES.length;
  status.value = STATUSES[next]?.id;
  group.querySelectorAll('button')[next]?.focus();
}

function press(event: KeyboardEvent): void {
  if (text.value !== '' || event.ctrlKey || event.metaKey || event.altKey) return;
  const key = event.key.toLowerCase();
  const named = STATUSES.find((each) => each.key === key);
  const sight = SIGHTS.find((each) => each.key === key);
  if (named) status.value = named.id;
  else if (sight) turn(sight.name);
  else if (key === 'a') emit('turnState');
  else if (key === ' ') plugIn();
  else return;
  event.preventDefault();
}

/** What stands in the small fields; a sentence where one of them is no number. */
function besides(): Sights | string {
  const read = (value: string) => (value.trim() === '' ? undefined : readDecimal(value));
  const found = { chimes: read(chimes.value), voltsBefore: read(voltsBefore.value), wattsOut: read(wattsOut.value) };
  if (Object.values(found).some((value) => value !== undefined && !(value >= 0)))
    return 'Chimes, volts before and watts out are numbers from 0 up, or left empty.';
  if (found.chimes !== undefined && !(Number.isInteger(found.chimes) && found.chimes < 100)) return 'Count whole chimes, up to 99.';
  const isOutAssumed = found.wattsOut !== undefined && isAssumed.value;
  const chime = sights.value.chime ?? (found.chimes === undefined ? undefined : found.chimes > 0);
  return { ...sights.value, chime, ...found, ...(isOutAssumed && { wattsOutAssumed: true as const }) };
}

async function submit(): Promise<void> {
  error.value = '';
  const beside = besides();
  if (typeof beside === 'string') {
    error.value = beside;
    return;
  }
  const hand = { ...props.hand, status: status.value, sights: beside };
  const assessed = typed.assess(props.run, momentOf(props.run, wallNow()), undefined, undefined, (values, run, now) =>
    assessTrial(values, hand, run, now),
  );
  if ('says' in assessed) {
    error.value = assessed.says;
    return;
  }
  busy.value = true;
  trouble.value = '';
  try {
    await props.log(assessed.draft);
  } catch (cause) {
    trouble.value = troubleOf(cause);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="trial" :aria-label="`Trial of ${name}`" @submit.prevent="submit">
    <h2>{{ name }}</h2>
    <p v-if="!instead" class="settle figures" role="timer">
      <button v-if="left === undefined" type="button" @click="plugIn"><kbd>Space</kbd> plugged in</button>
      <template v-else-if="left > 0">{{ clock(Math.ceil(left)) }} <small class="soft">until it has settled</small></template>
      <template v-else>settled: read it now</template>
    </p>
    <label class="soft" for="trial-line">Volts, amps or watts; the level, where it can be seen; temperatures, battery watts</label>
    <input
      id="trial-line"
      ref="field"
      v-model="text"
      class="figures"
      autocomplete="off"
      spellcheck="false"
      placeholder="e.g. 9v 2.1a 47"
      :aria-invalid="error !== ''"
      @keydown="press"
    />
    <div role="radiogroup" aria-label="What it does" class="choices" @keydown="turnStatus">
      <button
        v-for="each in STATUSES"
        :key="each.id"
        type="button"
        role="radio"
        :aria-checked="shown === each.id"
        :tabindex="shown === each.id || (!shown && each === STATUSES[0]) ? 0 : -1"
        @click="status = each.id"
      >
        <kbd>{{ each.key.toUpperCase() }}</kbd> {{ each.says }}<span v-if="shown === each.id && !status" class="soft"> · likely</span>
      </button>
    </div>
    <div class="choices">
      <button
        v-for="{ name: sight, key, says } in SIGHTS"
        :key="sight"
        type="button"
        :aria-pressed="sights[sight] ?? 'mixed'"
        @click="turn(sight)"
      >
        <kbd>{{ key.toUpperCase() }}</kbd> {{ says }}: {{ sights[sight] === undefined ? 'not noted' : sights[sight] ? 'yes' : 'no' }}
      </button>
      <button v-if="!instead" type="button" @click="emit('turnState')"><kbd>A</kbd> device {{ hand.state }}</button>
    </div>
    <div class="small">
      <v-text-field v-model="chimes" label="Chimes, how many" density="compact" inputmode="numeric" hide-details />
      <v-text-field v-model="voltsBefore" label="V before the handshake" density="compact" inputmode="decimal" hide-details />
      <template v-if="passesOn">
        <v-text-field v-model="wattsOut" label="W out of it" density="compact" inputmode="decimal" hide-details />
        <v-checkbox v-model="isAssumed" label="taken for granted" density="compact" hide-details />
      </template>
    </div>
    <p v-if="error" class="due" role="alert">{{ error }}</p>
    <TroubleNote v-if="trouble" :trouble="trouble" :run="run" :typed="`${name} ${shown ?? ''} ${text}`" />
    <v-btn type="submit" variant="flat" color="primary" :loading="busy">{{
      instead ? 'Write it again' : 'Log it, and on to the next'
    }}</v-btn>
  </form>
</template>

<style scoped>
.trial {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
  max-width: 40rem;
}

h2 {
  font-size: 1.6rem;
}

.settle {
  font-size: 1.8rem;
  font-weight: 700;
}

.settle small {
  font: 400 0.9rem var(--words);
}

input {
  width: 100%;
  padding: 0.3rem 0.7rem;
  font-size: 1.4rem;
  color: inherit;
  background: rgb(var(--v-theme-desk));
  border: 0;
  border-bottom: 2px solid rgb(var(--v-theme-due));
}

.small {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 0.5rem;
  width: 100%;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}

button:not(.v-btn) {
  padding: 0.3rem 0.6rem;
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  cursor: pointer;
}

button[aria-checked='true'],
button[aria-pressed='true'] {
  color: rgb(var(--v-theme-paper));
  background: rgb(var(--v-theme-ink));
}

button[aria-checked='true'] .soft {
  color: inherit;
}

/* By touch: no keys to show, and the way on stays under the thumb. */
@media (max-width: 40em) {
  kbd {
    display: none;
  }

  button:not(.v-btn) {
    flex-grow: 1;
  }

  .v-btn {
    position: sticky;
    bottom: 0.5rem;
    width: 100%;
  }
}
</style>
